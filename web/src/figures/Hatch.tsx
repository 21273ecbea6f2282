// The hatch of a window: where something should be, wherever it is drawn.

/** A pattern to fill with, by its id; within a drawing's defs. */
export function Hatch({ id, colour = 'var(--aim)' }: { id: string; colour?: string }) {
  return (
    <pattern id={id} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0V7" stroke={colour} strokeWidth="1.4" opacity="0.55" />
    </pattern>
  );
}
