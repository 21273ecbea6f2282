import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import data from '../../../../data/methods.json';
import type { Schemas } from '../../api/client';
import { MeasureDrawing } from '.';

const draw = (
  drawing: string,
  active: string,
  side: 'left' | 'right',
  typed: Record<string, string>,
  value?: number,
) => renderToStaticMarkup(<MeasureDrawing label="what" shown={{ side, active, typed, value, drawing }} />);

const methods = data as unknown as Schemas['MethodInfo'][];

describe('what to measure', () => {
  const offered = methods.filter((m) => !m.bench_only);
  it.each(offered.map((m) => [m.id, m] as const))(
    '%s shows the entry that is typed, on both sides',
    (_, m) => {
      const numeric = m.entries.filter((e) => e.kind !== 'choice' && !e.hidden && !e.optional);
      expect(numeric.length).toBeGreaterThan(0);
      for (const e of numeric) {
        for (const side of ['left', 'right'] as const) {
          const html = draw(m.drawing, e.name, side, { [e.name]: '7.77' }, -0.5);
          expect(html).not.toContain('NaN');
          // Yellow is the one thing to type.
          expect(html, `${m.id} ${e.name} is not marked`).toContain('var(--do)');
          if (!e.swing) expect(html, `${m.id} ${e.name} is not shown`).toContain('7.77');
        }
      }
    },
  );
  it('leans the way the sign says, mirrored on the other side', () => {
    const lean = (side: 'left' | 'right', v: number) =>
      Number(/rotate\((-?[\d.]+) /.exec(draw('gauge_hub', 'angle', side, {}, v))?.[1]);
    expect(lean('left', -1)).toBeLessThan(0);
    expect(lean('left', 1)).toBeGreaterThan(0);
    expect(lean('right', -1)).toBeCloseTo(-lean('left', -1));
  });
  it('says from where it is seen', () => {
    for (const m of offered) expect(draw(m.drawing, '', 'left', {})).toMatch(/from |through |outside/);
  });
});
