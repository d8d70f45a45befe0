import { useRef } from 'react';
import type { Units } from '../api/types';
import { formatSetting, heightStep } from '../measure/format';
import { VerticalDimension } from './Dimension';
import { ink } from './ink';

interface HandleProps {
  x: number;
  y: number;
  zero: number;
  dimX: number;
  up: boolean;
  value: number;
  max: number;
  scale: number;
  units: Units;
  label: string;
  within: number;
  onHeight: (mm: number) => void;
}

/** What the hand can move: a grip at the rim, by pointer or by arrow keys, with the height beside it. */
export function HeightHandle({
  x,
  y,
  zero,
  dimX,
  up,
  value,
  max,
  scale,
  units,
  label,
  onHeight,
  within,
}: HandleProps) {
  const grab = useRef<{ pointer: number; y: number; value: number } | null>(null);
  const step = heightStep[units];
  const snap = (mm: number) => {
    const steps = Math.min(Math.floor(max / step + 1e-9), Math.max(1, Math.round(mm / step)));
    return steps * step;
  };
  const nudge = (by: number) => onHeight(snap(value + by * step));
  const keys: Record<string, () => void> = {
    ArrowUp: () => nudge(up ? 1 : -1),
    ArrowDown: () => nudge(up ? -1 : 1),
    ArrowRight: () => nudge(1),
    ArrowLeft: () => nudge(-1),
    PageUp: () => nudge(up ? 10 : -10),
    PageDown: () => nudge(up ? -10 : 10),
    Home: () => onHeight(snap(step)),
    End: () => onHeight(snap(max)),
  };
  return (
    <g>
      <VerticalDimension
        x={dimX}
        from={zero}
        to={y}
        reach={x - dimX}
        text={formatSetting(value, units)}
        strong
        within={within}
      />
      <g
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={step}
        aria-valuemax={max}
        aria-valuenow={Number(value.toFixed(4))}
        aria-valuetext={formatSetting(value, units)}
        aria-orientation="vertical"
        style={{ cursor: 'ns-resize', touchAction: 'none' }}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          grab.current = { pointer: e.pointerId, y: e.clientY, value };
        }}
        onPointerMove={(e) => {
          const g = grab.current;
          if (!g || g.pointer !== e.pointerId) return;
          const moved = ((g.y - e.clientY) / scale) * (up ? 1 : -1);
          const to = snap(g.value + moved);
          if (to !== value) onHeight(to);
        }}
        onPointerUp={() => (grab.current = null)}
        onPointerCancel={() => (grab.current = null)}
        onKeyDown={(e) => {
          const act = keys[e.key];
          if (act) {
            e.preventDefault();
            act();
          }
        }}
      >
        <rect x={x - 90} y={y - 26} width={180} height={52} fill="transparent" />
        <circle cx={x} cy={y} r={15} fill={ink.accent} stroke={ink.sheet} strokeWidth={2.5} />
        <path
          d={`M${x - 4.5} ${y - 3}L${x} ${y - 8}L${x + 4.5} ${y - 3}M${x - 4.5} ${y + 3}L${x} ${y + 8}L${x + 4.5} ${y + 3}`}
          fill="none"
          stroke={ink.sheet}
          strokeWidth={2}
        />
      </g>
    </g>
  );
}
