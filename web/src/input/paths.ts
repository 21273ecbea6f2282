// A field of a document by its path: `axles.front.track_mm`, `limits.shaft_inner.1`. Patches make a new document; what no path
// names stays the same.

type Node = Record<string, unknown> | unknown[];
const isNode = (x: unknown): x is Node => typeof x === 'object' && x !== null;
const keyOf = (n: Node, k: string) => (Array.isArray(n) ? Number(k) : k) as keyof Node;

/** What stands at a path; undefined where there is nothing. */
export function at(doc: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((n, k) => (isNode(n) ? n[keyOf(n, k)] : undefined), doc);
}

/** The document with `value` at a path that is there up to its last step. */
export function patch<T>(doc: T, path: string, value: unknown): T {
  const [head, ...rest] = path.split('.');
  if (!head || !isNode(doc)) return doc;
  const next = rest.length ? patch(doc[keyOf(doc, head)] as unknown, rest.join('.'), value) : value;
  if (Array.isArray(doc)) return doc.map((v: unknown, i) => (i === Number(head) ? next : v)) as T;
  return { ...doc, [head]: next };
}
