import { t } from '@lingui/core/macro';
import { ink } from './ink';
import { Label } from './Label';

export function TiltView({ deg, top }: { deg: number; top: boolean }) {
  const gap = Math.max(-14, Math.min(14, deg * 60));
  const g = top ? [Math.abs(gap), 0] : [0, Math.abs(gap)];
  return (
    <svg
      width={360}
      height={200}
      viewBox="0 0 360 200"
      style={{ maxWidth: '100%', height: 'auto' }}
      role="img"
      aria-label={t`Two halves, one flipped, pushed together: the gap is twice the error`}
    >
      <path
        d={`M20 40H${180 - g[0]!}L${180 - g[1]!} 170H20Z`}
        fill={ink.wood}
        stroke={ink.ink}
        strokeWidth={1.8}
      />
      <path
        d={`M340 40H${180 + g[0]!}L${180 + g[1]!} 170H340Z`}
        fill={ink.wood}
        stroke={ink.ink}
        strokeWidth={1.8}
      />
      <path d="M10 172H350" stroke={ink.ink} strokeWidth={3} />
      <Label x={180} y={22} size={14}>{t`gap, twice the error`}</Label>
    </svg>
  );
}

export function GaugeView({ figure }: { figure: number }) {
  const lean = Math.max(-18, Math.min(18, figure * 120));
  return (
    <svg
      width={360}
      height={200}
      viewBox="0 0 360 200"
      style={{ maxWidth: '100%', height: 'auto' }}
      role="img"
      aria-label={t`The fifth strip: its two ends show the miter gauge's error`}
    >
      <path d={`M40 ${80 - lean / 2}H320V${130}H40Z`} fill={ink.wood} stroke={ink.ink} strokeWidth={1.8} />
      <path d={`M40 ${80 - lean / 2}L320 ${80 + lean / 2}`} stroke={ink.accent} strokeWidth={3} />
      <Label x={60} y={154} size={14}>{t`cut first`}</Label>
      <Label x={300} y={154} size={14}>{t`cut last`}</Label>
    </svg>
  );
}

/** How a size that is off is drawn: much larger than life, within bounds. */
const off = (mm: number) => Math.max(-42, Math.min(42, mm * 60));

/** An arrow from one place to the other along x. */
const arrow = (from: number, to: number, y: number) => {
  const back = from < to ? -7 : 7;
  return `M${from} ${y}H${to}M${to + back} ${y - 5}L${to} ${y}L${to + back} ${y + 5}`;
};

/** The test piece between blade and fence, and where the fence goes. */
export function WidthView({ over }: { over: number }) {
  const [blade, wanted, top, low] = [80, 240, 50, 150];
  const now = wanted + off(over);
  return (
    <svg
      width={360}
      height={200}
      viewBox="0 0 360 200"
      style={{ maxWidth: '100%', height: 'auto' }}
      role="img"
      aria-label={
        over === 0
          ? t`Test piece between blade and fence: measure the width with a caliper`
          : t`The piece is too ${over > 0 ? t`wide` : t`narrow`}: move the fence ${over > 0 ? t`toward` : t`away from`} the blade`
      }
    >
      <rect x={blade} y={top} width={now - blade} height={low - top} fill={ink.wood} stroke={ink.ink} />
      <rect
        x={blade - 10}
        y={top - 14}
        width={10}
        height={low - top + 28}
        fill={ink.steel}
        stroke={ink.ink}
      />
      <rect x={now} y={top - 20} width={26} height={low - top + 40} fill={ink.sheet} stroke={ink.ink} />
      <path
        d={`M${wanted} ${top - 24}V${low + 24}`}
        stroke={ink.accent}
        strokeDasharray="5 4"
        strokeWidth={2}
      />
      <path
        d={`${arrow(blade + 60, blade, 100)}${arrow(now - 60, now, 100)}`}
        fill="none"
        stroke={ink.ink}
        strokeWidth={1.6}
      />
      <Label x={(blade + now) / 2} y={100} size={14}>{t`measured`}</Label>
      {over !== 0 && (
        <path d={arrow(now, wanted, low + 12)} fill="none" stroke={ink.accent} strokeWidth={3} />
      )}
      <Label x={blade - 5} y={18} size={13}>{t`blade`}</Label>
      <Label x={now + 13} y={18} size={13}>{t`fence`}</Label>
      <Label x={wanted} y={190} size={13}>{t`target`}</Label>
    </svg>
  );
}

/** The test groove, and how deep it was to be. */
export function DepthView({ over, fromAbove }: { over: number; fromAbove: boolean }) {
  const [top, low, deep] = [40, 150, 60];
  const face = fromAbove ? top : low;
  const inward = fromAbove ? 1 : -1;
  const wanted = face + inward * deep;
  const now = wanted + inward * off(over) * 0.5;
  return (
    <svg
      width={360}
      height={200}
      viewBox="0 0 360 200"
      style={{ maxWidth: '100%', height: 'auto' }}
      role="img"
      aria-label={
        over === 0
          ? t`Test groove from its end: measure the depth`
          : t`The groove is too ${over > 0 ? t`deep` : t`shallow`}`
      }
    >
      <path
        d={`M40 ${face}H150V${now}H200V${face}H320V${fromAbove ? low : top}H40Z`}
        fill={ink.wood}
        stroke={ink.ink}
        strokeWidth={1.6}
      />
      <path d={`M20 ${low + 2}H340`} stroke={ink.ink} strokeWidth={3} />
      <path d={`M120 ${wanted}H230`} stroke={ink.accent} strokeWidth={2} strokeDasharray="5 4" />
      <Label x={262} y={wanted} size={13}>{t`target`}</Label>
      <path d={`M175 ${face}V${now}`} stroke={ink.ink} strokeWidth={1.4} />
      <Label x={175} y={face - inward * 16} size={13}>{t`measured`}</Label>
    </svg>
  );
}
