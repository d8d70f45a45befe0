/** A photo of a blade with what was read drawn over it, and three marks on the rim that can be moved. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { BladeLook, Spot } from '../api/types';
import { ink } from './ink';

interface Props {
  photo: ImageBitmap;
  look: BladeLook | undefined;
  marks: Spot[]; // on the rim, in shares of the photo's sides
  busy: boolean;
  onMark: (which: number, to: Spot) => void;
  onMarked: () => void; // a mark was let go of
}

const WIDE = 1000; // of the drawing, whatever the photo has
const STEP = 0.004; // of the photo, for an arrow key
const EVERY = 10; // teeth from one number to the next

const inside = (x: number) => Math.max(0, Math.min(1, x));

export function LookView({ photo, look, marks, busy, onMark, onMarked }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawing = useRef<SVGSVGElement>(null);
  const grab = useRef<{ pointer: number; which: number }>(undefined);
  const high = (WIDE * photo.height) / photo.width;
  useEffect(() => {
    const on = canvas.current?.getContext('2d');
    on?.drawImage(photo, 0, 0, on.canvas.width, on.canvas.height);
  }, [photo]);
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
  const path = (all: Spot[]) => all.map((p) => `${WIDE * p.x},${high * p.y}`).join(' ');
  const middle = look && {
    x: look.rim.reduce((sum, p) => sum + p.x, 0) / look.rim.length,
    y: look.rim.reduce((sum, p) => sum + p.y, 0) / look.rim.length,
  };
  return (
    <Box sx={{ position: 'relative', border: '1.5px solid', borderColor: 'drawing.hair', lineHeight: 0 }}>
      <canvas
        ref={canvas}
        width={1400}
        height={Math.round((1400 * photo.height) / photo.width)}
        style={{ width: '100%', height: 'auto' }}
        role="img"
        aria-label={look ? t`The photo, with ${look.tips.length} teeth marked` : t`The photo`}
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
        {look && middle && (
          <g fill="none" aria-hidden>
            <Twice points={path(look.rim)} />
            {look.bore.length > 0 && <Twice points={path(look.bore)} />}
            {look.tips.map((p, i) => {
              const [x, y] = [WIDE * p.x, high * p.y];
              const gone = look.missing.includes(i);
              const low = look.short.includes(i);
              const [tx, ty] = [WIDE * (p.x + 0.1 * (middle.x - p.x)), high * (p.y + 0.1 * (middle.y - p.y))];
              return (
                <g key={i}>
                  <circle cx={x} cy={y} r={gone || low ? 17 : 7} stroke={ink.sheet} strokeWidth={5} />
                  <circle
                    cx={x}
                    cy={y}
                    r={gone || low ? 17 : 7}
                    stroke={gone || low ? ink.mark : ink.accent}
                    strokeWidth={gone || low ? 4 : 2.5}
                    strokeDasharray={low ? '5 4' : undefined}
                  />
                  {gone && (
                    <path d={`M${x - 11} ${y - 11}l22 22m0-22l-22 22`} stroke={ink.mark} strokeWidth={4} />
                  )}
                  {(i + 1) % EVERY === 0 && (
                    <text
                      x={tx}
                      y={ty + 8}
                      textAnchor="middle"
                      fontSize={24}
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
        )}
        {marks.map((m, which) => (
          <g
            key={which}
            role="button"
            tabIndex={0}
            aria-label={t`Mark ${which + 1} on the rim: the arrow keys move it, Enter looks again`}
            style={{ cursor: 'grab' }}
            onKeyDown={(e) => {
              if (e.key === 'Enter') onMarked();
              else nudge(e, which);
            }}
          >
            <circle cx={WIDE * m.x} cy={high * m.y} r={56} fill="transparent" />
            <circle cx={WIDE * m.x} cy={high * m.y} r={20} fill="none" stroke={ink.sheet} strokeWidth={9} />
            <circle cx={WIDE * m.x} cy={high * m.y} r={20} fill="none" stroke={ink.ink} strokeWidth={4.5} />
          </g>
        ))}
      </svg>
    </Box>
  );
}

/** A closed line that shows on dark and on light. */
const Twice = ({ points }: { points: string }) => (
  <>
    <polygon points={points} stroke={ink.sheet} strokeWidth={5} />
    <polygon points={points} stroke={ink.accent} strokeWidth={2.5} strokeDasharray="14 7" />
  </>
);
