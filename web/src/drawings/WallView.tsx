/** What was read of a cut's wall, drawn over its photo: the frame that was looked at, and where it is scorched. */
import { t } from '@lingui/core/macro';
import type { Spot, WallLook } from '../api/types';
import { ink } from './ink';
import { PhotoMarks, Twice } from './PhotoMarks';

interface Props {
  photo: ImageBitmap;
  look: WallLook | undefined;
  marks: Spot[]; // its corners
  busy: boolean;
  onMark: (which: number, to: Spot) => void;
  onMarked: () => void;
}

const between = (a: Spot, b: Spot, share: number): Spot => ({
  x: a.x + share * (b.x - a.x),
  y: a.y + share * (b.y - a.y),
});

export function WallView({ look, ...marks }: Props) {
  return (
    <PhotoMarks
      {...marks}
      name={
        look
          ? t`Photo with ${Math.round(100 * (look.brown + look.black))} percent of the cut edge burned`
          : t`Photo`
      }
      markName={(which) =>
        t`Corner ${which + 1} of the cut edge. Move it with the arrow keys, measure again with Enter`
      }
    >
      {(wide, high) => {
        const at = (p: Spot) => `${wide * p.x},${high * p.y}`;
        const [a, b, c, d] = marks.marks;
        if (!a || !b || !c || !d) return null;
        return (
          <g aria-hidden>
            <Twice points={[a, b, c, d].map(at).join(' ')} />
            {look?.along.map((share, i) => {
              // A bar under each part of the wall, as long as that is scorched.
              const [from, to] = [i / look.along.length, (i + 1) / look.along.length];
              const [x, y] = [between(d, c, from), between(d, c, to)];
              return (
                share > 0 && (
                  <path
                    key={i}
                    d={`M${at(x)}L${at(y)}`}
                    transform="translate(0 22)"
                    stroke={ink.mark}
                    strokeWidth={4 + 16 * share}
                    opacity={0.9}
                  />
                )
              );
            })}
          </g>
        );
      }}
    </PhotoMarks>
  );
}
