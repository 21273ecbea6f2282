// What a class or an owner can forbid, in the words of the screens.
import type { Schemas } from '../api/client';

type Rule = Schemas['Rule'];

export const ruleWords: [Rule, string][] = [
  ['aftermarket_arms', 'Factory arms stay'],
  ['welding', 'No welding'],
  ['cutting', 'No cutting'],
  ['spherical_joints', 'No metal joints'],
  ['moves_pivots', 'Pivots stay'],
  ['knuckle', 'Knuckles stay'],
];

/** One of them in a line. */
export const ruleWord = (r: Rule) =>
  (ruleWords.find(([k]) => k === r)?.[1] ?? r).replace(/^./, (c) => c.toLowerCase());
