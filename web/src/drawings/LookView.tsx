/** What was read of a blade, drawn over its photo. */
import { t } from '@lingui/core/macro';
import type { BladeLook, Spot } from '../api/types';
import { ink } from './ink';
import { PhotoMarks, Twice } from './PhotoMarks';

interface Props {
  photo: ImageBitmap;
  look: BladeLook | undefined;
  marks: Spot[]; // on the rim
  busy: boolean;
  onMark: (which: number, to: Spot) => void;
  onMarked: () => void;
}

const EVERY = 10; // teeth from one number to the next
const APART = 3; // teeth from a number of those to that of one which is named, at least

export function LookView({ look, ...marks }: Props) {
  const middle = look && {
    x: look.rim.reduce((sum, p) => sum + p.x, 0) / look.rim.length,
    y: look.rim.reduce((sum, p) => sum + p.y, 0) / look.rim.length,
  };
  return (
    <PhotoMarks
      {...marks}
      name={look ? t`Photo with ${look.tips.length} teeth marked` : t`Photo`}
      markName={(which) =>
        t`Mark ${which + 1} on the rim. Move it with the arrow keys, measure again with Enter`
      }
    >
      {(wide, high, px) => {
        const path = (all: Spot[]) => all.map((p) => `${wide * p.x},${high * p.y}`).join(' ');
        const odd = look ? [...look.missing, ...look.short, ...look.bent] : [];
        const numbered = (i: number) =>
          odd.includes(i) || ((i + 1) % EVERY === 0 && odd.every((o) => Math.abs(o - i) >= APART));
        return (
          look &&
          middle && (
            <g fill="none" aria-hidden>
              <Twice points={path(look.rim)} />
              {look.bore.length > 0 && <Twice points={path(look.bore)} />}
              {look.tips.map((p, i) => {
                const [x, y] = [wide * p.x, high * p.y];
                const gone = look.missing.includes(i);
                const low = look.short.includes(i);
                const bent = look.bent.includes(i);
                const named = gone || low || bent;
                const inwards = named ? 0.17 : 0.1; // where its number stands
                const [tx, ty] = [
                  wide * (p.x + inwards * (middle.x - p.x)),
                  high * (p.y + inwards * (middle.y - p.y)),
                ];
                return (
                  <g key={i}>
                    <circle cx={x} cy={y} r={named ? 17 : 7} stroke={ink.sheet} strokeWidth={5} />
                    <circle
                      cx={x}
                      cy={y}
                      r={named ? 17 : 7}
                      stroke={named ? ink.mark : ink.accent}
                      strokeWidth={named ? 4 : 2.5}
                      strokeDasharray={low ? '5 4' : undefined}
                    />
                    {gone && (
                      <path d={`M${x - 11} ${y - 11}l22 22m0-22l-22 22`} stroke={ink.mark} strokeWidth={4} />
                    )}
                    {bent && <path d={`M${x - 8} ${y + 12}l16 -24`} stroke={ink.mark} strokeWidth={4} />}
                    {numbered(i) && (
                      <text
                        x={tx}
                        y={ty + Math.max(8, 5 * px)}
                        textAnchor="middle"
                        fontSize={Math.max(24, 14 * px)}
                        fontWeight={700}
                        fill={ink.ink}
                        stroke={ink.sheet}
                        strokeWidth={5}
                        paintOrder="stroke"
                      >
                        {i + 1}
                      </text>
                    )}
                  </g>
                );
              })}
            </g>
          )
        );
      }}
    </PhotoMarks>
  );
}
