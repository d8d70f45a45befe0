/** One tooth with a straight edge at its tip, which is turned until it lies along the tooth's face. */
import type { PointerEvent } from 'react';
import type { DrawnBlade } from '../api/types';
import { bladePath, tipsPath } from './blade';
import { ink } from './ink';

interface Props {
  blade: DrawnBlade;
  deg: number; // that the edge leans
  onTurn?: (deg: number) => void; // by a finger on the drawing
}

const HALF = 26; // mm to either side of the tip
const OVER = 14;
const UNDER = 34;

export function HookView({ blade, deg, onTurn }: Props) {
  const r = blade.diameter_mm / 2;
  const lean = (deg * Math.PI) / 180;
  /** Below the tip the edge follows the finger; above it, its other end does. */
  const turn = (e: PointerEvent<SVGSVGElement>) => {
    const at = e.currentTarget.getScreenCTM()?.inverse();
    if (!onTurn || !at || e.buttons === 0) return;
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(at);
    const [x, y] = p.y < -r ? [-p.x, -r - p.y] : [p.x, p.y + r];
    if (y > 2) onTurn(Math.max(-15, Math.min(35, Math.round((Math.atan2(x, y) * 180) / Math.PI))));
  };
  return (
    <svg
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        turn(e);
      }}
      onPointerMove={turn}
      viewBox={`${-HALF} ${-r - OVER} ${2 * HALF} ${OVER + UNDER}`}
      width="100%"
      aria-hidden
      focusable="false"
      style={{
        display: 'block',
        maxHeight: 420,
        ...(onTurn && { touchAction: 'none', cursor: 'ew-resize' }),
      }}
    >
      <path d={bladePath(blade)} fill={ink.steel} stroke={ink.ink} strokeWidth={0.35} />
      <path d={tipsPath(blade)} fill={ink.ink} />
      {/* from the bore to the tip */}
      <path
        d={`M0 ${-r - OVER}V${-r + UNDER}`}
        stroke={ink.hair}
        strokeWidth={0.35}
        strokeDasharray="1.500 1"
      />
      <path
        d={`M${-OVER * Math.sin(lean)} ${-r - OVER * Math.cos(lean)}L${40 * Math.sin(lean)} ${-r + 40 * Math.cos(lean)}`}
        stroke={ink.accent}
        strokeWidth={0.7}
      />
      <circle cy={-r} r={1} fill="none" stroke={ink.accent} strokeWidth={0.4} />
    </svg>
  );
}
