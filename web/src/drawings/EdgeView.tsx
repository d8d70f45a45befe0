/** What was read of a cut's edge, drawn over its photo: the line that was looked along, and how far each splinter reaches. */
import { plural, t } from '@lingui/core/macro';
import type { EdgeLook, Spot } from '../api/types';
import { ink } from './ink';
import { PhotoMarks, Twice } from './PhotoMarks';

interface Props {
  photo: ImageBitmap;
  look: EdgeLook | undefined;
  marks: Spot[]; // its ends
  busy: boolean;
  onMark: (which: number, to: Spot) => void;
  onMarked: () => void;
}

export function EdgeView({ look, ...marks }: Props) {
  return (
    <PhotoMarks
      {...marks}
      name={
        look
          ? plural(look.splinters.length, {
              one: 'Photo with # spot of tear-out marked on the edge',
              other: 'Photo with # spots of tear-out marked on the edge',
            })
          : t`Photo`
      }
      markName={(which) =>
        t`End ${which + 1} of the edge. Move it with the arrow keys, measure again with Enter`
      }
    >
      {(wide, high, px) => {
        const on = (spots: Spot[]) => spots.map((m) => [wide * m.x, high * m.y] as const);
        const shown = on(marks.marks);
        // Splinters lie along the edge that was found, which need not be to a hair what was shown.
        const [a, b] = look ? on(look.ends) : shown;
        if (!a || !b) return null;
        const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
        const mm = look ? Math.hypot(dx, dy) / look.length_mm : 0; // of the drawing
        const [nx, ny] = [dy / Math.hypot(dx, dy), -dx / Math.hypot(dx, dy)]; // into the face
        return (
          <g aria-hidden>
            <Twice points={shown.map((m) => m.join(',')).join(' ')} />
            {look?.splinters.map((s) => {
              // A bracket round each, a little larger than it is.
              const over = 5 * px;
              const at = (share: number, out: number, beside: number) =>
                `${a[0] + dx * share + (dx / Math.hypot(dx, dy)) * beside + nx * out},${a[1] + dy * share + (dy / Math.hypot(dx, dy)) * beside + ny * out}`;
              const deep = mm * s.deep_mm + over;
              return (
                <polyline
                  key={s.from}
                  points={`${at(s.from, 0, -over)} ${at(s.from, deep, -over)} ${at(s.to, deep, over)} ${at(s.to, 0, over)}`}
                  fill="none"
                  stroke={ink.mark}
                  strokeWidth={Math.max(3, 2 * px)}
                />
              );
            })}
          </g>
        );
      }}
    </PhotoMarks>
  );
}
