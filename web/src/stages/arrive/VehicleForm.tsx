// Vehicle facts, both axles, and the drawings that follow every keystroke.
import { Fold } from '../../ui/Fold';
import { TabBar } from '../../ui/TabBar';
import { Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ApiProblem, type Geometry, type Ticket, type VehicleFacts } from '../../api/client';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { useShop } from '../../shell/ticket';
import { Pick } from '../../ui/Pick';
import { readDraft, writeDraft } from '../../shell/drafts';
import { Unkept } from '../../shell/Unkept';
import { MM_PER_INCH } from '../../units/print';
import { fieldText as inField, type Units } from '../../units/measure';
import { MeasureField, TyreField } from '../../input/Field';
import { wrongOf, rightOf, type FieldKind } from '../../input/kinds';
import { at } from '../../input/paths';
import { Adjusters, useTurnable } from './Adjusters';
import { AxleEditor, type Archetype, type Mode, type Via } from './AxleEditor';
import { carOf, useLook } from './car';
import { carFields } from './carFacts';
import { Inspect } from './Inspect';
import { MovePane } from './MovePane';
import { MoveIt } from './MoveIt';
import { inUnit } from './moving';
import { pointAt, rowsOf } from './points';
import {
  bookKey,
  choices,
  isUsual,
  labelOf,
  lengths,
  measures,
  ofCar,
  readFacts,
  textsOf,
  turnsOf,
  type Axles,
  type AxleName,
  type Picks,
  type Texts,
  type Turned,
  type Turns,
} from './vehicleTexts';

interface Props {
  start: VehicleFacts;
  fault: ApiProblem | undefined;
  busy: boolean;
  action: string;
  done: (f: VehicleFacts) => void;
  head: React.ReactNode;
  extra?: React.ReactNode;
  /** A car nobody has looked under yet. */
  fresh?: boolean;
  /** The open job, when there is one. */
  ticket?: Ticket;
  /** Notes of the job, when there is one. */
  notes?: React.ReactNode;
  /** Under which what is typed is kept in the browser until it is saved. */
  draftKey: string;
}

/** What was typed into the form and differs from what is saved, as it is kept in the browser until then. */
interface Draft {
  /** Units it was typed in. */
  units: Units;
  texts: Texts;
  picks: Picks;
  axles?: Axles;
  turned?: Turned;
}

export function VehicleForm({
  start,
  fault,
  busy,
  action,
  done,
  head,
  extra,
  fresh,
  ticket,
  notes,
  draftKey,
}: Props) {
  const { unit, units } = useSettings();
  const shop = useShop();
  const books = shop.data?.settings.rule_books ?? [];
  const [kept] = useState(() => readDraft<Draft>(draftKey));
  const [restored, setRestored] = useState(!!kept);
  const own = (): Axles => ({
    front: start.axles.front.geometry!,
    rear: start.axles.rear.geometry ?? null,
  });
  const [texts, setTexts] = useState<Texts>(() => ({
    ...textsOf(start, kept?.units ?? units),
    ...kept?.texts,
  }));
  const [picks, setPicks] = useState<Picks>(kept?.picks ?? {});
  const [axles, setAxles] = useState<Axles>(() => kept?.axles ?? own());
  const asTold = (): Turned => {
    const u = (kept?.units ?? units).length;
    return { front: turnsOf(start, 'front', u), rear: turnsOf(start, 'rear', u) };
  };
  const [turned, setTurned] = useState<Turned>(() => {
    // A draft of before this was measured has none of it.
    const told = asTold();
    const k = kept?.turned;
    return k ? { front: { ...told.front, ...k.front }, rear: { ...told.rear, ...k.rear } } : told;
  });
  const [chosen, setChosen] = useState(0);
  const [turnFaults, setTurnFaults] = useState<Record<string, string>>({});
  // What a shape put there may be replaced by the next shape; what was typed may not.
  const filled = useRef<Texts>({});
  const [axle, setAxle] = useState<AxleName>('front');
  const [modes, setModes] = useState<Record<AxleName, Mode>>({
    front: fresh ? 'shape' : 'points',
    rear: start.axles.rear.geometry ? 'points' : 'shape',
  });
  const [pointFaults, setPointFaults] = useState<Record<string, string>>({});
  const [hotPath, setHotPath] = useState<string>();
  const typedIn = useRef(kept?.units ?? units);
  const { facts, bad } = useMemo(
    () => readFacts(start, texts, picks, axles, turned, typedIn.current),
    [start, texts, picks, axles, turned],
  );
  // A change of unit rewrites what can be read; what cannot stays as typed.
  useEffect(() => {
    if (typedIn.current === units) return;
    const was = typedIn.current;
    typedIn.current = units;
    const inNow = (x: Turns): Turns => ({ ...x, moving: inUnit(x.moving, was.length, units.length) });
    setTurned((x) => ({ front: inNow(x.front), rear: inNow(x.rear) }));
    setTexts((t) => {
      const { facts: f, bad: b } = readFacts(start, t, picks, axles, turned, was);
      const fresh = textsOf(f, units);
      // What a shape put there is still its own in the other unit.
      for (const [k, v] of Object.entries(filled.current)) if (v === t[k]) filled.current[k] = fresh[k] ?? v;
      return Object.fromEntries(Object.keys(t).map((k) => [k, b[k] ? t[k]! : (fresh[k] ?? t[k]!)]));
    });
  }, [units, start, picks, axles, turned]);
  // Kept in the browser while it differs from what is saved: another stage, a reload or a dead server loses nothing.
  useEffect(() => {
    const plain = textsOf(start, typedIn.current);
    const mine = Object.fromEntries(Object.entries(texts).filter(([k, t]) => t !== plain[k]));
    const moved = JSON.stringify(axles) !== JSON.stringify(own());
    const ticked = JSON.stringify(turned) !== JSON.stringify(asTold());
    const changed = Object.keys(mine).length > 0 || Object.keys(picks).length > 0 || moved || ticked;
    writeDraft<Draft>(
      draftKey,
      changed
        ? { units: typedIn.current, texts: mine, picks, ...(moved && { axles }), ...(ticked && { turned }) }
        : undefined,
    );
    // `own` and `asTold` are made of `start`.
    // eslint-disable-next-line
  }, [draftKey, start, texts, picks, axles, turned]);
  const leave = () => {
    writeDraft(draftKey, undefined);
    setTexts(textsOf(start, units));
    setPicks({});
    setAxles(own());
    setTurned(asTold());
    setRestored(false);
  };
  const looks = { front: useLook(axles.front), rear: useLook(axles.rear) };
  const set = (k: string, v: string) => setTexts((t) => ({ ...t, [k]: v }));
  const serverFault = (k: string) => fault?.at(k) ?? fault?.problems.find((p) => p.field.endsWith(k));
  const wrongAt = (k: string, right: string) => (bad[k] ? { wrong: bad[k], right } : serverFault(k));
  // For a car that is kept only what no form asks for by itself can still be the usual value.
  const given = useMemo(() => {
    const usualCar = shop.data?.starter.car ?? start.car;
    const plain = textsOf(fresh ? start : { ...start, car: usualCar }, units);
    return fresh ? plain : Object.fromEntries(Object.entries(plain).filter(([k]) => ofCar(k)));
  }, [start, units, fresh, shop.data]);
  const fieldText = (k: string, label: string, kind: FieldKind, suffix?: string, optional = false) => (
    <MeasureField
      key={k}
      kind={kind}
      label={label}
      suffix={suffix}
      text={texts[k] ?? ''}
      onText={(t) => set(k, t)}
      // What the field finds itself it says itself.
      fault={wrongOf(kind, texts[k] ?? '', units) ? undefined : wrongAt(k, rightOf(kind, units))}
      placeholder={optional ? 'not known' : ''}
      testid={k}
      // Inside the field: nothing moves when it is typed over.
      end={isUsual(k, texts[k], given, filled.current, !!fresh) && <span className="small mut">usual</span>}
    />
  );
  const linesText = (k: string, label: string, hint: string, right: string) => {
    const f = wrongAt(k, right);
    return (
      <TextField
        label={label}
        value={texts[k] ?? ''}
        onChange={(e) => set(k, e.target.value)}
        error={!!f}
        helperText={f ? `${f.wrong}; ${right}` : hint}
        size="small"
        multiline
        minRows={2}
        slotProps={{ htmlInput: { 'data-testid': k } }}
      />
    );
  };
  const change = (a: AxleName) => (g: Geometry | null, via: Via, shape?: Archetype) => {
    setAxles((x) => (a === 'front' ? (g ? { ...x, front: g } : x) : { ...x, rear: g }));
    // A shape is generic; a point that was typed is taped, unless it was said to be surveyed.
    const key = `axles.${a}.knowledge`;
    const now = (picks[key] ?? at(start, key)) as string;
    const to =
      via === 'points'
        ? now === 'archetype'
          ? 'taped'
          : now
        : via === 'shape'
          ? (shape?.knowledge ?? 'archetype')
          : 'archetype';
    if (to !== now) setPicks((p) => ({ ...p, [key]: to }));
    if (via === 'points' || !g) return;
    // What such a car usually is, until it is typed: nothing typed is ever replaced.
    const unitOf = (mm: number) => String(Math.round((mm / (unit === 'mm' ? 1 : MM_PER_INCH)) * 100) / 100);
    const usual: [string, string][] = [[`axles.${a}.track_mm`, unitOf(2 * g.wheel.center[1]!)]];
    if (shape && fresh) {
      const u = shape.usual;
      usual.push([`axles.${a}.height_mm`, unitOf(u.height_mm)]);
      usual.push([`car.axles.${a}.load_n`, inField('load', u.load_n, units)]);
      if (a === 'front') {
        usual.push(['tyre_size', u.tyre_size], ['tread_depth_mm', inField('tread', u.tread_depth_mm, units)]);
        if (u.wheelbase_mm) usual.push(['wheelbase_mm', unitOf(u.wheelbase_mm)]);
      }
    }
    const plain = textsOf(start, units);
    setTexts((t) => {
      const out = { ...t };
      for (const [field, text] of usual) {
        const standing = filled.current[field] ?? (fresh ? plain[field] : undefined);
        if (t[field] !== standing) continue;
        filled.current = { ...filled.current, [field]: text };
        out[field] = text;
      }
      return out;
    });
    if (!shape) return;
    if (fresh && a === 'front') {
      const u = shape.usual;
      const of: Picks = {
        'car.usual_aim': u.aim,
        drive: u.drive,
        silhouette: u.silhouette,
        tyre_class: u.tyre_class,
      };
      setPicks((p) => {
        const free = Object.entries(of).filter(([k]) => p[k] === undefined || p[k] === filled.current[k]);
        for (const [k, v] of free) filled.current = { ...filled.current, [k]: v };
        return { ...p, ...Object.fromEntries(free) };
      });
    }
    // Its adjusters too, while nobody said what is there; those of another layout are not on this one.
    const relaid = axles[a]?.layout !== g.layout;
    setTurned((x) =>
      x[a].told && !relaid
        ? x
        : {
            ...x,
            [a]: {
              told: false,
              list: shape.adjusters.map((o) => ({ ...o.adjuster, name: o.name, right: null })),
              heightBy: x[a].heightBy,
              upperShaft: shape.usual.upper_shaft ?? null,
              inspected: x[a].inspected,
              moving: x[a].moving,
            },
          },
    );
    setChosen(0);
  };
  const allBad = { ...bad, ...pointFaults, ...turnFaults };
  const firstBad = Object.keys(allBad)[0];
  const trouble = [...(looks.front?.problems ?? []), ...(axles.rear ? (looks.rear?.problems ?? []) : [])];
  const blocked = Object.keys(allBad).length > 0 || trouble.length > 0;
  const named = facts.name.trim().length > 0;
  const geometry = axles[axle];
  const row = geometry && hotPath ? rowsOf(geometry).find((r) => r.path === hotPath) : undefined;
  const spot = row && geometry ? pointAt(geometry, row.path) : undefined;
  // Right-hand points count outward; in the drawing the right side is negative.
  const seen = spot && row?.path.startsWith('right.') ? [spot[0]!, -spot[1]!, spot[2]!] : spot;
  const hot = row && seen ? { at: seen, name: row.label } : undefined;
  const turning = modes[axle] === 'adjusters' && !!geometry;
  const turns = useTurnable(turning ? geometry : null, turned[axle].list, turned[axle].told);
  const spots = turning
    ? turns.data?.rows.flatMap((r, i) =>
        r.spot
          ? [{ at: r.spot, label: String(i + 1), on: i === chosen, name: turned[axle].list[i]?.name ?? '' }]
          : [],
      )
    : undefined;
  const setTurns = (more: Partial<Turns>) => setTurned((x) => ({ ...x, [axle]: { ...x[axle], ...more } }));
  const carBody = useMemo(() => carOf(facts), [facts]);
  const [noting, setNoting] = useState(false);
  const tabs: [AxleName | 'notes', string][] = [
    ['front', 'Front axle'],
    ['rear', axles.rear ? 'Rear axle' : 'Rear axle, not known'],
  ];
  if (notes) tabs.push(['notes', 'Notes']);
  return (
    <main className={`main arrive-main ${turning ? 'turning' : ''}`}>
      <section
        className="pane"
        data-pane="Facts"
        style={{ padding: '14px 16px', overflowY: 'auto' }}
        aria-label="Vehicle facts"
      >
        {head}
        <Unkept typed={{ restored, drop: leave }} />
        <div style={{ display: 'grid', gap: 12, marginTop: 14 }}>
          <TextField
            label="What the shop calls it"
            value={texts.name ?? ''}
            onChange={(e) => set('name', e.target.value)}
            error={!!serverFault('name')}
            helperText={serverFault('name')?.wrong}
            size="small"
            slotProps={{ htmlInput: { 'data-testid': 'name', maxLength: 200 } }}
          />
          {extra}
          <TyreField
            label="Tyre size"
            text={texts.tyre_size ?? ''}
            onText={(t) => set('tyre_size', t)}
            fault={serverFault('tyre_size')}
            testid="tyre_size"
          />
          <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 12 }}>
            {lengths.map(([k, l]) => fieldText(k, l, 'length'))}
            <p className="small mut" style={{ gridColumn: '1 / -1', margin: '-6px 2px 0' }}>
              Heights: hub centre to arch lip, where the points were taken.
            </p>
            {measures.map(([k, l, kind]) => fieldText(k, l, kind))}
            {choices.map(([k, l, list]) => (
              <TextField
                key={k}
                select
                label={l}
                size="small"
                value={String(at(facts, k))}
                onChange={(e) => setPicks((p) => ({ ...p, [k]: e.target.value }))}
              >
                {list.map(([v, w]) => (
                  <MenuItem key={v} value={v} sx={{ minHeight: 44 }}>
                    {w}
                  </MenuItem>
                ))}
              </TextField>
            ))}
          </div>
          {(books.length > 0 || facts.class_rules) && (
            <Pick
              label="Rule book of its class"
              testid="class-rules"
              value={facts.class_rules?.name ?? ''}
              pick={(v) =>
                setPicks((p) => ({
                  ...p,
                  [bookKey]: JSON.stringify(books.find((b) => b.name === v) ?? null),
                }))
              }
              list={[
                { value: '', words: 'none: it does not compete' },
                ...books.map((b) => ({ value: b.name, words: b.name })),
                ...(facts.class_rules && !books.some((b) => b.name === facts.class_rules?.name)
                  ? [{ value: facts.class_rules.name, words: facts.class_rules.name }]
                  : []),
              ]}
            />
          )}
          <Fold className="fold" testid="more-facts" words={<>Steering, springs, load, air levels</>}>
            <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 12, marginTop: 12 }}>
              {carFields.map(([k, l, kind, u, optional]) => fieldText(`car.${k}`, l, kind, u, optional))}
            </div>
            <p className="small mut" style={{ margin: '8px 2px 0' }}>
              Ratio: spring travel over wheel travel. Payload back: its centre behind the front axle. Shaft:
              inner joint of the left front drive shaft.
            </p>
            <div style={{ display: 'grid', gap: 12, marginTop: 12 }}>
              {linesText(
                'car.levels',
                'Air levels',
                `One a line: name, front, rear against as arrived (${unit}), such as Access -40 -40`,
                'a name, then two lengths',
              )}
              {linesText(
                'car.turns',
                'Bolt or collar turns, and what they gave',
                `One a line: turns, height gained after settling (${unit}), such as 2 9.5`,
                'turns, then a length',
              )}
            </div>
          </Fold>
        </div>
      </section>
      <div className="axle-column" data-pane="Axles">
        <TabBar
          label="Axle"
          value={noting ? 'notes' : axle}
          choose={(a) => {
            setNoting(a === 'notes');
            if (a === 'notes') return;
            setAxle(a);
            setChosen(0);
          }}
          tabs={tabs.map(([value, label]) => ({ value, label, testid: `axle-${value}` }))}
        />
        {noting && notes}
        {!noting && (
          <AxleEditor
            key={axle}
            axle={axle}
            geometry={geometry}
            look={looks[axle]}
            problems={(fault?.problems ?? []).filter(
              (p) => p.field.includes('axles.rear.geometry') === (axle === 'rear'),
            )}
            wheelbase={facts.wheelbase_mm || 3000}
            mode={modes[axle]}
            setMode={(m) => setModes((x) => ({ ...x, [axle]: m }))}
            change={change(axle)}
            bad={setPointFaults}
            hot={setHotPath}
            moving={
              geometry && (
                <MoveIt
                  axle={axle}
                  geometry={geometry}
                  knowledge={facts.axles[axle].knowledge ?? 'archetype'}
                  designHeight={facts.axles[axle].height_mm}
                  texts={turned[axle].moving}
                  change={(moving) => setTurns({ moving })}
                  ticket={ticket}
                  saved={
                    JSON.stringify(turned[axle].moving) ===
                    JSON.stringify(turnsOf(start, axle, typedIn.current.length).moving)
                  }
                />
              )
            }
            inspect={
              <Inspect
                axle={axle}
                list={turned[axle].inspected}
                change={(inspected) => setTurns({ inspected })}
              />
            }
            adjusters={
              geometry && (
                <Adjusters
                  axle={axle}
                  geometry={geometry}
                  {...turned[axle]}
                  change={(list) => setTurns({ list, told: false })}
                  setTold={(told) => setTurns({ told })}
                  setHeightBy={(heightBy) => setTurns({ heightBy })}
                  setUpperShaft={(upperShaft) => setTurns({ upperShaft })}
                  chosen={chosen}
                  choose={setChosen}
                  bad={setTurnFaults}
                  problems={(fault?.problems ?? []).filter((p) =>
                    p.field.startsWith(`car.axles.${axle}.adjusters`),
                  )}
                />
              )
            }
          />
        )}
      </div>
      <MovePane
        car={Object.keys(allBad).length ? undefined : carBody}
        tyre={facts.tyre_size}
        rearTrack={facts.axles.rear.track_mm}
        axle={geometry ? axle : 'front'}
        hot={hot}
        spots={spots}
        blocked={blocked}
        unread={Object.keys(allBad).length > 0}
      >
        {fault && !fault.problems.length && <span className="plate">{fault.message}</span>}
        {(firstBad || fault?.problems.length || trouble.length > 0) && (
          <span className="plate" data-testid="form-fault" style={{ fontSize: 14 }}>
            <Glyph name="clash" size={16} />
            {firstBad
              ? `${labelOf(firstBad)}: ${allBad[firstBad]}`
              : fault?.problems.length
                ? `${fault.problems[0]?.field}: ${fault.problems[0]?.wrong}`
                : trouble[0]?.wrong}
          </span>
        )}
        <Button
          variant="contained"
          disabled={busy || blocked || (!named && !turning)}
          // What it is called is asked beside the other tabs.
          onClick={() => (named ? done(facts) : setModes((x) => ({ ...x, [axle]: 'shape' })))}
          data-testid="save-vehicle"
        >
          {named ? action : turning ? 'Now its name and tyres' : 'Give it a name'}
        </Button>
      </MovePane>
    </main>
  );
}
