/** A stick or board to scale along one dimension: its pieces, the kerfs between them, and what is left. */
import { ink } from './ink';
import { widthOf } from './Label';

interface Props {
  long: number; // mm, of the stick
  longest: number; // mm, of all that are drawn beside each other
  trim: number; // mm, off each end
  kerf: number;
  pieces: { long: number; name: string; tone: number }[]; // in their order; tones tell kinds apart
  width: number; // px that the longest takes
}

const HEIGHT = 44;
const SMALL = 12.5;

export function StickView({ long, longest, trim, kerf, pieces, width }: Props) {
  const scale = (width - 4) / longest;
  const starts = pieces.map((_, i) => trim + pieces.slice(0, i).reduce((sum, p) => sum + p.long + kerf, 0));
  return (
    <svg
      width={width}
      height={HEIGHT + 4}
      viewBox={`-2 -2 ${width} ${HEIGHT + 4}`}
      aria-hidden
      focusable="false"
      style={{ display: 'block' }}
    >
      <rect width={long * scale} height={HEIGHT} fill="none" stroke={ink.hair} strokeDasharray="5 4" />
      {pieces.map((p, i) => (
        <g key={i}>
          <rect
            x={starts[i]! * scale}
            width={Math.max(1, p.long * scale)}
            height={HEIGHT}
            fill={ink.wood}
            stroke={ink.ink}
            strokeWidth={1.3}
          />
          {Array.from({ length: p.tone }, (_, k) => (
            <path
              key={k}
              d={`M${starts[i]! * scale + 2} ${HEIGHT - 6 - 5 * k}h${Math.max(0, p.long * scale - 4)}`}
              stroke={ink.grain}
              strokeWidth={2}
            />
          ))}
          {widthOf(p.name, SMALL) + 8 < p.long * scale && (
            <text x={starts[i]! * scale + 6} y={17} fontSize={SMALL} fontWeight={600} fill={ink.ink}>
              {p.name}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
