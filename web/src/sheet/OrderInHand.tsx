// One order in hand: where it sits, what turns which way from which mark to which, what to expect after it, and what was
// really done. The rest of the step beside it.
import { HowTo } from '../ui/HowTo';
import { Button, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useState } from 'react';
import type { AxleName, Drawing, SideName } from '../api/client';
import { AxleOrders, type OrderSpot } from '../figures/AxleOrders';
import { TurnFigure } from '../figures/TurnFigure';
import { FieldError } from '../shell/Fault';
import { useKeys } from '../shell/bindings';
import { Plain } from '../ui/Press';
import { Glyph, Half } from '../ui/glyphs';
import { useSettings } from '../ui/settings';
import { angle, length } from '../units/print';
import {
  asDone,
  inWords,
  isClosed,
  noTold,
  turnId,
  turning,
  turnKey,
  type CouldNot,
  type Told,
  type Tolds,
  type Turn,
} from './asDone';
import { couldNot } from './couldNot';
import { inTurns, stepped } from './counted';
import { Loose } from './Loose';
import { sideWord } from './sheet';

interface Props {
  axle: AxleName;
  list: Turn[];
  drawings: Record<SideName, Drawing> | undefined;
  tolds: Tolds;
  set: (t: Tolds) => void;
  problems: { field: string; wrong: string; right: string }[];
  stale: boolean;
  /** The whole list is closed, as told. */
  finish: (tolds: Tolds) => void;
  fs: number;
  /** Whether the key of an order in hand is this one's: one list of a page has it. */
  keyed?: boolean;
}

const called = (t: Turn) => (t.side ? `${sideWord(t.side)} ${t.line.name.toLowerCase()}` : t.line.name);

export function OrderInHand(p: Props) {
  const { unit } = useSettings();
  const shown = turning(p.list);
  const leave = p.list.filter((t) => t.line.direction === 'leave');
  const first = shown.findIndex((t) => !isClosed(p.tolds[turnKey(t)]));
  const [chosen, setChosen] = useState<string>();
  const sent = asDone(p.list, p.tolds, unit);
  // What was refused is in hand again.
  const wrongAt = (t: Turn) => {
    const at = sent.findIndex((s) => (s.side ?? undefined) === t.side && s.name === t.line.name);
    return at < 0 ? undefined : p.problems.find((x) => x.field === `as_done.${at}.amount`);
  };
  const refused = shown.findIndex((t) => wrongAt(t));
  const picked = shown.findIndex((t) => turnKey(t) === chosen);
  const at = picked >= 0 ? picked : refused >= 0 ? refused : Math.max(first, 0);
  const now = shown[at];
  const told = (now && p.tolds[turnKey(now)]) ?? noTold;
  const change = (t: Partial<Told>) => {
    if (!now) return;
    // What is typed in stays in hand, whatever was refused before.
    setChosen(turnKey(now));
    p.set({ ...p.tolds, [turnKey(now)]: { ...told, of: now.line.position, ...t } });
  };
  const close = () => {
    if (!now || p.stale) return;
    const tolds = { ...p.tolds, [turnKey(now)]: { ...told, of: now.line.position, closed: true } };
    p.set(tolds);
    const open = shown.find((t) => !isClosed(tolds[turnKey(t)]));
    setChosen(open && turnKey(open));
    if (!open) p.finish(tolds);
  };
  useKeys(p.keyed === false ? {} : { as_ordered: close });
  if (!now) return null;
  const { line } = now;
  const id = turnId(now);
  const wrong = wrongAt(now);
  const hand = line.in_hand;
  const otherwise = shown.slice(0, at).some((t) => inWords(p.tolds[turnKey(t)]));
  const spots: OrderSpot[] = shown.flatMap((t, i) => {
    const spot = t.line.in_hand?.spot;
    const state = i === at ? 'now' : isClosed(p.tolds[turnKey(t)]) ? 'done' : 'waits';
    if (!spot) return [];
    // What is one for both wheels is drawn once.
    return [
      { n: i + 1, side: t.side ?? 'left', at: spot, state, link: t.line.in_hand?.turn === 'thread' } as const,
    ];
  });
  const step = (by: 1 | -1) => {
    const next = hand ? stepped(hand, told.amount, by, unit) : undefined;
    if (next !== undefined) change({ amount: next, closed: false });
  };
  return (
    <div className="in-hand" data-testid="in-hand">
      <div className="in-hand-slate slate drawn">
        <HowTo of="order" />
        {p.drawings && (
          <div className="in-hand-axle">
            <AxleOrders axle={p.axle} drawings={p.drawings} spots={spots} />
          </div>
        )}
        <div className="in-hand-turn">
          <p className="fig" style={{ fontSize: 19, fontWeight: 700 }}>
            {at + 1}. {called(now)}
          </p>
          <TurnFigure line={line} side={now.side} />
        </div>
      </div>
      <div className="in-hand-work">
        <ol className="in-hand-list" aria-label="Orders of this step">
          {shown.map((t, i) => {
            const done = p.tolds[turnKey(t)];
            const is = i === at;
            return (
              <li key={turnKey(t)}>
                <Plain
                  className={is ? 'on' : ''}
                  aria-current={is ? 'step' : undefined}
                  onClick={() => setChosen(turnKey(t))}
                  data-testid={`order-${turnId(t)}`}
                >
                  <span className="in-hand-n" aria-hidden="true">
                    {isClosed(done) ? <Glyph name="done" size={15} /> : i + 1}
                  </span>
                  {t.side && <Half side={t.side} size={17} />}
                  <span className="in-hand-name">
                    <b>{t.line.name}</b>
                    <span className="small mut">
                      {isClosed(done)
                        ? inWords(done) || 'as ordered'
                        : is
                          ? 'in hand'
                          : t.line.sets_toe
                            ? 'toe, last'
                            : 'waits'}
                    </span>
                  </span>
                  <span className="fig" data-testid={`set-${turnId(t)}`}>
                    {t.line.amount}
                  </span>
                </Plain>
              </li>
            );
          })}
          {leave.map((t) => (
            <li key={turnKey(t)} className="in-hand-leave small mut">
              {t.side && <Half side={t.side} size={14} />} {t.line.name}:{' '}
              <span data-testid={`set-${turnId(t)}`}>{t.line.words}</span>
            </li>
          ))}
        </ol>
        <div className="in-hand-big">
          <p className="word" style={{ fontWeight: 600 }}>
            {now.side && <Half side={now.side} size={20} />} {called(now)}
          </p>
          <p className="fig in-hand-amount" style={{ fontSize: 52 * p.fs }} data-testid="in-hand-amount">
            {line.amount}
          </p>
          <p className="fig" style={{ fontSize: 31 * p.fs, fontWeight: 750 }} data-testid="in-hand-way">
            {line.way}
          </p>
          {hand && <Also line={line} />}
          {line.at_end && (
            <p className="word small">
              <Glyph name="short" size={16} /> that is its end
            </p>
          )}
        </div>
        <div className="in-hand-told">
          <p className="small">What was really turned</p>
          <Button
            variant="contained"
            fullWidth
            sx={{ minHeight: 58, fontSize: 18, lineHeight: 1.15 }}
            disabled={p.stale}
            onClick={close}
            data-testid="as-ordered"
          >
            {inWords(told) ? `As told: ${inWords(told)}` : `As ordered: ${line.amount}`}
          </Button>
          <div className="in-hand-step">
            <Plain aria-label="less far" onClick={() => step(-1)} data-testid="less-far">
              −
            </Plain>
            <label>
              <input
                value={told.amount}
                placeholder={line.amount}
                inputMode="text"
                aria-label={`${called(now)}, really`}
                aria-invalid={!!wrong}
                onChange={(e) => change({ amount: e.target.value, closed: false })}
                data-testid={`really-${id}`}
              />
            </label>
            <Plain aria-label="farther" onClick={() => step(1)} data-testid="farther">
              +
            </Plain>
          </div>
          {wrong && <FieldError wrong={wrong.wrong} right={wrong.right} />}
          <ToggleButtonGroup
            exclusive
            fullWidth
            size="small"
            value={told.could_not ?? null}
            onChange={(_, v: CouldNot | null) => change({ could_not: v ?? undefined, closed: false })}
            aria-label={`Could not: ${line.name}`}
          >
            {couldNot.map(([w, label]) => (
              <ToggleButton key={w} value={w} sx={{ minHeight: 44 }} data-testid={`could-not-${w}-${id}`}>
                {label}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </div>
      </div>
      {hand && now.side && hand.before && (
        <Loose
          key={turnKey(now)}
          hand={hand}
          side={now.side}
          axle={p.axle}
          use={(amount) => change({ amount, closed: false })}
        />
      )}
      {hand && <After hand={hand} side={now.side} axle={p.axle} otherwise={otherwise} />}
    </div>
  );
}

/** The same amount as it can be counted otherwise: flats of a hex, mm along the link, thread that stays. */
function Also({ line }: { line: Turn['line'] }) {
  const { unit } = useSettings();
  const t = line.in_hand?.thread;
  if (!t) return null;
  return (
    <>
      <p className="fig" style={{ fontSize: 20, fontWeight: 650 }}>
        {inTurns(t.flats)} flats of a hex · {length(Math.abs(line.movement_mm), unit, 1)}
      </p>
      {t.left_mm != null && (
        <p className="small mut">
          {length(t.left_mm, unit, 1)} of thread stay in each end; keep {length(t.least_mm, unit)}.
        </p>
      )}
    </>
  );
}

type Hand = NonNullable<Turn['line']['in_hand']>;

function After({
  hand,
  side,
  axle,
  otherwise,
}: {
  hand: Hand;
  side: SideName | undefined;
  axle: AxleName;
  otherwise: boolean;
}) {
  const { form } = useSettings();
  const { before, after } = hand;
  if (!before || !after) return null;
  // What does not show in the figures does not move.
  const shown = [['camber', 0] as const, ['caster', 1] as const, ['toe in', 2] as const]
    .filter(([, i]) => i !== 1 || axle === 'front')
    .map(([word, i]) => ({ word, was: angle(before[i]!, form, 2), is: angle(after[i]!, form, 2) }))
    .filter((r) => r.was !== r.is);
  return (
    <div className="in-hand-after" data-testid="in-hand-after">
      <p className="small">
        <b>After it, expect</b>
        <br />
        {side ? `${side} ${axle}` : `${axle} axle`}, rolled and bounced
      </p>
      {otherwise ? (
        <p className="small mut">Something above was turned otherwise: the gate reads what came.</p>
      ) : (
        shown.map((r) => (
          <p key={r.word}>
            <span className="fig" style={{ fontSize: 26 }}>
              <span className="mut" style={{ fontSize: 20, fontWeight: 600 }}>
                {r.was} →{' '}
              </span>
              {r.is}
            </span>
            <span className="small mut" style={{ display: 'block' }}>
              {r.word}
            </span>
          </p>
        ))
      )}
    </div>
  );
}
