/** A line's own dashes, for its place in a chart's legend. */
export const legendLine = (dash: string) =>
  function Mark({ color }: { color?: string }) {
    return (
      <svg width={28} height={10} aria-hidden focusable="false">
        <path d="M0 5H28" stroke={color ?? 'currentColor'} strokeWidth={2} strokeDasharray={dash} />
      </svg>
    );
  };
