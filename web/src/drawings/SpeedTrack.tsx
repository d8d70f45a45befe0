/** The last half minute of a saw's speed under its idle line: a dip is a cut. */
import { t } from '@lingui/core/macro';
import { useState } from 'react';

interface Props {
  rpm: number | undefined; // now
  idle: number | undefined;
  at: number; // s heard so far
}

const LONG = 30; // s
const WIDE = 600;
const HIGH = 64;
const DEEPEST = 0.15; // of the idle speed
const LEAST = 3; // moments of a stretch that is drawn

export function SpeedTrack({ rpm, idle, at }: Props) {
  const [track, setTrack] = useState<{ at: number; rpm: number | undefined }[]>([]);
  if (track.at(-1)?.at !== at)
    setTrack((now) => [...now.filter((p) => p.at > at - LONG && p.at < at), { at, rpm }]);
  if (idle === undefined) return null;
  const x = (s: number) => WIDE * (1 - (at - s) / LONG);
  const y = (v: number) => 8 + (HIGH - 12) * Math.max(0, Math.min(1, (1 - v / idle) / DEEPEST));
  // A line for each stretch in which the saw was heard; a moment or two alone are noise.
  const parts: string[][] = [];
  let open = false;
  for (const p of track) {
    if (p.rpm !== undefined) {
      if (!open) parts.push([]);
      parts.at(-1)!.push(`${x(p.at).toFixed(1)} ${y(p.rpm).toFixed(1)}`);
    }
    open = p.rpm !== undefined;
  }
  const lines = parts.filter((points) => points.length >= LEAST).map((points) => `M${points.join('L')}`);
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      preserveAspectRatio="none"
      style={{ width: '100%', height: HIGH, display: 'block' }}
      role="img"
      aria-label={t`Blade speed over the last half minute, below the idle line`}
    >
      <path d={`M0 8H${WIDE}`} stroke="currentColor" strokeWidth={1.5} strokeDasharray="6 5" opacity={0.7} />
      <path
        d={lines.join('')}
        fill="none"
        stroke="currentColor"
        strokeWidth={3}
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
