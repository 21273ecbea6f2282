// A curve of the corner file in both units: its figures, its ticks and where the car stands are the same place.
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { unitsOf } from '../units/measure';
import { along, Curve } from './Curve';

const points = Array.from({ length: 41 }, (_, i): [number, number] => [i * 4 - 80, 60 + 0.9 * (i * 4 - 80)]);
const draw = (unit: 'mm' | '°', length: 'mm' | 'in', form: 'decimal' | 'minutes' = 'decimal') =>
  renderToStaticMarkup(
    <Curve
      title="Roll centre"
      unit={unit}
      units={unitsOf(length, form)}
      digits={unit === 'mm' ? 0 : 1}
      lines={[
        { points: unit === 'mm' ? points : points.map(([x, y]) => [x, y / 60]), color: 'red', name: 'left' },
      ]}
      set={[{ points: points.map(([x, y]) => [x, unit === 'mm' ? y + 5 : (y + 5) / 60]), color: 'red' }]}
      xLabel="height"
      overHeight
      came={0}
      planned={50.8}
      usual={unit === 'mm' ? [20, 90] : undefined}
    />,
  );
const labels = (html: string) => [...html.matchAll(/<text[^>]*>([^<]+)</g)].map((m) => m[1]!);

describe('a curve', () => {
  it('says as it came and planned in millimetres', () => {
    const html = draw('mm', 'mm');
    expect(html).toContain('aria-label="Roll centre: as it came 60 mm, planned 111 mm"');
    expect(labels(html)).toContain('+40');
    expect(html).not.toContain('NaN');
  });
  it('says the same in inches, ticks too, with nothing of the other left', () => {
    const html = draw('mm', 'in');
    expect(html).toContain('aria-label="Roll centre: as it came 2.36 in, planned 4.36 in"');
    expect(labels(html)).toContain('+2');
    expect(labels(html).join()).not.toContain('mm');
  });
  it('draws both alike: a unit moves nothing', () => {
    const shape = (h: string) =>
      [...h.matchAll(/ d="(M[^"]+)"/g)].map((m) => m[1]!).filter((d) => d.length > 300);
    expect(shape(draw('mm', 'in'))).toEqual(shape(draw('mm', 'mm')));
  });
  it('tells angles in the form that was asked', () => {
    expect(draw('°', 'mm')).toContain('as it came 1.0°, planned 1.8°');
    const html = draw('°', 'mm', 'minutes');
    expect(html).toContain('as it came 1°00′, planned 1°51′');
    expect(labels(html).some((t) => t.endsWith('′') || t.endsWith('°'))).toBe(true);
  });
  it('is nothing with less than two points, and is met between points only', () => {
    const none = renderToStaticMarkup(
      <Curve
        title="x"
        unit="°"
        units={unitsOf('mm', 'decimal')}
        digits={1}
        xLabel=""
        lines={[{ points: [[0, 1]], color: 'red' }]}
      />,
    );
    expect(none).toBe('');
    expect(along(points, 2)).toBeCloseTo(61.8, 9);
    expect(along(points, 500)).toBeUndefined();
    expect(along(points, -200)).toBeUndefined();
  });
});
