/** A photo with what was read drawn over it, and marks that can be moved: by a tap, a drag, or the arrow keys. */
import Box from '@mui/material/Box';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import type { Spot } from '../api/types';
import { ink } from './ink';

interface Props {
  photo: ImageBitmap;
  name: string; // what is seen
  marks: Spot[]; // in shares of the photo's sides
  markName: (which: number) => string;
  busy: boolean;
  onMark: (which: number, to: Spot) => void;
  onMarked: () => void; // a mark was let go of
  children: (wide: number, high: number, px: number) => ReactNode; // over the photo, as large as that; and how much of it a pixel of the screen is
}

const WIDE = 1000; // of the drawing, whatever the photo has
const STEP = 0.004; // of the photo, for an arrow key

const inside = (x: number) => Math.max(0, Math.min(1, x));

export function PhotoMarks({ photo, name, marks, markName, busy, onMark, onMarked, children }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawing = useRef<SVGSVGElement>(null);
  const grab = useRef<{ pointer: number; which: number }>(undefined);
  const high = (WIDE * photo.height) / photo.width;
  useEffect(() => {
    const on = canvas.current?.getContext('2d');
    on?.drawImage(photo, 0, 0, on.canvas.width, on.canvas.height);
  }, [photo]);
  const [px, setPx] = useState(1);
  useEffect(() => {
    const size = new ResizeObserver(([e]) => e && setPx(WIDE / Math.max(1, e.contentRect.width)));
    size.observe(drawing.current!);
    return () => size.disconnect();
  }, []);
  const spot = (e: PointerEvent): Spot => {
    const box = drawing.current!.getBoundingClientRect();
    return {
      x: inside((e.clientX - box.left) / box.width),
      y: inside((e.clientY - box.top) / box.height),
    };
  };
  // A tap anywhere brings the nearest mark there: nobody has to hit one first.
  const nearest = (to: Spot) =>
    marks
      .map((m, which) => ({ which, away: Math.hypot(WIDE * (m.x - to.x), high * (m.y - to.y)) }))
      .sort((a, b) => a.away - b.away)[0]!.which;
  const nudge = (e: KeyboardEvent, which: number) => {
    const by: Record<string, [number, number]> = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, -STEP],
      ArrowDown: [0, STEP],
    };
    const [x, y] = by[e.key] ?? [];
    if (x === undefined || y === undefined) return;
    e.preventDefault();
    const m = marks[which]!;
    onMark(which, { x: inside(m.x + x), y: inside(m.y + y) });
  };
  return (
    <Box sx={{ position: 'relative', border: '1.5px solid', borderColor: 'drawing.hair', lineHeight: 0 }}>
      <canvas
        ref={canvas}
        width={1400}
        height={Math.round((1400 * photo.height) / photo.width)}
        style={{ width: '100%', height: 'auto' }}
        role="img"
        aria-label={name}
      />
      <svg
        ref={drawing}
        viewBox={`0 0 ${WIDE} ${high}`}
        style={{
          position: 'absolute',
          inset: 0,
          width: '100%',
          height: '100%',
          touchAction: 'none',
          opacity: busy ? 0.5 : 1,
        }}
        onPointerDown={(e) => {
          const to = spot(e);
          const which = nearest(to);
          e.currentTarget.setPointerCapture(e.pointerId);
          grab.current = { pointer: e.pointerId, which };
          onMark(which, to);
        }}
        onPointerMove={(e) => {
          if (grab.current?.pointer === e.pointerId) onMark(grab.current.which, spot(e));
        }}
        onPointerUp={() => {
          if (grab.current) onMarked();
          grab.current = undefined;
        }}
        onPointerCancel={() => (grab.current = undefined)}
      >
        {children(WIDE, high, px)}
        {marks.map((m, which) => (
          <g
            key={which}
            role="button"
            tabIndex={0}
            aria-label={markName(which)}
            style={{ cursor: 'grab' }}
            onKeyDown={(e) => {
              if (e.key === 'Enter') onMarked();
              else nudge(e, which);
            }}
          >
            <circle cx={WIDE * m.x} cy={high * m.y} r={Math.max(56, 22 * px)} fill="transparent" />
            <circle cx={WIDE * m.x} cy={high * m.y} r={20} fill="none" stroke={ink.sheet} strokeWidth={9} />
            <circle cx={WIDE * m.x} cy={high * m.y} r={20} fill="none" stroke={ink.ink} strokeWidth={4.5} />
          </g>
        ))}
      </svg>
    </Box>
  );
}

/** A closed line that shows on dark and on light. */
export const Twice = ({ points }: { points: string }) => (
  <>
    <polygon points={points} fill="none" stroke={ink.sheet} strokeWidth={5} />
    <polygon points={points} fill="none" stroke={ink.accent} strokeWidth={2.5} strokeDasharray="14 7" />
  </>
);
