// The jig: one corner to play with, apart from any car. The same camber made in two places is two cars.
import { useState } from 'react';
import { askJig } from '../../api/calls';
import { useLive } from '../../api/live';
import { Patch } from '../../figures/Patch';
import { FieldError } from '../../shell/Fault';
import { ShopFrame } from '../../shell/ShopFrame';
import { useTitle } from '../../shell/title';
import { Segment } from '../../ui/Segment';
import { useSettings } from '../../ui/settings';
import { angle, length, signed } from '../../units/print';
import { handles, first, outside, placeWord, type Asked, type Setting } from './jig';
import { JigCurves, keyOf } from './JigCurves';
import { JigView } from './JigView';
import { Slide } from './Slide';

const names = ['A', 'B'] as const;

export default function Jig() {
  useTitle('The jig');
  const { form, unit } = useSettings();
  const [asked, setAsked] = useState<Asked>(first);
  const [one, setOne] = useState<'A' | 'B'>('A');
  const live = useLive('jig', asked, askJig);
  const seen = live.data?.length === asked.settings.length ? live.data : undefined;
  const k = one === 'B' && asked.settings.length > 1 ? 1 : 0;
  const s = asked.settings[k]!;
  const set = (change: Partial<Setting>) =>
    setAsked({ ...asked, settings: asked.settings.map((x, i) => (i === k ? { ...x, ...change } : x)) });
  const says = (name: string, v: number, digits: number) =>
    name.endsWith('_mm') ? length(v, unit) : angle(v, form, digits as 0 | 1 | 2);
  const items = (seen ?? []).map((x, n) => ({
    key: names[n]!,
    name: `camber at the ${placeWord(asked.settings[n]!.camber_at, asked.shape)}`,
    stands: x,
    drawing: x.drawing,
  }));
  const ends = items.map((i) => ({ key: i.key, end: outside(i.stands) }));
  const patches = (seen ?? []).flatMap((x) => x.print.strips);
  const longest = Math.max(...patches.map((p) => p.length_mm), 1);
  const hardest = Math.max(...patches.map((p) => p.pressure_kpa), 1);
  return (
    <ShopFrame title="The jig" here={{ to: '/jig', name: 'Jig' }}>
      <main className="jig-main">
        <section aria-label="What is set" className="jig-set">
          <Segment
            label="Shape"
            value={asked.shape}
            choose={(shape) => setAsked({ ...asked, shape })}
            choices={[
              { value: 'wishbones', label: 'Wishbones', testid: 'jig-wishbones' },
              { value: 'strut', label: 'Strut', testid: 'jig-strut' },
            ]}
            wide
          />
          <Segment
            label="Which setting"
            value={one}
            choose={(v) => {
              setOne(v);
              if (v === 'B' && asked.settings.length < 2)
                setAsked({ ...asked, settings: [...asked.settings, { ...asked.settings[0]! }] });
            }}
            choices={names.map((n, i) => ({
              value: n,
              name: `Setting ${n}`,
              testid: `jig-${n}`,
              label: (
                <>
                  <svg width="34" height="10" aria-hidden="true">
                    <path
                      d="M2 5H32"
                      stroke="currentColor"
                      strokeWidth="2.6"
                      strokeDasharray={keyOf(i).dash}
                    />
                  </svg>
                  &nbsp;{n}
                </>
              ),
            }))}
            wide
          />
          <h3>Camber is made at</h3>
          <Segment
            label={`Where the camber of ${names[k]} is made`}
            value={s.camber_at}
            choose={(camber_at) => set({ camber_at })}
            choices={(['top', 'lower_arm', 'knuckle'] as const).map((v) => ({
              value: v,
              label: placeWord(v, asked.shape),
              testid: `jig-at-${v}`,
            }))}
            wide
          />
          {handles.map((h) => (
            <Slide
              key={h.name}
              label={h.label}
              value={s[h.name]}
              says={says(h.name, s[h.name], h.digits)}
              low={h.low}
              high={h.high}
              step={h.step}
              set={(v) => set({ [h.name]: v })}
              testid={`jig-${h.name}`}
            />
          ))}
          <h3>How it is held</h3>
          <Slide
            label="Steered"
            value={asked.steer_deg}
            says={
              asked.steer_deg === 0
                ? 'straight'
                : `${angle(Math.abs(asked.steer_deg), form, 0)} to the ${asked.steer_deg > 0 ? 'left' : 'right'}`
            }
            low={-30}
            high={30}
            step={1}
            set={(steer_deg) => setAsked({ ...asked, steer_deg })}
            testid="jig-steer"
          />
          <Slide
            label="Wheel up"
            value={asked.travel_mm}
            says={length(asked.travel_mm, unit)}
            low={-70}
            high={70}
            step={2}
            set={(travel_mm) => setAsked({ ...asked, travel_mm })}
            testid="jig-travel"
          />
          <Slide
            label="Body leans right"
            value={asked.roll_deg}
            says={angle(asked.roll_deg, form, 1)}
            low={-4}
            high={4}
            step={0.25}
            set={(roll_deg) => setAsked({ ...asked, roll_deg })}
            testid="jig-roll"
          />
          {live.fault && (
            <div data-testid="jig-fault">
              {live.fault.problems.slice(0, 2).map((p) => (
                <FieldError key={p.field} wrong={p.wrong} right={p.right} />
              ))}
            </div>
          )}
        </section>
        <section aria-label="The corner" className="jig-corner slate">
          <h1 data-testid="jig-says">
            {ends.every((e) => e.end)
              ? `Outside wheel at lock: ${ends.map((e) => `${e.key} ${angle(e.end!.camber, form, 1)}`).join(', ')}`
              : 'Working…'}
          </h1>
          <p className="small">
            {items
              .map(
                (i) =>
                  `${i.key} ${angle(i.stands.straight.camber_deg, form, 1)} at the ${placeWord(asked.settings[items.indexOf(i)]!.camber_at, asked.shape)}`,
              )
              .join(' · ')}{' '}
            straight ahead
          </p>
          <JigView items={items} stale={live.stale} />
          <p className="small">
            Drag it round, or arrows. Yellow: the steering axis, and where it meets the ground.
          </p>
          <div className="jig-figures">
            {items.map((i) => (
              <dl key={i.key}>
                <dt>{i.key}</dt>
                {(
                  [
                    ['axis leans', angle(i.stands.straight.sai_deg, form, 1)],
                    ['scrub', length(i.stands.straight.scrub_radius_mm, unit)],
                    ['trail', length(i.stands.straight.mechanical_trail_mm, unit)],
                    ['camber now', angle(i.stands.now[0]!, form, 1)],
                  ] as const
                ).map(([word, v]) => (
                  <dd key={word}>
                    <span className="small">{word}</span> <b className="fig">{v}</b>
                  </dd>
                ))}
              </dl>
            ))}
          </div>
        </section>
        <section aria-label="Over the turn of the steering" className="jig-curves">
          <div>
            <h2>
              Camber as it steers <span className="small mut">both wheels, top out +</span>
            </h2>
            <JigCurves items={items} steer={asked.steer_deg} form={form} of="camber" />
          </div>
          <div>
            <h2>
              Body lifted <span className="small mut">mm, arms as the load has them</span>
            </h2>
            <JigCurves items={items} steer={asked.steer_deg} form={form} of="lift" />
          </div>
          <div>
            <h2>On the ground now, left wheel</h2>
            <div className="jig-prints slate">
              {items.map((i) => (
                <figure key={i.key}>
                  <Patch
                    patch={i.stands.print}
                    innerOn="right"
                    longest={longest}
                    hardest={hardest}
                    label={`${i.key}, ${signed(i.stands.now[0]!, 1)} degrees`}
                  />
                  <figcaption>{i.key} · inner edge right</figcaption>
                </figure>
              ))}
            </div>
          </div>
        </section>
      </main>
    </ShopFrame>
  );
}
