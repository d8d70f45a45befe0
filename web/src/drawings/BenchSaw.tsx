/**
 * A saw as it stands in the shop, from the front of its blade, with the blade
 * that is on it and what is due drawn where it is. Every saw of a bench is
 * drawn at one scale, and stands on the same floor; legs are broken short, as
 * on any drawing that is about something else.
 */
import { t } from '@lingui/core/macro';
import type { BenchDue, BenchSaw as Bench } from '../api/types';
import { circle } from './blade';
import { ink } from './ink';
import { Plate } from './Plate';
import { DROP, WEDGE } from './signs';

const SCALE = 0.5; // px per mm
const TOP = 168; // mm from the floor to what the saw stands on, or is
const ABOVE = 424; // mm that are drawn above that
const HALF = 300; // mm to either side

/** How high and wide every saw is drawn, px. */
export const benchSize = { width: 2 * HALF * SCALE, height: (TOP + ABOVE) * SCALE };

interface Spot {
  x: number;
  y: number;
}

/** Where blade and measured places stand, in mm from the floor's middle, y up. */
function places(b: Bench): { r: number; hub: Spot } & Record<'heel' | 'fence' | 'tilt' | 'gauge', Spot> {
  const r = (b.blade?.diameter_mm ?? b.saw.diameter_mm) / 2;
  const out = Math.min(b.saw.reach_mm, 75);
  switch (b.saw.kind) {
    case 'table': {
      const hub = { x: -20, y: TOP + out - r };
      const half = Math.sqrt(Math.max(0, r * r - (r - out) ** 2)); // of the slot, at the table
      return {
        r,
        hub,
        heel: { x: hub.x + half + 34, y: TOP + 16 },
        fence: { x: 226, y: TOP + 64 },
        tilt: { x: hub.x - half - 34, y: TOP + 16 },
        gauge: { x: -210, y: TOP + 64 },
      };
    }
    case 'miter': {
      const hub = { x: -30, y: TOP + 96 + r * 0.9 };
      return {
        r,
        hub,
        heel: hub,
        fence: { x: 120, y: TOP + 90 },
        tilt: { x: 172, y: TOP + 150 },
        gauge: { x: -196, y: TOP + 70 },
      };
    }
    case 'circular': {
      const hub = { x: 0, y: TOP + 32 + r };
      return {
        r,
        hub,
        heel: hub,
        fence: hub,
        tilt: { x: 158, y: TOP + 60 },
        gauge: { x: -158, y: TOP + 60 },
      };
    }
  }
}

const svg = (s: Spot): Spot => ({ x: s.x + HALF, y: TOP + ABOVE - s.y });

export function BenchSaw({ bench: b }: { bench: Bench }) {
  const at = places(b);
  const hub = svg(at.hub);
  const floor = TOP + ABOVE;
  const top = svg({ x: 0, y: TOP }).y;
  const spot = (d: BenchDue): Spot => {
    switch (d.place) {
      case 'heel':
      case 'fence':
      case 'tilt':
      case 'gauge':
        return svg(at[d.place]);
      case 'runout':
        return { x: hub.x + at.r * 0.72, y: hub.y - at.r * 0.72 };
      default: // of the blade itself: at its rim
        return { x: hub.x - at.r * 0.78, y: hub.y - at.r * 0.66 };
    }
  };
  return (
    <svg
      viewBox={`0 0 ${2 * HALF} ${floor}`}
      role="img"
      aria-label={t`${b.saw.name} with ${b.blade?.name ?? t`no blade`}${b.due.length > 0 ? `; ${b.due.map((d) => d.text).join('; ')}` : ''}`}
      style={{ display: 'block', width: '100%', maxWidth: benchSize.width, height: 'auto', margin: '0 auto' }}
    >
      {b.saw.kind !== 'table' && <Legs />}
      {b.saw.kind === 'circular' && <Body kind="circular" hub={hub} r={at.r} top={top} sliding={false} />}
      <OnArbor bench={b} hub={hub} r={at.r} />
      {b.saw.kind !== 'circular' && (
        <Body kind={b.saw.kind} hub={hub} r={at.r} top={top} sliding={b.saw.sliding} />
      )}
      {b.due.map((d) => (
        <DueMark key={d.place} due={d} {...spot(d)} />
      ))}
    </svg>
  );
}

/** What every saw stands on, with its legs broken short. */
function Legs() {
  const y = ABOVE;
  const leg = (x: number) =>
    `M${x} ${y + 24}V${y + 74}l14 8l-28 14l14 8V${y + TOP}M${x + 26} ${y + 24}V${y + 74}l14 8l-28 14l14 8V${y + TOP}`;
  return <path d={leg(HALF - 230) + leg(HALF + 204)} fill="none" stroke={ink.hair} strokeWidth={2} />;
}

function OnArbor({ bench: b, hub, r }: { bench: Bench; hub: Spot; r: number }) {
  return (
    <g transform={`translate(${hub.x} ${hub.y})`}>
      {b.blade ? (
        <Plate shape={b.blade} scale={SCALE} pitch={b.blade.condition.pitch_level / 3} strength={0.6} />
      ) : (
        <path d={circle(r)} fill="none" stroke={ink.hair} strokeWidth={2} strokeDasharray="8 8" />
      )}
    </g>
  );
}

interface BodyProps {
  kind: Bench['saw']['kind'];
  hub: Spot;
  r: number;
  top: number; // y of what it stands on
  sliding: boolean;
}

/** The saw round its blade: few lines, and see-through where the blade is behind them. */
function Body({ kind, hub, r, top, sliding }: BodyProps) {
  const line = { stroke: ink.ink, strokeWidth: 3, fill: 'none', strokeLinejoin: 'round' } as const;
  const sheet = { fill: ink.sheet, stroke: ink.ink, strokeWidth: 3, strokeLinejoin: 'round' } as const;
  switch (kind) {
    case 'table':
      return (
        <g>
          <path
            d={`M${HALF - 244} ${top + 22}V${top + TOP}H${HALF + 244}V${top + 22}`}
            fill={ink.sheet}
            fillOpacity={0.62}
            stroke={ink.ink}
            strokeWidth={3}
          />
          <path d={`M${HALF - 280} ${top}H${HALF + 280}V${top + 22}H${HALF - 280}Z`} {...sheet} />
          <path d={`M${hub.x - r * 0.9} ${top}H${hub.x + r * 0.98}`} stroke={ink.sheet} strokeWidth={7} />
          <path d={`M${hub.x - r * 0.9} ${top}v8M${hub.x + r * 0.98} ${top}v8`} {...line} />
          {/* the fence, seen along it, and the handwheel that sets the height */}
          <path
            d={`M${HALF + 206} ${top}v-46h40v46ZM${HALF + 218} ${top + 22}v16h52v-16`}
            {...sheet}
            fillOpacity={0.9}
          />
          <circle cx={HALF - 168} cy={top + 96} r={34} {...line} />
          <circle cx={HALF - 168} cy={top + 96} r={9} {...line} />
          <path d={`M${HALF - 168} ${top + 66}v-8M${HALF - 144} ${top + 124}l12 12`} {...line} />
        </g>
      );
    case 'miter': {
      const post = HALF + 150;
      return (
        <g>
          <path d={`M${HALF - 280} ${top}H${HALF + 280}V${top + 24}H${HALF - 280}Z`} {...sheet} />
          <path
            d={`M${HALF - 210} ${top}v-34h440v34M${HALF - 60} ${top - 34}v-10h120v10M${HALF + 86} ${top - 34}v-76h22v76`}
            {...sheet}
          />
          {/* hinge, arm and upper guard; rails behind it where it slides */}
          {sliding && (
            <path
              d={`M${post - 8} ${top - 178}H${HALF + 286}M${post - 8} ${top - 156}H${HALF + 286}`}
              {...line}
            />
          )}
          <path
            d={`M${post - 14} ${top - 34}V${top - 190}a16 16 0 0 1 32 0V${top - 34}Z`}
            {...sheet}
            fillOpacity={0.9}
          />
          <path d={`M${hub.x + 26} ${hub.y + 10}L${post} ${top - 176}`} {...line} strokeWidth={9} />
          <path d={guard(hub, r + 14, -198, 8)} {...sheet} fillOpacity={0.42} />
          <path
            d={`M${hub.x - r - 6} ${hub.y - 40}c-40 -14 -66 8 -58 34`}
            {...line}
            strokeWidth={10}
            strokeLinecap="round"
          />
          <rect x={hub.x + 8} y={hub.y - 34} width={92} height={56} rx={8} {...sheet} fillOpacity={0.92} />
        </g>
      );
    }
    case 'circular':
      return (
        <g>
          <path d={`M${HALF - 280} ${top}H${HALF + 280}V${top + 24}H${HALF - 280}Z`} {...sheet} />
          <path d={`M${HALF - 190} ${top}v-20h380v20Z`} fill={ink.wood} stroke={ink.ink} strokeWidth={2} />
          <path d={`M${HALF - 150} ${top - 20}h300v-8h-300Z`} {...sheet} />
          <path d={guard(hub, r + 12, -186, 6)} {...sheet} fillOpacity={0.42} />
          <path
            d={`M${hub.x - 34} ${hub.y - r - 8}c10 -44 96 -48 112 -6c8 24 20 42 44 52`}
            {...line}
            strokeWidth={11}
            strokeLinecap="round"
          />
        </g>
      );
  }
}

/** The upper guard: a hood round the rim, from one angle to another (degrees clockwise from the right). */
function guard({ x, y }: Spot, r: number, from: number, to: number) {
  const p = (deg: number, of: number) =>
    `${(x + of * Math.cos((deg * Math.PI) / 180)).toFixed(1)} ${(y + of * Math.sin((deg * Math.PI) / 180)).toFixed(1)}`;
  return `M${p(from, r)}A${r} ${r} 0 ${to - from > 180 ? 1 : 0} 1 ${p(to, r)}L${p(to, r - 44)}A${r - 44} ${r - 44} 0 ${to - from > 180 ? 1 : 0} 0 ${p(from, r - 44)}Z`;
}

/** What is due, at its place: a full mark for what is known, an open one for what nobody knows. */
export function DueMark({ due, x, y, r = 15 }: { due: BenchDue; x: number; y: number; r?: number }) {
  const known = ['unfit', 'out', 'dull', 'pitchy'].includes(due.reason);
  return (
    <g transform={`translate(${x} ${y})`}>
      <title>{due.text}</title>
      <circle
        r={r}
        fill={ink.paper}
        stroke={ink.ink}
        strokeWidth={3.4}
        strokeDasharray={known ? undefined : '6 5'}
      />
      {due.reason === 'pitchy' && <path d={DROP} transform="scale(1.5)" fill={ink.scorch} />}
      {due.reason === 'dull' && <path d={WEDGE} transform="scale(1.4)" fill={ink.ink} />}
      {(due.reason === 'out' || due.reason === 'unfit') && (
        <path d="M0 -9V2M0 6.500V8.500" stroke={ink.ink} strokeWidth={4.4} strokeLinecap="round" />
      )}
      {!known && due.reason !== 'bare' && (
        <path
          d="M-4 -4.500A4.600 4.600 0 1 1 1.500 1.200C0 2 0 3 0 4.500M0 8.600V9"
          fill="none"
          stroke={ink.ink}
          strokeWidth={3}
          strokeLinecap="round"
        />
      )}
    </g>
  );
}
