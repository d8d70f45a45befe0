/** Words on a drawing, on a gap in whatever lies below them. */
import { ink } from './ink';

interface Props {
  x: number;
  y: number;
  anchor?: 'start' | 'middle' | 'end';
  size?: number;
  within?: number; // the width of the drawing, which a label in its middle does not leave
  children: string;
}

/** About how wide a text is drawn. */
export const widthOf = (text: string, size: number) => text.length * size * 0.62;

/** The nearest place to x from which a text in its middle stays on the drawing. */
export function inside(x: number, text: string, size: number, within: number): number {
  const half = widthOf(text, size) / 2 + 3;
  return Math.max(half, Math.min(within - half, x));
}

export function Label({ x, y, anchor = 'middle', size = 14, within, children }: Props) {
  return (
    <text
      x={within === undefined ? x : inside(x, children, size, within)}
      y={y}
      textAnchor={anchor}
      dominantBaseline="central"
      fontSize={size}
      fontWeight={500}
      fill={ink.ink}
      stroke={ink.sheet}
      strokeWidth={4}
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}
