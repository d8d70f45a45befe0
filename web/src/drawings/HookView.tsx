/** One tooth with a straight edge at its tip, which is turned until it lies along the tooth's face. */
import type { DrawnBlade } from '../api/types';
import { bladePath, tipsPath } from './blade';
import { ink } from './ink';

interface Props {
  blade: DrawnBlade;
  deg: number; // that the edge leans
}

const HALF = 26; // mm to either side of the tip
const OVER = 14;
const UNDER = 34;

export function HookView({ blade, deg }: Props) {
  const r = blade.diameter_mm / 2;
  const lean = (deg * Math.PI) / 180;
  return (
    <svg
      viewBox={`${-HALF} ${-r - OVER} ${2 * HALF} ${OVER + UNDER}`}
      width="100%"
      aria-hidden
      focusable="false"
      style={{ display: 'block', maxHeight: 420 }}
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
