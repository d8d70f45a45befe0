import { memo, useMemo } from 'react';
import type { Blade } from '../api/types';
import { bladePath, circle, tipsPath } from './blade';
import { ink } from './ink';

/** The blade itself: costly to outline, so it is moved, never redrawn. */
export const BladeBody = memo(function BladeBody({
  blade,
  x,
  y,
  scale,
}: {
  blade: Blade;
  x: number;
  y: number;
  scale: number;
}) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <Outline blade={blade} scale={scale} />
    </g>
  );
});

const Outline = memo(function Outline({ blade, scale }: { blade: Blade; scale: number }) {
  const d = useMemo(() => bladePath(blade), [blade]);
  return (
    <g transform={`scale(${scale})`}>
      <path
        d={d}
        fill={ink.steel}
        fillOpacity={0.93}
        stroke={ink.ink}
        strokeWidth={1.2 / scale}
        strokeLinejoin="round"
      />
      {blade.teeth > 0 && <path d={tipsPath(blade)} fill={ink.hair} />}
      <path d={circle(blade.bore_mm / 2)} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.2 / scale} />
      <path d={circle(blade.bore_mm * 1.6)} fill="none" stroke={ink.hair} strokeWidth={1 / scale} />
    </g>
  );
});

/** Which way the blade turns. */
export function Turning({ x, y, r, up }: { x: number; y: number; r: number; up: boolean }) {
  const a = r * 0.87;
  const [from, to] = up ? [70, 108] : [250, 288];
  const p = (deg: number) =>
    `${x + a * Math.cos((deg * Math.PI) / 180)} ${y - a * Math.sin((deg * Math.PI) / 180)}`;
  return (
    <g fill="none" stroke={ink.hair} strokeWidth={1.6}>
      <path d={`M${p(from)}A${a} ${a} 0 0 0 ${p(to)}`} />
      <g transform={`translate(${p(to)}) rotate(${-to - 90})`}>
        <path d="M-8 -5L0 0L-8 5" />
      </g>
    </g>
  );
}
