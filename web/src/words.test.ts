// The glossary holds: what it says is never said stands in no sentence of the program, neither in the core's nor on a screen.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';

const root = join(import.meta.dirname, '..', '..');
const never = readFileSync(join(root, 'docs/GLOSSARY.md'), 'utf8')
  .split('\n')
  .filter((l) => l.startsWith('| ') && !l.startsWith('| Word'))
  .flatMap((l) =>
    l
      .split('|')[3]!
      .split(',')
      .map((w) => w.trim()),
  )
  .filter((w) => w);

/** Sentences of a Fluent file: what stands behind a name. */
const fluent = readFileSync(join(root, 'words/lang/en.ftl'), 'utf8')
  .split('\n')
  .filter((l) => !l.startsWith('#'))
  .map((l) => l.replace(/^[a-z0-9-]+ =/, '').replaceAll(/\{[^}]*\}/g, ' '));

const files = readdirSync(join(root, 'web/src'), { recursive: true, encoding: 'utf8' })
  .filter((f) => f.endsWith('.tsx') && !f.endsWith('.test.tsx'))
  .map((f) => join(root, 'web/src', f));

/** What a screen says: text between tags, and what is read out or stands in a field. */
function said(source: string): string[] {
  const plain = source.replaceAll(/^\s*(\/\/|\*|\/\*).*$/gm, '');
  const between = [...plain.matchAll(/>([^<>{}=;]*[A-Za-z]{2}[^<>{}=;]*)</g)].map((m) => m[1]!);
  const named = [...plain.matchAll(/(?:aria-label|label|title|placeholder|words|helperText)="([^"]+)"/g)];
  const spoken = [...plain.matchAll(/[?:]\s*'([A-Z][^'\n]{3,})'/g)];
  return [...between, ...[...named, ...spoken].map((m) => m[1]!)];
}

it('knows what is never said', () => {
  expect(never.length).toBeGreaterThan(30);
  expect(never).toContain('archive');
  expect(said('<p aria-label="Archive it">Archive this</p>')).toEqual(['Archive this', 'Archive it']);
});

it.each(never)('never says "%s"', (word) => {
  const at = new RegExp(`\\b${word.replaceAll('-', '\\-')}\\b`, 'i');
  const found = [
    ...fluent.filter((l) => at.test(l)).map((l) => `en.ftl: ${l.trim()}`),
    ...files.flatMap((f) =>
      said(readFileSync(f, 'utf8'))
        .filter((s) => at.test(s))
        .map((s) => `${f.slice(root.length + 1)}: ${s.trim()}`),
    ),
  ];
  expect(found).toEqual([]);
});
