/** What a session found, larger than life: blade, slot and fence from above; the plate's wobble; the teeth round the rim. */
import Box from '@mui/material/Box';
import type { Clearance, RunOut, TruingInput, TruingResult, Units } from '../api/types';
import { formatDial } from '../measure/format';
import { ink } from './ink';
import { Label } from './Label';

interface Props {
  input: TruingInput;
  result: TruingResult | undefined;
  units: Units;
  fromAbove?: boolean; // the blade comes from above the work
  compare?: TruingInput; // another session's readings, drawn beside
  next?: { round: 0 | 1; step: number; of: number }; // where the dial goes now
}

export function TruingView({ input, result, units, fromAbove, compare, next }: Props) {
  switch (input.test) {
    case 'heel':
    case 'fence':
      return <Plan input={input} result={result} units={units} />;
    case 'runout':
      return <Polar input={input} runout={result?.runout} units={units} next={next} />;
    case 'clearance': {
      const sides = [
        { name: 'Left side', readings: input.first_mm, other: compare?.first_mm, found: result?.left },
        { name: 'Right side', readings: input.second_mm, other: compare?.second_mm, found: result?.right },
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

function Plan({ input, result, units }: Omit<Props, 'compare' | 'next' | 'fromAbove'>) {
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
      aria-label={result ? result.says.join(' ') : 'Where the dial goes: in the slot, at front and rear'}
    >
      <rect x={20} y={20} width={w - 40} height={h - 40} fill={ink.sheet} stroke={ink.ink} strokeWidth={2} />
      <rect x={100} y={20} width={14} height={h - 40} fill={ink.hair} fillOpacity={0.3} stroke={ink.ink} />
      <rect x={244} y={20} width={14} height={h - 40} fill={ink.hair} fillOpacity={0.3} stroke={ink.ink} />
      <Label x={107} y={h - 34} size={12}>
        slot
      </Label>
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
      <Label x={fx + 12} y={40} size={13}>
        fence
      </Label>
      {input.test === 'heel' &&
        [mid + span / 2 - 16, mid - span / 2 + 16].map((y, i) => (
          <g key={y}>
            <circle cx={dialX} cy={y} r={15} fill={ink.paper} stroke={ink.accent} strokeWidth={3} />
            <path
              d={`M${dialX + (dialX < bx ? 15 : -15)} ${y}H${bx + (i === 0 ? -lean : lean) * 0.8 + (dialX < bx ? -5 : 5)}`}
              stroke={ink.accent}
              strokeWidth={3}
            />
            <Label x={dialX + (dialX < bx ? -44 : 36)} y={y} size={13}>
              {i === 0 ? 'front' : 'rear'}
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
      <Label x={60} y={56} size={12}>
        rear
      </Label>
      {result && (
        <Label x={bx} y={h - 12} size={14}>
          {`${formatDial(Math.abs(result.figure), units)} out, drawn ${LARGER} times`}
        </Label>
      )}
    </svg>
  );
}

interface PolarProps extends Pick<Props, 'input' | 'units' | 'next'> {
  runout: RunOut | undefined;
}

/** The plate's wobble round the arbor: readings, the sway that is in them, and what of it goes with what. */
function Polar({ input, runout, units, next }: PolarProps) {
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
          runout
            ? `Run-out ${formatDial(runout.spread_mm, units)} from least to most`
            : 'The plate, to be read at equal steps round'
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
        <Label x={c} y={10} size={13}>
          first place
        </Label>
      </svg>
      {runout?.arbor && runout.blade && (
        <Box component="dl" sx={{ m: 0, fontSize: 16 }}>
          <dt>stays with the arbor</dt>
          <Box component="dd" sx={{ m: 0, fontSize: 24, fontWeight: 700 }}>
            {formatDial(runout.arbor.amplitude_mm, units)}
          </Box>
          <Box component="dt" sx={{ mt: 1 }}>
            travels with the blade
          </Box>
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
  next: Props['next'];
}

/** Where the dial's foot goes now. */
const Dial = ({ at: [x, y] }: { at: readonly [number, number] }) => (
  <circle cx={x} cy={y} r={9} fill={ink.paper} stroke={ink.accent} strokeWidth={3} />
);

/** How far readings stand from their middle, at most. */
function farthest(readings: number[] = []): number {
  const mid = [...readings].sort((a, b) => a - b)[readings.length >> 1] ?? 0;
  return Math.max(0, ...readings.map((v) => Math.abs(v - mid)));
}

/** Side clearance of every tooth of one side round the rim, the proud ones named. */
function Ring({ name, readings = [], other, slots, found, most, units, next }: RingProps) {
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
      aria-label={`${name}: ${readings.length} teeth${found ? `, ${found.grade}, ${proud.size} standing out` : ''}`}
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
        <Label x={c} y={c + 14} size={14}>{`${formatDial(found.range_mm, units)}, ${found.grade}`}</Label>
      )}
      <path d={`M${c} ${c - base - 44}v14`} stroke={ink.hair} />
      {next && <Dial at={at(next.step, next.of, base - 16)} />}
    </svg>
  );
}

function TiltView({ deg, top }: { deg: number; top: boolean }) {
  const gap = Math.max(-14, Math.min(14, deg * 60));
  const g = top ? [Math.abs(gap), 0] : [0, Math.abs(gap)];
  return (
    <svg
      width={360}
      height={200}
      viewBox="0 0 360 200"
      style={{ maxWidth: '100%', height: 'auto' }}
      role="img"
      aria-label="Two halves of the board, one flipped, butted: the gap shows twice the error"
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
      <Label x={180} y={22} size={14}>
        gap, twice the error
      </Label>
    </svg>
  );
}

function GaugeView({ figure }: { figure: number }) {
  const lean = Math.max(-18, Math.min(18, figure * 120));
  return (
    <svg
      width={360}
      height={200}
      viewBox="0 0 360 200"
      style={{ maxWidth: '100%', height: 'auto' }}
      role="img"
      aria-label="The fifth strip: its two ends tell the gauge's error"
    >
      <path d={`M40 ${80 - lean / 2}H320V${130}H40Z`} fill={ink.wood} stroke={ink.ink} strokeWidth={1.8} />
      <path d={`M40 ${80 - lean / 2}L320 ${80 + lean / 2}`} stroke={ink.accent} strokeWidth={3} />
      <Label x={60} y={154} size={14}>
        cut first
      </Label>
      <Label x={300} y={154} size={14}>
        cut last
      </Label>
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
function WidthView({ over }: { over: number }) {
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
          ? 'The test piece between blade and fence; measure its width with a caliper'
          : `The piece is too ${over > 0 ? 'wide' : 'narrow'}: the fence goes ${over > 0 ? 'toward' : 'away from'} the blade`
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
      <Label x={(blade + now) / 2} y={100} size={14}>
        measured
      </Label>
      {over !== 0 && (
        <path d={arrow(now, wanted, low + 12)} fill="none" stroke={ink.accent} strokeWidth={3} />
      )}
      <Label x={blade - 5} y={18} size={13}>
        blade
      </Label>
      <Label x={now + 13} y={18} size={13}>
        fence
      </Label>
      <Label x={wanted} y={190} size={13}>
        wanted
      </Label>
    </svg>
  );
}

/** The test groove, and how deep it was to be. */
function DepthView({ over, fromAbove }: { over: number; fromAbove: boolean }) {
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
          ? 'The test groove from its end; measure its depth'
          : `The groove is too ${over > 0 ? 'deep' : 'shallow'}`
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
      <Label x={262} y={wanted} size={13}>
        wanted
      </Label>
      <path d={`M175 ${face}V${now}`} stroke={ink.ink} strokeWidth={1.4} />
      <Label x={175} y={face - inward * 16} size={13}>
        measured
      </Label>
    </svg>
  );
}
