// Both axles to scale from the front, the left and above, moving through height and steering.
import { HowTo } from '../../ui/HowTo';
import { Slider } from '@mui/material';
import { useState, type ReactNode } from 'react';
import { CarView, type CornerDrawing } from '../../figures/CarView';
import { Glyph } from '../../ui/glyphs';
import { useSettings } from '../../ui/settings';
import { angle, lengthChange } from '../../units/print';
import { level, sectionOf, useDrawing, type Car } from './car';

interface Props {
  car: Car | undefined;
  tyre: string;
  rearTrack: number;
  axle: 'front' | 'rear';
  hot?: { at: number[]; name: string } | undefined;
  /** Places on the left of the axle that are numbered; given, only this axle is drawn, large. */
  spots?: { at: number[]; label: string; on: boolean; name: string }[] | undefined;
  blocked: boolean;
  /** Something that was typed cannot be read: what is drawn is the last that could. */
  unread: boolean;
  children: ReactNode;
}

/** Height of half an axle from above, px. */
const HALF_PX = 240;

export function MovePane({
  car,
  tyre,
  rearTrack,
  axle,
  hot: point,
  spots,
  blocked,
  unread,
  children,
}: Props) {
  const { unit, form } = useSettings();
  const [height, setHeight] = useState(0);
  const [turn, setTurn] = useState(0);
  const still = height === 0 && turn === 0;
  const now = useDrawing(car, level(height, height), turn);
  const design = useDrawing(still ? undefined : car, level(0, 0), 0);
  const d = now.data;
  const width = 440;
  const w = sectionOf(tyre) ?? 265;
  const on = (list: CornerDrawing[] | undefined) => list?.filter((c) => c.axle === axle) ?? [];
  const wide =
    Math.max(700, ...(d?.corners.map((c) => Math.abs(c.drawing?.centre[1] ?? 0)) ?? [])) + w / 2 + 60;
  const wheel = on(d?.corners).find((c) => c.side === 'left');
  const r = wheel?.drawing?.loaded_radius_mm ?? 390;
  const base = d?.wheelbase_mm ?? 3000;
  // Front and rear overhang of the picture: a wheel and a hand's breadth.
  // Side and top share one scale, so that they stand under each other.
  const scale = Math.min(width / (base + 2 * r + 200), 168 / (2 * wide));
  const spare = (width / scale - base) / 2;
  const long: [number, number] = [-spare, base + spare];
  const ghost = still ? undefined : design.data?.corners;
  // The front view is as large as the width and about 120 px of height allow.
  const half = Math.max(wide, (width * 2 * r) / (2 * 122));
  const frontHeight = Math.round(((2 * r + 60) * width) / (2 * half)) + 34;
  // A rear axle nobody has looked at: its wheels stand where the facts say, dashed.
  const unknown: CornerDrawing[] =
    !d || d.corners.some((c) => c.axle === 'rear')
      ? []
      : (['left', 'right'] as const).map((side) => {
          const y = (side === 'left' ? 1 : -1) * (rearTrack / 2);
          return {
            axle: 'rear',
            side,
            wheel: null,
            gain_range_mm: [0, 0],
            drawing: {
              bars: [],
              centre: [-base, y, r],
              spin: [0, side === 'left' ? 1 : -1, 0],
              contact: [-base, y, 0],
              loaded_radius_mm: r,
            },
          };
        });
  const behind = ghost || unknown.length ? [...(ghost ?? []), ...unknown] : undefined;
  const on1 = spots?.find((s) => s.on);
  const hot = on1 ? { at: on1.at, name: on1.label } : point;
  // The axle alone, from above, as large as the pane is wide.
  const mid = wheel?.drawing?.centre[0] ?? 0;
  const reach = (width * wide) / (2 * HALF_PX);
  const near: [number, number] = [-mid - reach, -mid + reach];
  // A live axle is looked at whole: each of its arms is another thing to turn.
  const beam = on(d?.corners).some((c) => c.drawing?.bars.some((b) => b.kind === 'beam'));
  const seen: [number, number] = beam ? [-mid - 2 * reach, -mid + 2 * reach] : near;
  const stops = d?.corners.filter((c) => c.stops) ?? [];
  const range = wheel?.gain_range_mm as [number, number] | undefined;
  return (
    <section className="pane slate move-pane" data-pane="Drawings" aria-label="Drawings to scale">
      <div style={{ display: 'flex', justifyContent: 'space-between', padding: '12px 14px 0' }}>
        <h3>{axle === 'front' ? 'Front axle' : 'Rear axle'}, to scale</h3>
        <HowTo of="moving" />
        <span className="word small" data-testid="loops">
          <Glyph name={blocked ? 'clash' : 'done'} size={16} />{' '}
          {blocked ? (unread ? 'not drawn anew' : 'does not close') : 'loops close'}
        </span>
      </div>
      {d ? (
        <div style={{ opacity: blocked ? 0.35 : 1 }} data-testid="joint-drawing">
          <CarView
            corners={on(d.corners)}
            ghost={ghost && on(ghost)}
            look="front"
            tyreWidth={w}
            width={width}
            height={frontHeight}
            span={[-half, half]}
            hot={still ? hot : undefined}
            label={`${axle} axle from the front`}
          />
          {spots && (
            <CarView
              corners={on(d.corners).filter((c) => beam || c.side === 'left')}
              look="top"
              tyreWidth={w}
              width={width}
              height={HALF_PX + 56}
              middle={beam ? (HALF_PX + 56) / 2 : 36}
              span={seen}
              spots={spots}
              label={`${axle} axle${beam ? '' : ', left half'} from above, adjusters numbered`}
            />
          )}
          {!spots && (
            <>
              <CarView
                corners={d.corners.filter((c) => c.side === 'left')}
                ghost={behind?.filter((c) => c.side === 'left')}
                look="side"
                tyreWidth={w}
                width={width}
                height={Math.round(2 * r * scale) + 40}
                floor={32}
                span={long}
                hot={still ? hot : undefined}
                label="both axles from the left"
              />
              <CarView
                corners={d.corners}
                ghost={behind}
                look="top"
                tyreWidth={w}
                width={width}
                height={Math.round(2 * wide * scale) + 30}
                span={long}
                hot={still ? hot : undefined}
                label="both axles from above"
              />
            </>
          )}
        </div>
      ) : (
        <p style={{ padding: 20 }}>{now.fault ? 'The points do not close yet.' : 'Drawing…'}</p>
      )}
      {!spots && (
        <div className="move-sliders">
          <label>
            <span>
              Body height <b className="fig">{lengthChange(height, unit)}</b>
            </span>
            <Slider
              size="small"
              min={-120}
              max={140}
              value={height}
              onChange={(_, v) => setHeight(v as number)}
              aria-label="Body height over design"
              getAriaValueText={(v) => `${v} millimetres`}
              data-testid="move-height"
            />
          </label>
          <label>
            <span>
              Steering{' '}
              <b className="fig">
                {turn === 0 ? 'straight' : `${Math.abs(turn)}° ${turn > 0 ? 'left' : 'right'}`}
              </b>
            </span>
            <Slider
              size="small"
              min={-35}
              max={35}
              value={-turn}
              onChange={(_, v) => setTurn(-(v as number) || 0)}
              aria-label="Turn of the inner front wheel"
              getAriaValueText={(v) => `${Math.abs(v)} degrees ${v > 0 ? 'right' : 'left'}`}
              data-testid="move-turn"
            />
          </label>
        </div>
      )}
      {wheel?.wheel && !blocked && !spots && (
        <p className="move-figures fig" data-testid="move-figures">
          <span>
            camber <b>{angle(wheel.wheel.camber_deg, form, 2)}</b>
          </span>
          <span>
            toe <b>{angle(wheel.wheel.toe_deg, form, 2)}</b>
          </span>
          {wheel.wheel.steer && (
            <span>
              caster <b>{angle(wheel.wheel.steer.caster_deg, form)}</b>
            </span>
          )}
          <span className="small" style={{ fontFamily: 'var(--read)', fontWeight: 400, lineHeight: 1.25 }}>
            left wheel
            {range &&
              `; links reach ${lengthChange(Math.max(range[0], -250), unit)} to ${lengthChange(Math.min(range[1], 250), unit)}${range[1] >= 249 ? ' and more' : ''}`}
          </span>
        </p>
      )}
      {stops.length > 0 && (
        <span className="plate" style={{ margin: '0 14px', fontSize: 14 }} data-testid="move-stop">
          <Glyph name="short" size={16} />
          {stops[0]!.side} {stops[0]!.axle}: {stops[0]!.stops}
        </span>
      )}
      <div className="move-action">{children}</div>
    </section>
  );
}
