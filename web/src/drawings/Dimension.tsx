/** A hairline dimension with its figure on a gap in the line, as on a drawing board. */
import { ink } from './ink';
import { inside } from './Label';

interface Props {
  x: number;
  from: number; // y
  to: number; // y
  text: string;
  reach?: number; // how far witness lines run back toward the thing, left is negative
  strong?: boolean;
  within: number; // the width of the drawing, which the figure does not leave
}

export function VerticalDimension({ x, from, to, text, reach = 0, strong = false, within }: Props) {
  const [top, bottom] = from < to ? [from, to] : [to, from];
  const tall = bottom - top;
  const room = 22;
  const outside = tall < room + 26; // no place for the figure between the arrows
  const mid = (top + bottom) / 2;
  const colour = strong ? ink.accent : ink.hair;
  return (
    <g stroke={colour} strokeWidth={strong ? 1.5 : 1} fill="none">
      <path
        d={`M${x + reach} ${to}H${x + 5 * Math.sign(-reach || 1)}M${x - 5} ${from}H${x + 5}`}
        strokeOpacity={0.8}
      />
      {outside ? (
        <path d={`M${x} ${top - 14}V${top}M${x} ${bottom}V${bottom + 14}`} />
      ) : (
        <path d={`M${x} ${top}V${mid - room / 2}M${x} ${mid + room / 2}V${bottom}`} />
      )}
      <path
        d={
          outside
            ? `M${x - 3} ${top - 7}L${x} ${top}L${x + 3} ${top - 7}M${x - 3} ${bottom + 7}L${x} ${bottom}L${x + 3} ${bottom + 7}`
            : `M${x - 3} ${top + 7}L${x} ${top}L${x + 3} ${top + 7}M${x - 3} ${bottom - 7}L${x} ${bottom}L${x + 3} ${bottom - 7}`
        }
      />
      <text
        x={inside(x, text, strong ? 19 : 15, within)}
        y={outside ? top - 19 : mid}
        dominantBaseline={outside ? 'auto' : 'central'}
        textAnchor="middle"
        stroke={ink.sheet}
        strokeWidth={5}
        paintOrder="stroke"
        fill={strong ? ink.accent : ink.ink}
        fontSize={strong ? 19 : 15}
        fontWeight={strong ? 700 : 500}
      >
        {text}
      </text>
    </g>
  );
}
