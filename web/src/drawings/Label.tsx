/** Words on a drawing, on a gap in whatever lies below them. */
import { ink } from './ink';

interface Props {
  x: number;
  y: number;
  anchor?: 'start' | 'middle' | 'end';
  size?: number;
  children: string;
}

export function Label({ x, y, anchor = 'middle', size = 14, children }: Props) {
  return (
    <text
      x={x}
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
