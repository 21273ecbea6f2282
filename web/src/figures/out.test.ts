// @vitest-environment happy-dom
// Drawings as files: only drawings, by their names, as documents that need nothing of the page.
import { afterEach, expect, it, vi } from 'vitest';
import { drawingsOn, fileName, saveSvg, svgText } from './out';

const page = (html: string) => {
  document.body.innerHTML = html;
  for (const svg of document.querySelectorAll('svg')) {
    const width = Number(svg.getAttribute('data-width'));
    svg.getBoundingClientRect = () => ({ width, height: width / 2 }) as DOMRect;
  }
  return document.body;
};
afterEach(() => {
  document.body.innerHTML = '';
  vi.restoreAllMocks();
});

it('are those that have a name and are no sign', () => {
  const list = drawingsOn(
    page(`<svg aria-label="Where it reaches" data-width="600"></svg>
      <svg data-width="600"></svg><svg aria-label="done" data-width="20"></svg>`),
  );
  expect(list.map((d) => d.name)).toEqual(['Where it reaches']);
});

it('carry their ground, size and every style with them', () => {
  const body = page(`<div style="background-color: rgb(40, 30, 60)">
    <svg aria-label="Map" viewBox="0 0 300 200" data-width="600"><path class="line" style="stroke: red" d="M0 0H9"/></svg></div>`);
  const text = svgText(body.querySelector('svg')!);
  const doc = new DOMParser().parseFromString(text, 'image/svg+xml').documentElement;
  expect(doc.getAttribute('width')).toBe('300');
  expect(doc.getAttribute('height')).toBe('200');
  expect(doc.firstElementChild?.getAttribute('fill')).toContain('40, 30, 60');
  const path = doc.querySelector('path')!;
  expect(path.getAttribute('style')).toContain('stroke:red');
  expect(path.getAttribute('class')).toBeNull();
  expect(text).toContain('http://www.w3.org/2000/svg');
});

it('have a file name that any disk takes', () => {
  expect(fileName('Left front: said camber −0.9°, "came"', 'svg')).toBe(
    'left-front-said-camber-0-9-came.svg',
  );
});

it('are kept under that name', () => {
  const body = page('<svg aria-label="Reach map" data-width="400"></svg>');
  URL.createObjectURL = vi.fn(() => 'blob:x');
  const clicked = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (
    this: HTMLAnchorElement,
  ) {
    expect(this.download).toBe('reach-map.svg');
  });
  saveSvg(drawingsOn(body)[0]!);
  expect(clicked).toHaveBeenCalledTimes(1);
});
