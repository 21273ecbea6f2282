// The floors of the browser's code: what may use what, and no circle between files.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize, relative } from 'node:path';
import { expect, it } from 'vitest';

const root = __dirname;
const files = (readdirSync(root, { recursive: true }) as string[]).filter(
  (f) => /\.tsx?$/.test(f) && !f.endsWith('.d.ts'),
);
/** Files that a file imports, by their path under `src`. */
function uses(file: string): string[] {
  const text = readFileSync(join(root, file), 'utf8');
  return [...text.matchAll(/(?:from|import\()\s*'(\.[^']+)'/g)].flatMap((m) => {
    const to = relative(root, normalize(join(root, dirname(file), m[1]!)));
    return [to, `${to}.ts`, `${to}.tsx`].filter((f) => files.includes(f));
  });
}
const graph = new Map(files.map((f) => [f, uses(f)]));
const room = (f: string) => (f.startsWith('stages/') ? f.split('/').slice(0, 2).join('/') : f.split('/')[0]!);

// Lowest first: a room uses its own files and those of rooms before it.
const order = [
  'units',
  'api',
  'gauge',
  'theme',
  'ui',
  'input',
  'figures',
  'door',
  'shell',
  'pad',
  'sheet',
  'stages',
];

it('has nothing that uses what stands above it, and no stage that uses another', () => {
  const wrong: string[] = [];
  for (const [f, list] of graph) {
    if (f.includes('.test.') || !f.includes('/') || f === 'shell/App.tsx') continue;
    const own = room(f);
    for (const to of list) {
      const other = room(to);
      if (own === other || !to.includes('/')) continue;
      if (own.startsWith('stages/') && other.startsWith('stages/')) wrong.push(`${f} uses ${to}`);
      else if (order.indexOf(other.split('/')[0]!) > order.indexOf(own.split('/')[0]!))
        wrong.push(`${f} uses ${to}`);
    }
  }
  expect(wrong).toEqual([]);
});

it('has no circle', () => {
  const done = new Set<string>();
  const on: string[] = [];
  const circles: string[] = [];
  const walk = (f: string) => {
    if (on.includes(f)) circles.push([...on.slice(on.indexOf(f)), f].join(' → '));
    if (done.has(f) || on.includes(f)) return;
    on.push(f);
    for (const to of graph.get(f) ?? []) walk(to);
    on.pop();
    done.add(f);
  };
  for (const f of files) walk(f);
  expect(circles).toEqual([]);
});

it('asks the server in one room only', () => {
  const asks = files.filter((f) => {
    if (f.startsWith('api/') || f.includes('.test.')) return false;
    return /\bfetch\(|new EventSource|\bapi\.(GET|POST|PUT|DELETE)\(/.test(
      readFileSync(join(root, f), 'utf8'),
    );
  });
  expect(asks).toEqual([]);
});
