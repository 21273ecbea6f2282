// What the shop types once: an hour of labour, its currency, what the figures of its parts are, and the rule books of the
// classes it works for.
import { Button, Dialog, TextField } from '@mui/material';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { saveShopSettings } from '../api/calls';
import { ApiProblem, type Schemas } from '../api/client';
import { ChipButton, Plain } from '../ui/Press';
import { Segment } from '../ui/Segment';
import { readNumber } from '../units/notation';
import { did } from './deeds';
import { readDraft, writeDraft } from './drafts';
import { FieldError } from './Fault';
import { ruleWords } from './rules';
import { useShop } from './ticket';

type Settings = Schemas['ShopSettings'];
interface Typed {
  version: number;
  rate: string;
  settings: Settings;
}
const draftKey = 'shop.settings';

export function ShopDialog({ close }: { close: () => void }) {
  const shop = useShop();
  const info = shop.data;
  if (!info) return null;
  return (
    <ShopForm
      key={info.settings_version}
      settings={info.settings}
      version={info.settings_version}
      close={close}
    />
  );
}

function ShopForm(p: { settings: Settings; version: number; close: () => void }) {
  const queries = useQueryClient();
  const [typed, setTyped] = useState<Typed>(() => {
    // Left half done: it is still here, over the version it was begun on.
    const kept = readDraft<Typed>(draftKey);
    return kept?.version === p.version
      ? kept
      : { version: p.version, rate: String(p.settings.labour_rate ?? ''), settings: p.settings };
  });
  const put = (t: Typed) => {
    setTyped(t);
    writeDraft(draftKey, t);
  };
  const s = typed.settings;
  const set = (c: Partial<Settings>) => put({ ...typed, settings: { ...s, ...c } });
  const rate = readNumber(typed.rate);
  const save = useMutation({
    mutationFn: () => saveShopSettings({ version: p.version, settings: { ...s, labour_rate: rate ?? -1 } }),
    onSuccess: async (now) => {
      writeDraft(draftKey, undefined);
      did('Shop: kept', async () => {
        await saveShopSettings({ version: now.version, settings: p.settings });
        await queries.invalidateQueries({ queryKey: ['shop'] });
      });
      await queries.invalidateQueries({ queryKey: ['shop'] });
      p.close();
    },
  });
  const fault = save.error instanceof ApiProblem ? save.error : undefined;
  const at = (f: string) => fault?.problems.find((x) => x.field === `settings.${f}`);
  const badRate =
    rate === undefined
      ? {
          wrong: typed.rate.trim() ? `“${typed.rate}” is no price` : 'nothing was entered',
          right: 'a number such as 90',
        }
      : at('labour_rate');
  const books = s.rule_books ?? [];
  const book = (i: number, c: Partial<Schemas['ClassRules']>) =>
    set({ rule_books: books.map((b, n) => (n === i ? { ...b, ...c } : b)) });
  return (
    <Dialog open onClose={p.close} aria-labelledby="shop-title">
      <form
        className="shop-form"
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate();
        }}
      >
        <h2 id="shop-title">The shop</h2>
        <p className="small mut">Typed once; money and hours of every plan and search are told by it.</p>
        <div className="shop-row">
          <TextField
            size="small"
            label="An hour of labour"
            value={typed.rate}
            onChange={(e) => put({ ...typed, rate: e.target.value })}
            error={!!badRate}
            helperText={badRate && `${badRate.wrong}; ${badRate.right}`}
            slotProps={{ htmlInput: { 'data-testid': 'shop-rate', inputMode: 'decimal' } }}
          />
          <TextField
            size="small"
            label="Currency, as it is written"
            value={s.currency ?? ''}
            onChange={(e) => set({ currency: e.target.value })}
            error={!!at('currency')}
            helperText={at('currency') && `${at('currency')!.wrong}; ${at('currency')!.right}`}
            slotProps={{ htmlInput: { 'data-testid': 'shop-currency' } }}
          />
        </div>
        <div className="shop-row">
          <span>The figures of the parts are</span>
          <Segment
            label="The figures of the parts are"
            value={s.figures ?? 'price'}
            choose={(figures) => set({ figures })}
            choices={[
              { value: 'price', label: 'what is asked', testid: 'figures-price' },
              { value: 'cost', label: 'what the shop pays', testid: 'figures-cost' },
            ]}
          />
        </div>
        <h3>Rule books of classes</h3>
        {books.map((b, i) => (
          <fieldset key={i} className="shop-book">
            <legend className="vh">Rule book {i + 1}</legend>
            <div className="shop-row">
              <TextField
                size="small"
                label="Class"
                value={b.name}
                onChange={(e) => book(i, { name: e.target.value })}
                error={!!at(`rule_books.${i}.name`)}
                helperText={
                  at(`rule_books.${i}.name`) &&
                  `${at(`rule_books.${i}.name`)!.wrong}; ${at(`rule_books.${i}.name`)!.right}`
                }
                slotProps={{ htmlInput: { 'data-testid': `book-${i}` } }}
              />
              <Plain
                onClick={() => set({ rule_books: books.filter((_, n) => n !== i) })}
                data-testid={`book-${i}-remove`}
              >
                Remove
              </Plain>
            </div>
            <div className="sets-filters" role="group" aria-label={`What ${b.name || 'it'} forbids`}>
              {ruleWords.map(([k, w]) => {
                const on = b.forbid?.includes(k) ?? false;
                return (
                  <ChipButton
                    key={k}
                    size="small"
                    aria-pressed={on}
                    data-testid={`book-${i}-${k}`}
                    onClick={() =>
                      book(i, {
                        forbid: on ? (b.forbid ?? []).filter((x) => x !== k) : [...(b.forbid ?? []), k],
                      })
                    }
                  >
                    {w}
                  </ChipButton>
                );
              })}
            </div>
          </fieldset>
        ))}
        <Button
          variant="outlined"
          onClick={() => set({ rule_books: [...books, { name: '', forbid: [] }] })}
          data-testid="book-add"
        >
          Add a rule book
        </Button>
        {fault && !fault.problems.length && (
          <FieldError
            wrong={fault.message}
            right={fault.status === 409 ? 'close and open this again' : 'try again'}
          />
        )}
        <div style={{ display: 'flex', gap: 10, justifyContent: 'flex-end', marginTop: 16 }}>
          <Button variant="outlined" onClick={p.close}>
            Close
          </Button>
          <Button
            type="submit"
            variant="contained"
            disabled={rate === undefined || save.isPending}
            data-testid="shop-save"
          >
            Save
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
