import { wordOf } from './codeWords';
import { t } from '@lingui/core/macro';
import Box from '@mui/material/Box';
import type { Clearance, RunOut, TruingInput, TruingResult, Units } from '../api/types';
import { formatDial } from '../measure/format';
import { ink } from './ink';
import { Label } from './Label';

export interface TruingViewProps {
  input: TruingInput;
  result: TruingResult | undefined;
  units: Units;
  fromAbove?: boolean; // the blade comes from above the work
  compare?: TruingInput; // another session's readings, drawn beside
  next?: { round: 0 | 1; step: number; of: number }; // where the dial goes now
}

interface PolarProps extends Pick<TruingViewProps, 'input' | 'units' | 'next'> {
  runout: RunOut | undefined;
}

/** The plate's wobble round the arbor: readings, the sway that is in them, and what of it goes with what. */
export function Polar({ input, runout, units, next }: PolarProps) {
  const size = 300;
  const c = size / 2;
  const rounds = [input.first_mm ?? [], input.second_mm ?? []];
  const all = rounds.flat();
  const mean = runout?.mean_mm ?? 0;
  const most = Math.max(0.02, ...all.map((v) => Math.abs(v - mean)));
  const base = 88;
  const R = (v: number) => base + ((v - mean) / most) * 40;
  const at = (deg: number, r: number) =>
    [c + r * Math.sin((deg * Math.PI) / 180), c - r * Math.cos((deg * Math.PI) / 180)] as const;
  const first = runout?.first;
  const sway = first
    ? Array.from({ length: 73 }, (_, i) => {
        const d = i * 5;
        return at(d, R(mean + first.amplitude_mm * Math.cos(((d - first.phase_deg) * Math.PI) / 180))).join(
          ' ',
        );
      })
    : [];
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
      <svg
        width={size}
        height={size}
        viewBox={`0 0 ${size} ${size}`}
        style={{ maxWidth: '100%', height: 'auto' }}
        role="img"
        aria-label={
          runout ? t`Run-out ${formatDial(runout.spread_mm, units)}` : t`Plate with equal steps to measure`
        }
      >
        <circle cx={c} cy={c} r={base} fill={ink.steel} stroke={ink.hair} />
        <circle cx={c} cy={c} r={8} fill={ink.sheet} stroke={ink.ink} />
        {sway.length > 0 && (
          <path d={`M${sway.join('L')}Z`} fill="none" stroke={ink.scorch} strokeWidth={2.5} />
        )}
        {rounds.map((r, k) =>
          r.map((v, i) => {
            const [x, y] = at((360 * i) / Math.max(1, r.length), R(v));
            return k === 0 ? (
              <circle key={`${k}${i}`} cx={x} cy={y} r={4.5} fill={ink.ink} />
            ) : (
              <rect
                key={`${k}${i}`}
                x={x - 4}
                y={y - 4}
                width={8}
                height={8}
                fill={ink.sheet}
                stroke={ink.ink}
                strokeWidth={1.6}
              />
            );
          }),
        )}
        <path d={`M${c} ${c - 14}V${c - base + 6}`} stroke={ink.hair} strokeDasharray="3 4" />
        {next && <Dial at={at((360 * next.step) / next.of, base - 24)} />}
        <Label x={c} y={10} size={13}>{t`first place`}</Label>
      </svg>
      {runout?.arbor && runout.blade && (
        <Box component="dl" sx={{ m: 0, fontSize: 16 }}>
          <dt>{t`from the arbor`}</dt>
          <Box component="dd" sx={{ m: 0, fontSize: 24, fontWeight: 700 }}>
            {formatDial(runout.arbor.amplitude_mm, units)}
          </Box>
          <Box component="dt" sx={{ mt: 1 }}>{t`from the blade`}</Box>
          <Box component="dd" sx={{ m: 0, fontSize: 24, fontWeight: 700 }}>
            {formatDial(runout.blade.amplitude_mm, units)}
          </Box>
        </Box>
      )}
    </Box>
  );
}

interface RingProps {
  name: string;
  readings?: number[];
  other?: number[];
  slots: number[];
  found: Clearance | undefined;
  most: number; // mm from the median that is drawn farthest out
  units: Units;
  next: TruingViewProps['next'];
}

/** Where the dial's foot goes now. */
const Dial = ({ at: [x, y] }: { at: readonly [number, number] }) => (
  <circle cx={x} cy={y} r={9} fill={ink.paper} stroke={ink.accent} strokeWidth={3} />
);

/** How far readings stand from their middle, at most. */
export function farthest(readings: number[] = []): number {
  const mid = [...readings].sort((a, b) => a - b)[readings.length >> 1] ?? 0;
  return Math.max(0, ...readings.map((v) => Math.abs(v - mid)));
}

/** Side clearance of every tooth of one side round the rim, the proud ones named. */
export function Ring({ name, readings = [], other, slots, found, most, units, next }: RingProps) {
  const size = 320;
  const c = size / 2;
  const mid = found?.median_mm ?? readings[0] ?? 0;
  const base = 92;
  const R = (v: number) => base + ((v - mid) / most) * 38;
  const at = (i: number, n: number, r: number) => {
    const a = (2 * Math.PI * i) / n;
    return [c + r * Math.sin(a), c - r * Math.cos(a)] as const;
  };
  const ring = (all: number[]) =>
    all
      .map((v, i) =>
        at(i, all.length, R(v))
          .map((x) => x.toFixed(1))
          .join(' '),
      )
      .join('L');
  const bars = readings.map(
    (v, i) =>
      `M${at(i, readings.length, base)
        .map((x) => x.toFixed(1))
        .join(' ')}L${at(i, readings.length, R(v))
        .map((x) => x.toFixed(1))
        .join(' ')}`,
  );
  const proud = new Set(found?.proud ?? []);
  return (
    <svg
      width={size}
      height={size}
      viewBox={`0 0 ${size} ${size}`}
      style={{ flex: '1 1 260px', minWidth: 0, maxWidth: size, height: 'auto' }}
      role="img"
      aria-label={[
        t`${name}: ${readings.length} teeth`,
        found && t`${wordOf(found.grade)}, ${proud.size} sticking out`,
      ]
        .filter(Boolean)
        .join(', ')}
    >
      <circle cx={c} cy={c} r={base} fill={ink.steel} fillOpacity={0.6} stroke={ink.hair} />
      {slots.map((i) => {
        const [x1, y1] = at(i, readings.length, base - 26);
        const [x2, y2] = at(i, readings.length, base - 8);
        return <path key={i} d={`M${x1} ${y1}L${x2} ${y2}`} stroke={ink.hair} strokeWidth={5} />;
      })}
      {other && other.length > 2 && (
        <path
          d={`M${ring(other)}Z`}
          fill="none"
          stroke={ink.scorch}
          strokeWidth={1.6}
          strokeDasharray="4 3"
        />
      )}
      <path
        d={bars.filter((_, i) => !proud.has(i)).join('')}
        stroke={ink.ink}
        strokeWidth={2.4}
        fill="none"
      />
      <path
        d={bars.filter((_, i) => proud.has(i)).join('')}
        stroke={ink.accent}
        strokeWidth={5}
        fill="none"
      />
      {[...proud].map((i) => {
        const [x, y] = at(i, readings.length, base + 54);
        return (
          <Label key={i} x={x} y={y} size={14}>
            {String(i + 1)}
          </Label>
        );
      })}
      <Label x={c} y={c - 8} size={15}>
        {name}
      </Label>
      {found && (
        <Label
          x={c}
          y={c + 14}
          size={14}
        >{`${formatDial(found.range_mm, units)}, ${wordOf(found.grade)}`}</Label>
      )}
      <path d={`M${c} ${c - base - 44}v14`} stroke={ink.hair} />
      {next && <Dial at={at(next.step, next.of, base - 16)} />}
    </svg>
  );
}
