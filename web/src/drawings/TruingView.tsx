/** What a session found, larger than life: blade, slot and fence from above; the plate's wobble; the teeth round the rim. */
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import { formatDial } from '../measure/format';
import { ink } from './ink';
import { Label } from './Label';
import { Polar, farthest, Ring, type TruingViewProps } from './Ring';
import { TiltView, GaugeView, WidthView, DepthView } from './TrialCuts';

export function TruingView({ input, result, units, fromAbove, compare, next }: TruingViewProps) {
  switch (input.test) {
    case 'heel':
    case 'fence':
      return <Plan input={input} result={result} units={units} />;
    case 'runout':
      return <Polar input={input} runout={result?.runout} units={units} next={next} />;
    case 'clearance': {
      const sides = [
        { name: t`Left side`, readings: input.first_mm, other: compare?.first_mm, found: result?.left },
        { name: t`Right side`, readings: input.second_mm, other: compare?.second_mm, found: result?.right },
      ];
      // One scale for both sides, so that a good one does not look like a poor one.
      const most = Math.max(0.03, ...sides.map((s) => farthest(s.readings)));
      return (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2 }}>
          {sides.map((side, round) => {
            const at = next?.round === round ? next : undefined;
            return round === 0 || side.readings?.length || at ? (
              <Ring key={side.name} {...side} most={most} slots={input.slots ?? []} units={units} next={at} />
            ) : null;
          })}
        </Box>
      );
    }
    case 'tilt':
      return <TiltView deg={result?.figure ?? 0} top={(input.gap_mm ?? 0) >= 0} />;
    case 'gauge':
      return <GaugeView figure={result?.figure ?? 0} />;
    case 'width':
      return <WidthView over={(input.measured_mm ?? 0) - (input.wanted_mm ?? 0)} />;
    case 'depth':
      return (
        <DepthView over={(input.measured_mm ?? 0) - (input.wanted_mm ?? 0)} fromAbove={fromAbove ?? false} />
      );
  }
}

/** How much larger than life an error is drawn. */
const LARGER = 150;

function Plan({ input, result, units }: Omit<TruingViewProps, 'compare' | 'next' | 'fromAbove'>) {
  const [w, h] = [420, 300];
  const span = 190;
  const mid = h / 2;
  const out = (mm: number) => Math.max(-46, Math.min(46, (mm * LARGER) / 2));
  const lean = out(result?.toward_fence_mm ?? 0);
  const open = out(result?.open_mm ?? 0);
  const bx = 190;
  const fx = 320;
  const dialX = input.dial === 'right' ? 250 : 108;
  return (
    <svg
      width={w}
      height={h}
      viewBox={`0 0 ${w} ${h}`}
      style={{ maxWidth: '100%', height: 'auto' }}
      role="img"
      aria-label={
        result ? result.says.join(' ') : t`Where the dial indicator goes: in the slot, at front and rear`
      }
    >
      <rect x={20} y={20} width={w - 40} height={h - 40} fill={ink.sheet} stroke={ink.ink} strokeWidth={2} />
      <rect x={100} y={20} width={14} height={h - 40} fill={ink.hair} fillOpacity={0.3} stroke={ink.ink} />
      <rect x={244} y={20} width={14} height={h - 40} fill={ink.hair} fillOpacity={0.3} stroke={ink.ink} />
      <Label x={107} y={h - 34} size={15}>{t`slot`}</Label>
      {input.test === 'heel' ? (
        <path
          d={`M${bx - lean} ${mid + span / 2}L${bx + lean} ${mid - span / 2}`}
          stroke={ink.ink}
          strokeWidth={7}
          strokeLinecap="round"
        />
      ) : (
        <path
          d={`M${bx} ${mid + span / 2}V${mid - span / 2}`}
          stroke={ink.hair}
          strokeWidth={7}
          strokeLinecap="round"
        />
      )}
      <path
        d={`M${bx} ${mid + span / 2 + 14}V${mid - span / 2 - 14}`}
        stroke={ink.hair}
        strokeDasharray="6 5"
      />
      <path
        d={`M${fx - (input.test === 'fence' ? open : 0)} ${h - 24}L${fx + (input.test === 'fence' ? open : 0)} 24h22L${fx + 22 - (input.test === 'fence' ? open : 0)} ${h - 24}Z`}
        fill={ink.wood}
        stroke={ink.ink}
        strokeWidth={1.6}
      />
      <Label x={fx + 12} y={40} size={15}>{t`fence`}</Label>
      {input.test === 'heel' &&
        [mid + span / 2 - 16, mid - span / 2 + 16].map((y, i) => (
          <g key={y}>
            <circle cx={dialX} cy={y} r={15} fill={ink.paper} stroke={ink.accent} strokeWidth={3} />
            <path
              d={`M${dialX + (dialX < bx ? 15 : -15)} ${y}H${bx + (i === 0 ? -lean : lean) * 0.8 + (dialX < bx ? -5 : 5)}`}
              stroke={ink.accent}
              strokeWidth={3}
            />
            <Label x={dialX + (dialX < bx ? -44 : 36)} y={y} size={15}>
              {i === 0 ? t`front` : t`rear`}
            </Label>
          </g>
        ))}
      {input.test === 'fence' &&
        [h - 60, 60].map((y) => (
          <path
            key={y}
            d={`M114 ${y}H${fx}M120 ${y - 5}l-6 5l6 5M${fx - 6} ${y - 5}l6 5l-6 5`}
            fill="none"
            stroke={ink.accent}
            strokeWidth={2.5}
          />
        ))}
      <path d={`M60 ${h - 60}V70M52 82l8 -12l8 12`} fill="none" stroke={ink.hair} strokeWidth={2} />
      <Label x={60} y={56} size={15}>{t`rear`}</Label>
      {result && (
        <Label x={bx} y={h - 12} size={15}>
          {t`${formatDial(Math.abs(result.figure), units)} off, drawn ${LARGER} times as large`}
        </Label>
      )}
    </svg>
  );
}
