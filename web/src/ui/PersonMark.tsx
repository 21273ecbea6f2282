// A person's mark: a disc that is cut, told apart by the angle of the cut and by whether its halves have slipped. Ink or chalk
// alone: colour says nothing.
interface Props {
  /** Which way: eight angles of the cut, then the same with halves that slipped. */
  mark: number;
  size?: number;
  /** Its name, where nothing beside it says it. */
  label?: string;
}

/** The sixteen marks. */
export const MARKS = 16;

export function PersonMark({ mark, size = 44, label }: Props) {
  const angle = (mark % 8) * 22.5;
  const slip = mark >= 8 ? 5 : 0;
  return (
    <svg
      width={size}
      height={size}
      viewBox="-26 -26 52 52"
      role={label ? 'img' : undefined}
      aria-label={label}
      aria-hidden={label ? undefined : true}
      style={{ flex: 'none' }}
    >
      <g transform={`rotate(${-angle})`}>
        <path
          d="M-20 0A20 20 0 0 1 20 0Z"
          transform={`translate(${-slip} -1)`}
          fill="none"
          stroke="currentColor"
          strokeWidth="3"
        />
        <path
          d="M-20 0A20 20 0 0 0 20 0Z"
          transform={`translate(${slip} 1)`}
          fill="currentColor"
          stroke="currentColor"
          strokeWidth="3"
        />
      </g>
    </svg>
  );
}
