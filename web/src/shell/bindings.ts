// Every key of the program, once: what is pressed, what it does, and how both are told. The help is made from it.
import { useEffect, useRef } from 'react';

interface Binding {
  /** As the browser names them. */
  keys: readonly string[];
  /** As they are printed, where several bindings share a line with the first. */
  shown: string;
  /** What it does; none where the binding before tells it. */
  word?: string;
}

const bindings = {
  stage1: { keys: ['1'], shown: '1 – 7', word: 'stage' },
  stage2: { keys: ['2'], shown: '' },
  stage3: { keys: ['3'], shown: '' },
  stage4: { keys: ['4'], shown: '' },
  stage5: { keys: ['5'], shown: '' },
  stage6: { keys: ['6'], shown: '' },
  stage7: { keys: ['7'], shown: '' },
  jobs: { keys: ['g'], shown: 'G', word: 'all jobs' },
  arrival: { keys: ['n'], shown: 'N', word: 'new arrival, on the jobs page' },
  left: { keys: ['l'], shown: 'L  R  B', word: 'left, right, both' },
  right: { keys: ['r'], shown: '' },
  both: { keys: ['b'], shown: '' },
  lower: { keys: ['['], shown: '[  ]', word: 'height −5 / +5 mm, with Shift 1 mm' },
  higher: { keys: [']'], shown: '' },
  lower_little: { keys: ['{'], shown: '' },
  higher_little: { keys: ['}'], shown: '' },
  next_part: { keys: ['p'], shown: 'P', word: 'next part' },
  compare: { keys: ['c'], shown: 'C', word: 'compare plans' },
  lock: { keys: ['k'], shown: 'K', word: 'map at full lock, and back' },
  find: { keys: ['/'], shown: '/', word: 'find a ticket, on the jobs page' },
  fit: { keys: ['Enter'], shown: 'Enter', word: 'fit the part, or press the focused button' },
  take_off: { keys: ['Backspace'], shown: 'Backspace', word: 'take the part off' },
  nearer: { keys: [','], shown: ',  .', word: 'distance −1 000 / +1 000' },
  farther: { keys: ['.'], shown: '' },
  table: { keys: ['t'], shown: 'T', word: 'table beside the drawing' },
  undo: { keys: ['z'], shown: 'Z', word: 'undo in the plan' },
  length: { keys: ['u'], shown: 'U  M', word: 'mm or inches, decimal or minutes' },
  angle: { keys: ['m'], shown: '' },
  as_ordered: { keys: ['d'], shown: 'D', word: 'the order in hand, as ordered or as told' },
  help: { keys: ['?'], shown: '?', word: 'this list' },
} as const satisfies Record<string, Binding>;

export type Action = keyof typeof bindings;
type Act = (e: KeyboardEvent) => void;

const actionOf = new Map<string, Action>(
  (Object.entries(bindings) as [Action, Binding][]).flatMap(([a, b]) =>
    b.keys.map((k): [string, Action] => [k, a]),
  ),
);

/** Stages by their number. */
export const stageAction = (i: number): Action => `stage${i + 1}` as Action;

/** What the help lists: keys and what they do, in order. */
export const help: [string, string][] = (Object.values(bindings) as Binding[]).flatMap(
  (b): [string, string][] => (b.word ? [[b.shown, b.word]] : []),
);

const SINGLE = 'bold-stance.single-keys';

/** Whether a letter or a digit alone does something; off, it is what a voice or a shaking hand types and nothing else. */
export const singleKeys = () => localStorage.getItem(SINGLE) !== 'off';
export const setSingleKeys = (on: boolean) => localStorage.setItem(SINGLE, on ? 'on' : 'off');

/** Listens for actions of this part of the screen. Never while typing, nor behind a dialog. */
export function useKeys(acts: Partial<Record<Action, Act>>) {
  const latest = useRef(acts);
  latest.current = acts;
  useEffect(() => {
    const on = (e: KeyboardEvent) => {
      const t = e.target as HTMLElement;
      const typing = /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName) || t.isContentEditable;
      const acting = /^(BUTTON|A)$/.test(t.tagName) && (e.key === 'Enter' || e.key === ' ');
      if (typing || acting || e.ctrlKey || e.metaKey || e.altKey || document.querySelector('[role=dialog]'))
        return;
      if (e.key.length === 1 && !singleKeys()) return;
      const action = actionOf.get(e.key) ?? actionOf.get(e.key.toLowerCase());
      const act = action && latest.current[action];
      if (act) {
        e.preventDefault();
        act(e);
      }
    };
    window.addEventListener('keydown', on);
    return () => window.removeEventListener('keydown', on);
  }, []);
}
