/** A blank insert from above while its own set is raised through it: the opening, and how far the fence stays away. */
import { t } from '@lingui/core/macro';
import type { GrooveWay, Units } from '../api/types';
import { formatSetting } from '../measure/format';
import { ink } from './ink';
import { Label } from './Label';

export function InsertView({ insert: n, units }: { insert: NonNullable<GrooveWay['insert']>; units: Units }) {
  const scale = Math.min(300 / (n.length_mm * 1.6), 2.2);
  const x = 180 - (n.length_mm * scale) / 2;
  const y = 66;
  const w = Math.max(8, n.width_mm * scale);
  const fence = y + w + n.fence_mm * scale;
  return (
    <svg
      viewBox="0 0 360 190"
      role="img"
      aria-label={t`Throat plate from above: opening ${formatSetting(n.width_mm, units)} by ${formatSetting(n.length_mm, units)}, fence ${formatSetting(n.fence_mm, units)} from the dado set`}
      style={{ display: 'block', width: '100%', maxWidth: 420 }}
    >
      <rect
        x={14}
        y={40}
        width={332}
        height={104}
        rx={22}
        fill={ink.wood}
        stroke={ink.ink}
        strokeWidth={1.6}
      />
      <rect
        x={x}
        y={y}
        width={n.length_mm * scale}
        height={w}
        fill={ink.sheet}
        stroke={ink.accent}
        strokeWidth={2}
      />
      <rect x={0} y={fence} width={360} height={190 - fence} fill={ink.steel} stroke={ink.ink} />
      <Label x={180} y={y + w / 2} size={14}>
        {`${formatSetting(n.length_mm, units)} × ${formatSetting(n.width_mm, units)}`}
      </Label>
      <path
        d={`M${x + 16} ${y + w}V${fence}M${x + 9} ${y + w}h14M${x + 9} ${fence}h14`}
        stroke={ink.hair}
        fill="none"
      />
      <Label x={x + 30} y={(y + w + fence) / 2} anchor="start" size={14}>
        {t`at least ${formatSetting(n.fence_mm, units)}`}
      </Label>
      <Label x={60} y={Math.min(182, fence + 14)} size={14}>{t`fence`}</Label>
    </svg>
  );
}
