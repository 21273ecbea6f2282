// How soon the bench locks, and how long what is personal is kept.
import { Button, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { saveTrust } from '../../api/calls';
import { ApiProblem, type Schemas } from '../../api/client';
import { did } from '../../shell/deeds';
import { readNumber } from '../../units/notation';
import { peopleKey } from './list';

type Settings = Schemas['TrustSettings'];

export function Trust({ trust }: { trust: Settings }) {
  const queries = useQueryClient();
  const [lock, setLock] = useState(String(trust.lock_minutes ?? 5));
  const [keep, setKeep] = useState(trust.keep_months ? String(trust.keep_months) : '');
  const fresh = async () => {
    await queries.invalidateQueries({ queryKey: peopleKey });
    await queries.invalidateQueries({ queryKey: ['session'] });
  };
  const save = useMutation({
    mutationFn: () =>
      saveTrust({
        lock_minutes: readNumber(lock) ?? 0,
        keep_months: keep.trim() ? (readNumber(keep) ?? 0) : null,
      }),
    onSuccess: async () => {
      did('Trust: kept', async () => {
        await saveTrust(trust);
        await fresh();
      });
      await fresh();
    },
  });
  const fault = save.error instanceof ApiProblem ? save.error : undefined;
  const at = (f: string) => fault?.problems.find((p) => p.field === f);
  return (
    <section className="pane people-trust" aria-label="Locking and keeping">
      <h2>Locking and keeping</h2>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate();
        }}
      >
        <TextField
          size="small"
          label="The bench locks after, minutes"
          value={lock}
          onChange={(e) => setLock(e.target.value)}
          error={!!at('lock_minutes')}
          helperText={
            at('lock_minutes') ? `${at('lock_minutes')!.wrong}; ${at('lock_minutes')!.right}` : '1 to 240'
          }
          slotProps={{ htmlInput: { 'data-testid': 'lock-minutes', inputMode: 'numeric' } }}
        />
        <TextField
          size="small"
          label="What is personal goes after, months"
          value={keep}
          onChange={(e) => setKeep(e.target.value)}
          error={!!at('keep_months')}
          helperText={
            at('keep_months')
              ? `${at('keep_months')!.wrong}; ${at('keep_months')!.right}`
              : 'words, plate and photos of closed tickets; empty: kept'
          }
          slotProps={{ htmlInput: { 'data-testid': 'keep-months', inputMode: 'numeric' } }}
        />
        <Button type="submit" variant="outlined" disabled={save.isPending} data-testid="trust-save">
          Keep
        </Button>
        {fault && !fault.problems.length && <p className="plate">{fault.message}</p>}
      </form>
    </section>
  );
}
