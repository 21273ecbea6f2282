// Most money and most hours a search may take: two fields as they are typed, what is wrong at them, and what they come to.
import { useState } from 'react';
import { FieldError } from '../../shell/Fault';
import { LineInput } from '../../ui/LineInput';
import { readNumber } from '../../units/notation';

export function useSpend(ids: { budget: string; hours: string }) {
  const [budget, setBudget] = useState('');
  const [hours, setHours] = useState('');
  const read = (t: string) => (t.trim() === '' ? null : (readNumber(t) ?? NaN));
  const [money, long] = [read(budget), read(hours)];
  const badMoney = money !== null && !(money >= 0 && money <= 1e6);
  const badHours = long !== null && !(long >= 0 && long <= 100);
  const field = (
    label: string,
    text: string,
    set: (t: string) => void,
    bad: boolean,
    any: string,
    id: string,
  ) => (
    <label>
      {label}
      <LineInput
        inputMode="decimal"
        value={text}
        placeholder={any}
        onChange={(e) => set(e.target.value)}
        aria-invalid={bad}
        testid={id}
      />
    </label>
  );
  return {
    /** What they come to; null where nothing is typed or it cannot be read. */
    budget: badMoney ? null : money,
    minutes: badHours || long === null ? null : Math.round(long * 60),
    bad: badMoney || badHours,
    /** How many of the two are in use. */
    on: (money === null ? 0 : 1) + (long === null ? 0 : 1),
    inputs: (
      <>
        {field('Parts at most', budget, setBudget, badMoney, 'any price', ids.budget)}
        {field('Hours at most', hours, setHours, badHours, 'any', ids.hours)}
      </>
    ),
    faults: (
      <>
        {badHours && <FieldError wrong={`“${hours}” are no hours`} right="a number such as 2.5, or empty" />}
        {badMoney && <FieldError wrong={`“${budget}” is no price`} right="a number such as 400, or empty" />}
      </>
    ),
  };
}
