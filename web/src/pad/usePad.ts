// What is on the pad: every entry as typed with its repeats, and what the server makes of it while typing.
import { previewReading } from '../api/calls';
import { outbox } from '../api/outbox';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useRef, useState } from 'react';
import { ApiProblem, type Schemas, type Ticket, type TypedReading } from '../api/client';
import { useDebounced } from '../ui/useDebounced';
import { newId } from '../api/keys';
import { useSettings } from '../ui/settings';
import { useTyped } from '../shell/Unkept';
import {
  placeFor,
  placeWords,
  short,
  sideOf,
  type EntryInfo,
  type Method,
  type Target,
  type Visit,
} from './readings';

export interface Typed {
  text: string;
  dropped: boolean;
}
export type Jack = Schemas['Jack'];
export type Preview = Schemas['Preview'];
/** Quiet after the last key before anything is said about what was typed. */
const PAUSE_MS = 350;
export const HALF = '@half-turn';

const start = (m: Method, t: Target): Record<string, Typed[]> => {
  const out: Record<string, Typed[]> = {};
  const left = sideOf(t.place) === 'left';
  for (const e of m.entries) {
    // Out first, then in; left is plus.
    if (e.swing) out[e.name] = [{ text: left === (e.swing === 1) ? '20' : '-20', dropped: false }];
  }
  return out;
};

/** Entries that take numbers, those that must be typed first. */
export function numbers(m: Method): EntryInfo[] {
  return m.entries.filter((e) => e.kind !== 'choice' && !e.hidden);
}
export const mustType = (e: EntryInfo) => !e.optional && !e.from_car;

export function usePad(
  ticket: Ticket,
  visit: Visit,
  target: Target,
  method: Method,
  kept: (t: Ticket) => void,
  /** Takes the value where nothing is to be kept. */
  use?: (value: number, sigma: number) => void,
) {
  const { unit } = useSettings();
  const place = placeFor(method, target);
  const draft = `${use ? 'use.' : ''}pad.${ticket.job.id}.${visit}.${place.axle}.${place.side ?? ''}.${method.id}.${unit}`;
  const typing = useTyped(draft, () => start(method, target));
  const { value: lists, setValue: setLists } = typing;
  const [choices, setChoices] = useState<Record<string, string>>({});
  const first = numbers(method).find((e) => mustType(e) && !e.swing) ?? numbers(method)[0];
  const [active, setActive] = useState(first?.name ?? '');
  const [half, setHalf] = useState(false);
  const [jack, setJack] = useState<Jack>('rolled');
  const [jackedHeight, setJackedHeight] = useState('');
  // An id belongs to what was typed: sent twice it is stored once, changed after a lost answer it is a new one.
  const sent = useRef({ content: '', id: '' });
  const names = useMemo(() => {
    const list = numbers(method);
    return half
      ? list.flatMap((e) => (mustType(e) ? [e.name, e.name + HALF] : [e.name]))
      : list.map((e) => e.name);
  }, [method, half]);
  const info = (name: string) => method.entries.find((e) => e.name === name.replace(HALF, ''));
  const now = (name: string) => lists[name]?.at(-1)?.text ?? '';

  const entries = [
    ...names.flatMap((n) =>
      (lists[n] ?? [])
        .filter((x) => x.text.trim())
        .map((x) => ({ name: n, text: x.text, dropped: x.dropped })),
    ),
    ...method.entries
      .filter((e) => e.kind === 'choice' && !e.hidden)
      .flatMap((e) => {
        const word = choices[e.name] ?? e.usual ?? e.choices?.[0];
        return word && (word !== e.choices?.[0] || e.usual)
          ? [{ name: e.name, text: word, dropped: false }]
          : [];
      }),
  ];
  const content: Omit<TypedReading, 'id'> = {
    visit,
    axle: place.axle,
    side: place.side,
    method: method.id,
    entries,
    unit,
    jack,
    jacked_height: jackedHeight,
  };
  const key = JSON.stringify(content);
  if (sent.current.content !== key) sent.current = { content: key, id: newId() };
  const typed: TypedReading = { ...content, id: sent.current.id };
  const missing = names.filter((n) => {
    const e = info(n);
    return e && mustType(e) && !(lists[n] ?? []).some((x) => x.text.trim());
  });
  const complete = missing.length === 0 && entries.length > 0;
  // No verdict on half-typed text: the server is asked after a pause.
  const still = useDebounced(key, PAUSE_MS);
  const asked = useQuery({
    queryKey: ['preview', ticket.job.id, still],
    queryFn: () => previewReading(ticket.job.id, typed),
    enabled: complete && still === key,
    placeholderData: complete ? keepPreviousData : undefined,
    retry: false,
    staleTime: Infinity,
    gcTime: 0,
  });

  const what = `${short[method.quantity]}, ${placeWords(place)}, ${method.title}`;
  const keep = useMutation({
    mutationFn: async () => {
      // Without an answer it waits in the browser; the ticket stays as it is until then.
      if (!use) return (await outbox.keep(ticket.job.id, typed, what)) ?? ticket;
      const { taken } = await previewReading(ticket.job.id, typed);
      use(taken.value, taken.sigma);
      return ticket;
    },
    onSuccess: (t) => {
      sent.current = { content: '', id: '' };
      typing.drop();
      setActive(first?.name ?? '');
      kept(t);
    },
  });

  const set = (f: (t: string) => string, name = active) =>
    setLists((l) => {
      const list = l[name] ?? [];
      const last = list.at(-1) ?? { text: '', dropped: false };
      return { ...l, [name]: [...list.slice(0, -1), { ...last, text: f(last.text) }] };
    });
  const again = () =>
    setLists((l) => {
      const list = (l[active] ?? []).filter((x) => x.text.trim());
      return list.length ? { ...l, [active]: [...list, { text: '', dropped: false }] } : l;
    });
  const drop = (name: string, i: number) =>
    setLists((l) => ({
      ...l,
      [name]: (l[name] ?? []).map((x, k) => (k === i ? { ...x, dropped: !x.dropped } : x)),
    }));
  const setChoice = (name: string, word: string) => setChoices((c) => ({ ...c, [name]: word }));
  // What was answered to other text is shown dimmed, and its fault not at all.
  const fresh = complete && still === key && !asked.isFetching && !asked.isPlaceholderData;
  const error = fresh && asked.error instanceof ApiProblem ? asked.error : undefined;
  // What nobody can work out now is kept all the same, and looked at when it is sent.
  const away = error !== undefined && error.canGoAgain;
  const fault = away ? undefined : error;
  const preview = { data: complete && !away ? asked.data : undefined, fault, fresh, away };
  const next = missing.find((n) => n !== active) ?? missing[0];
  return {
    ticket,
    visit,
    target,
    method,
    place,
    unit,
    names,
    info,
    lists,
    now,
    active,
    setActive,
    set,
    again,
    drop,
    choices,
    setChoice,
    half,
    setHalf,
    jack,
    setJack,
    jackedHeight,
    setJackedHeight,
    preview,
    missing,
    next,
    complete,
    ready: complete,
    keep,
    typing,
  };
}

export type PadState = ReturnType<typeof usePad>;
