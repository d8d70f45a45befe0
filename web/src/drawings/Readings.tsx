/** What the hand does to read an unmarked blade. */
import { t } from '@lingui/core/macro';
import { formatThin } from '../measure/format';
import type { Units } from '../api/types';
import { circle } from './blade';
import { ink } from './ink';

interface HookProps {
  radius: number; // mm
  offset: number; // mm, of the face's line from the middle of the bore
  bore: number;
  units: Units;
}

/** A straight edge along the face of the tooth at the top, and its offset from the middle. */
export function HookReading({ radius: r, offset, bore, units }: HookProps) {
  const scale = 78 / r;
  const o = Math.max(-0.8 * r, Math.min(0.8 * r, offset));
  // The line through the tip at the top whose distance from the middle is the offset.
  const a = Math.asin(o / r);
  const foot: [number, number] = [-o * Math.cos(a), o * Math.sin(a)];
  const tip: [number, number] = [0, -r];
  const far = (k: number) => [tip[0] + (foot[0] - tip[0]) * k, tip[1] + (foot[1] - tip[1]) * k] as const;
  const [x1, y1] = far(-0.15);
  const [x2, y2] = far(1.5);
  const s = (v: number) => (v * scale).toFixed(1);
  return (
    <svg
      width={250}
      height={190}
      viewBox="-125 -95 250 190"
      role="img"
      aria-label={t`Straightedge along a tooth face, ${formatThin(Math.abs(o), units)} from the center of the bore`}
    >
      <path d={circle(r * scale)} fill={ink.steel} stroke={ink.ink} strokeWidth={1.2} />
      <path d={circle(Math.max(2, (bore / 2) * scale))} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.2} />
      <path
        d={`M0 ${s(-r)}l${s(foot[0] * 0.18)} ${s((foot[1] + r) * 0.18)}l9 3q5 -9 3 -16z`}
        fill={ink.ink}
      />
      <path d={`M${s(x1)} ${s(y1)}L${s(x2)} ${s(y2)}`} stroke={ink.accent} strokeWidth={3} />
      <path d={`M0 0L${s(foot[0])} ${s(foot[1])}`} stroke={ink.ink} strokeWidth={1.5} strokeDasharray="4 3" />
      <path d="M-6 0h12M0 -6v12" stroke={ink.ink} strokeWidth={1} />
      <text x={10} y={22} fontSize={13} fill={ink.ink}>
        {formatThin(Math.abs(o), units)}
      </text>
    </svg>
  );
}

/** Two neighbouring tips seen along the rim. */
export function BevelSample({ deg }: { deg: number }) {
  const w = 18;
  const drop = w * Math.tan((deg * Math.PI) / 180);
  return (
    <svg width={58} height={44} viewBox="0 0 58 44" aria-hidden focusable="false">
      <path d={`M6 8L${6 + w} ${8 + drop}L${5 + w} 42H9Z`} fill={ink.ink} />
      <path d={`M34 ${8 + drop}L${34 + w} 8L${33 + w} 42H37Z`} fill={ink.ink} />
    </svg>
  );
}
