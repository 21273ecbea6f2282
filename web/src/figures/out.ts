// Drawings of the page as files: SVG with every colour and letter written out, and PNG twice as fine as the screen.

const KEPT = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-opacity',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'paint-order',
  'visibility',
] as const;

/** Smaller than this it is a sign, not a drawing, px. */
const LEAST = 140;

export interface Shown {
  name: string;
  svg: SVGSVGElement;
}

/** Drawings that are on the page, by what they are called for a screen reader. */
export function drawingsOn(page: ParentNode): Shown[] {
  const all = [...page.querySelectorAll<SVGSVGElement>('svg[aria-label]')];
  return all
    .filter((svg) => svg.getBoundingClientRect().width >= LEAST)
    .map((svg) => ({ svg, name: svg.getAttribute('aria-label')! }));
}

/** The ground it stands on: of the nearest that has one. */
function groundOf(el: Element | null): string {
  for (let e = el; e; e = e.parentElement) {
    const c = getComputedStyle(e).backgroundColor;
    if (c && c !== 'transparent' && !/,\s*0\)$/.test(c)) return c;
  }
  return '#fff';
}

/** The drawing as a document of its own. */
export function svgText(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const [from, to] = [svg, copy].map((s) => [s, ...s.querySelectorAll('*')]) as [Element[], Element[]];
  from.forEach((e, i) => {
    const style = getComputedStyle(e);
    const kept = KEPT.map((p) => [p, style.getPropertyValue(p)] as const).filter(([, v]) => v);
    to[i]!.setAttribute('style', kept.map(([p, v]) => `${p}:${v}`).join(';'));
    to[i]!.removeAttribute('class');
  });
  const box = svg.viewBox?.baseVal;
  const size = svg.getBoundingClientRect();
  const [w, h] = box?.width ? [box.width, box.height] : [size.width, size.height];
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(w));
  copy.setAttribute('height', String(h));
  const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  Object.entries({ x: box?.x ?? 0, y: box?.y ?? 0, width: w, height: h, fill: groundOf(svg) }).forEach(
    ([k, v]) => ground.setAttribute(k, String(v)),
  );
  copy.prepend(ground);
  return new XMLSerializer().serializeToString(copy);
}

/** A name a file can have. */
export const fileName = (name: string, ending: string) =>
  `${name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60)}.${ending}`;

function save(blob: Blob, name: string) {
  const a = document.createElement('a');
  a.href = URL.createObjectURL(blob);
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(a.href), 10_000);
}

export function saveSvg({ svg, name }: Shown): void {
  save(new Blob([svgText(svg)], { type: 'image/svg+xml' }), fileName(name, 'svg'));
}

export async function savePng({ svg, name }: Shown): Promise<void> {
  const url = URL.createObjectURL(new Blob([svgText(svg)], { type: 'image/svg+xml' }));
  try {
    const img = new Image();
    img.src = url;
    await img.decode();
    const size = svg.getBoundingClientRect();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [Math.round(2 * size.width), Math.round(2 * size.height)];
    canvas.getContext('2d')?.drawImage(img, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((r) => canvas.toBlob(r, 'image/png'));
    if (!blob) throw new Error('This browser makes no picture of it: take the SVG.');
    save(blob, fileName(name, 'png'));
  } finally {
    URL.revokeObjectURL(url);
  }
}
