/** A saw drawn from its own numbers: its largest blade, as far out as it goes. */
import type { Saw } from '../api/types';
import { formatSetting } from '../measure/format';
import type { Units } from '../api/types';
import { circle } from './blade';
import { VerticalDimension } from './Dimension';
import { ink } from './ink';

export function SawFace({ saw, units }: { saw: Saw; units: Units }) {
  const scale = 0.42;
  const r = (saw.diameter_mm / 2) * scale;
  const reach = saw.reach_mm * scale;
  const [w, h] = [230, 130];
  const up = saw.kind === 'table';
  const line = up ? 74 : saw.kind === 'miter' ? 124 : 78;
  const low = saw.below_table_mm * scale;
  const y = up ? line - reach + r : saw.kind === 'miter' ? line + low - r : line + reach - r;
  const x = 92;
  return (
    <svg width={w} height={h} viewBox={`0 0 ${w} ${h}`} aria-hidden focusable="false">
      <g transform={`translate(${x} ${y})`}>
        <path d={circle(r)} fill={ink.steel} stroke={ink.ink} strokeWidth={1.4} />
        <path d={circle((saw.arbor_mm / 2) * scale)} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.2} />
        <path d={circle(saw.arbor_mm * 1.6 * scale)} fill="none" stroke={ink.hair} />
      </g>
      {up && <rect x={0} y={line} width={w} height={h - line} fill={ink.sheet} fillOpacity={0.75} />}
      <path d={`M4 ${line}H${saw.kind === 'circular' ? 180 : w - 4}`} stroke={ink.ink} strokeWidth={2.4} />
      {saw.kind === 'miter' && (
        <path d={`M150 ${line}V${line - 44}h8V${line}`} fill={ink.sheet} stroke={ink.ink} strokeWidth={1.4} />
      )}
      <VerticalDimension
        x={saw.kind === 'miter' ? 196 : 192}
        from={line}
        to={up || saw.kind === 'miter' ? line - reach : line + reach}
        reach={-14}
        text={formatSetting(saw.reach_mm, units)}
        within={w}
      />
    </svg>
  );
}
