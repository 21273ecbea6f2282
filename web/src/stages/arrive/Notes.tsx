// What was seen, in words and pictures, each at a place of the car.
import { Button, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { addNote, photoOf, strikeNote } from '../../api/calls';
import { ApiProblem, type Schemas, type Ticket } from '../../api/client';
import { placeWords } from '../../pad/readings';
import { did } from '../../shell/deeds';
import { FieldError } from '../../shell/Fault';
import { useDraft } from '../../shell/drafts';
import { Bare, ChipButton } from '../../ui/Press';
import { Glyph } from '../../ui/glyphs';
import { asKept } from './photo';
import { when } from '../../units/when';

type Place = Schemas['Place'];
type Note = Schemas['Note'];
const MOST = 12;

// From above, nose of the car upwards: where a note can belong.
const places: { place: Place; x: number; y: number; w: number; h: number }[] = [
  { place: { axle: 'front', side: 'left' }, x: 6, y: 26, w: 46, h: 56 },
  { place: { axle: 'front', side: 'both' }, x: 56, y: 26, w: 88, h: 56 },
  { place: { axle: 'front', side: 'right' }, x: 148, y: 26, w: 46, h: 56 },
  { place: { axle: 'both', side: 'left' }, x: 6, y: 88, w: 46, h: 56 },
  { place: { axle: 'both', side: 'both' }, x: 56, y: 88, w: 88, h: 56 },
  { place: { axle: 'both', side: 'right' }, x: 148, y: 88, w: 46, h: 56 },
  { place: { axle: 'rear', side: 'left' }, x: 6, y: 150, w: 46, h: 56 },
  { place: { axle: 'rear', side: 'both' }, x: 56, y: 150, w: 88, h: 56 },
  { place: { axle: 'rear', side: 'right' }, x: 148, y: 150, w: 46, h: 56 },
];
const same = (a: Place, b: Place) => a.axle === b.axle && a.side === b.side;

/** The car from above with how many notes stand where; a place is pressed to write there. */
function Plan({ notes, at, pick }: { notes: Note[]; at: Place; pick: (p: Place) => void }) {
  return (
    <div className="note-plan" role="group" aria-label="Place on the car, nose up">
      <svg viewBox="0 0 200 220" aria-hidden="true">
        <path
          d="M70 4H130Q150 6 152 30V190Q150 214 130 216H70Q50 214 48 190V30Q50 6 70 4Z"
          fill="none"
          stroke="var(--edge)"
          strokeWidth="1.6"
        />
        {[
          [22, 34],
          [162, 34],
          [22, 158],
          [162, 158],
        ].map(([x, y]) => (
          <rect
            key={`${x} ${y}`}
            x={x}
            y={y}
            width="16"
            height="40"
            rx="5"
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.8"
          />
        ))}
        <path d="M100 14L93 24H107Z" fill="var(--ink)" />
      </svg>
      {places.map(({ place, x, y, w, h }) => {
        const n = notes.filter((m) => same(m.place, place)).length;
        const on = same(place, at);
        return (
          <Bare
            key={`${place.axle}${place.side}`}
            className={`note-spot ${on ? 'on' : ''}`}
            aria-pressed={on}
            aria-label={`${placeWords(place)}, ${n} ${n === 1 ? 'note' : 'notes'}`}
            onClick={() => pick(place)}
            style={{ left: `${x / 2}%`, top: `${y / 2.2}%`, width: `${w / 2}%`, height: `${h / 2.2}%` }}
            data-testid={`note-at-${place.axle}-${place.side}`}
          >
            {n > 0 && <b className="fig">{n}</b>}
          </Bare>
        );
      })}
    </div>
  );
}

export function Notes({ ticket, setTicket }: { ticket: Ticket; setTicket: (t: Ticket) => void }) {
  const id = ticket.job.id;
  const [at, setAt] = useState<Place>({ axle: 'front', side: 'left' });
  const text = useDraft(
    `note.${id}`,
    () => '',
    (a, b) => a === b,
  );
  const [photo, setPhoto] = useState<string>();
  const [wrong, setWrong] = useState<string>();
  const keep = useMutation({
    mutationFn: () => addNote(id, { place: at, text: text.value, photo: photo ?? null }),
    onSuccess: (t) => {
      text.setValue('');
      setPhoto(undefined);
      setTicket(t);
      const made = t.notes.at(-1);
      if (made) did('Note: written', async () => setTicket(await strikeNote(id, made.id)));
    },
  });
  const strike = useMutation({ mutationFn: (note: string) => strikeNote(id, note), onSuccess: setTicket });
  const take = async (file: File | undefined) => {
    setWrong(undefined);
    if (!file) return;
    try {
      setPhoto(await asKept(file));
    } catch (e) {
      setWrong(e instanceof Error ? e.message : 'The photo could not be read.');
    }
  };
  const photos = ticket.notes.filter((n) => n.photo).length;
  const full = photos >= MOST;
  const fault = keep.error instanceof ApiProblem ? keep.error : undefined;
  const at1 = fault?.problems[0];
  return (
    <div className="axle-body" style={{ padding: '14px 16px', overflowY: 'auto' }} data-testid="notes">
      <h2>Notes and photos</h2>
      <p className="small mut" style={{ margin: '4px 0 10px' }}>
        {photos} of {MOST} photos. Kept smaller than the camera took them, without where and when it did.
      </p>
      <div className="note-new">
        <Plan notes={ticket.notes} at={at} pick={setAt} />
        <div style={{ display: 'grid', gap: 10, alignContent: 'start' }}>
          <h3>{placeWords(at).replace(/^./, (c) => c.toUpperCase())}</h3>
          <TextField
            label="What is seen"
            value={text.value}
            onChange={(e) => text.setValue(e.target.value)}
            multiline
            minRows={3}
            size="small"
            error={at1?.field === 'text'}
            helperText={at1?.field === 'text' ? `${at1.wrong}; ${at1.right}` : undefined}
            slotProps={{ htmlInput: { maxLength: 600, 'data-testid': 'note-text' } }}
          />
          <div style={{ display: 'flex', gap: 10, flexWrap: 'wrap', alignItems: 'center' }}>
            <Button variant="outlined" component="label" disabled={full} sx={{ minHeight: 48 }}>
              {photo ? 'Another photo' : full ? `${MOST} photos are kept` : 'Photo'}
              <input
                type="file"
                accept="image/*"
                capture="environment"
                className="vh"
                onChange={(e) => {
                  void take(e.target.files?.[0]);
                  e.target.value = '';
                }}
                data-testid="note-photo"
              />
            </Button>
            {photo && (
              <img
                src={`data:image/jpeg;base64,${photo}`}
                alt="Photo to keep"
                style={{ height: 64, borderRadius: 4, border: '1px solid var(--line)' }}
              />
            )}
            <Button
              variant="contained"
              disabled={keep.isPending || (!text.value.trim() && !photo)}
              onClick={() => keep.mutate()}
              data-testid="note-keep"
            >
              Keep it
            </Button>
          </div>
          {wrong && <FieldError wrong={wrong} right="what you typed is still here" />}
          {fault && at1?.field !== 'text' && (
            <FieldError
              wrong={at1?.wrong ?? fault.message}
              right={at1?.right ?? 'what you typed is still here'}
            />
          )}
        </div>
      </div>
      <ul className="note-list">
        {ticket.notes.map((n) => (
          <li key={n.id} data-testid="note">
            {n.photo && (
              <a href={photoOf(id, n.id)} target="_blank" rel="noreferrer">
                <img
                  src={photoOf(id, n.id)}
                  alt={`Photo, ${placeWords(n.place)}${n.text ? `: ${n.text}` : ''}`}
                  width={n.photo.width}
                  height={n.photo.height}
                  loading="lazy"
                />
              </a>
            )}
            <div style={{ flex: 1, minWidth: 0 }}>
              <b>{placeWords(n.place).replace(/^./, (c) => c.toUpperCase())}</b>
              <p style={{ whiteSpace: 'pre-wrap' }}>{n.text}</p>
              <span className="small mut">
                {n.author}, {when(n.written_at)}
              </span>
            </div>
            <ChipButton
              onClick={() => strike.mutate(n.id)}
              disabled={strike.isPending}
              aria-label={`Strike out the note at ${placeWords(n.place)}`}
              data-testid="note-strike"
            >
              <Glyph name="clash" size={16} /> Strike out
            </ChipButton>
          </li>
        ))}
      </ul>
    </div>
  );
}
