// Parts, aims, shapes and what cars taught, handed to another shop as a file and taken in from one.
import { Button } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { getLenders, putOut, sendTable } from '../../api/calls';
import type { Schemas } from '../../api/client';
import { useMay } from '../../door/useSession';
import { did } from '../../shell/deeds';
import { Refusal } from '../../shell/Fault';
import { NothingTaken } from '../../shell/NothingTaken';
import { Glyph } from '../../ui/glyphs';
import { ChipButton } from '../../ui/Press';

type Taken = Schemas['OfferTaken'];
const counted = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** What a file brought, in one line. */
export function takenWords(t: Taken): string {
  const all = [
    t.parts && counted(t.parts, 'part'),
    t.aims && counted(t.aims, 'aim'),
    t.shapes && counted(t.shapes, 'shape'),
    t.cars && `what ${counted(t.cars, 'car')} taught`,
  ].filter(Boolean);
  return all.length
    ? `Taken in from ${t.shop}: ${all.join(', ')}.`
    : `Everything of ${t.shop} is here already.`;
}

export function OtherShops() {
  const file = useRef<HTMLInputElement>(null);
  const queries = useQueryClient();
  const may = useMay()('library');
  const lenders = useQuery({ queryKey: ['lenders'], queryFn: getLenders });
  const anew = () =>
    Promise.all(
      ['lenders', 'memory', 'parts', 'aims'].map((k) => queries.invalidateQueries({ queryKey: [k] })),
    );
  const bring = useMutation({
    mutationFn: (f: File) => sendTable<Taken>('/api/v1/shop/offer', f),
    onSuccess: async (t) => {
      did(takenWords(t));
      await anew();
    },
  });
  const out = useMutation({
    mutationFn: putOut,
    onSuccess: async () => {
      did('What another shop’s cars taught was put out');
      await anew();
    },
  });
  return (
    <div className="memory-others" data-testid="other-shops">
      <h3>Other shops</h3>
      <p className="small mut">
        A file with the shop’s own parts, aims, measured shapes and what its cars taught. No ticket and no
        customer is in it.
      </p>
      {may && (
        <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
          <ChipButton href="/api/v1/shop/offer.json" download data-testid="offer-out">
            A file for another shop
          </ChipButton>
          <ChipButton onClick={() => file.current?.click()} disabled={bring.isPending}>
            Take in a file
          </ChipButton>
          <input
            ref={file}
            type="file"
            accept=".json,application/json"
            className="vh"
            aria-label="File of another shop"
            data-testid="offer-in"
            onChange={(e) => {
              const f = e.target.files?.[0];
              if (f) bring.mutate(f);
              e.target.value = '';
            }}
          />
        </div>
      )}
      <NothingTaken error={bring.error} testid="offer-fault" />
      {bring.data && (
        <p data-testid="offer-taken" role="status" style={{ display: 'flex', gap: 8 }}>
          <Glyph name="done" size={16} />
          <span>
            {takenWords(bring.data)}
            {bring.data.kept.length > 0 && ` Stays as it is here: ${bring.data.kept.join(', ')}.`}
          </span>
        </p>
      )}
      {lenders.data?.map((l) => (
        <div key={l.origin} className="memory-lender" data-testid={`lender-${l.origin}`}>
          <span>
            <b>{l.name}</b>
            <span className="small" style={{ display: 'block' }}>
              {[
                l.cars && `${counted(l.cars, 'car')} of parts`,
                l.heights && `${counted(l.heights, 'car')} of height`,
              ]
                .filter(Boolean)
                .join(', ')}
              ; taken in by {l.author}
            </span>
          </span>
          {may && (
            <Button variant="outlined" disabled={out.isPending} onClick={() => out.mutate(l.origin)}>
              Put out
            </Button>
          )}
        </div>
      ))}
      {out.error && <Refusal error={out.error} />}
    </div>
  );
}
