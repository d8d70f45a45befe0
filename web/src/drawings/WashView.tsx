/** A wash from above: the tray with its blades, and what is done to them now. */
import { t } from '@lingui/core/macro';
import type { Blade } from '../api/types';
import { ink } from './ink';
import { Label } from './Label';
import { Plate } from './Plate';
import { DROP } from './signs';

/** The steps as the server names them; before them the tray stands ready. */
export type WashPicture = 'ready' | 'soak' | 'scrub' | 'flip' | 'rinse' | 'dry' | 'film';

export const washPictures = new Set<string>(['soak', 'scrub', 'flip', 'rinse', 'dry', 'film']);

interface Props {
  picture: WashPicture;
  blades: Blade[];
}

const W = 560;
const H = 400;
const TRAY = { x: 34, y: 40, w: 440, h: 324 };
const SHOWN = 4;

/** How much of the pitch is still on the blades. */
const dirt: Record<WashPicture, number> = {
  ready: 1,
  soak: 1,
  scrub: 0.6,
  flip: 0.35,
  rinse: 0.12,
  dry: 0,
  film: 0,
};

const wet = new Set<WashPicture>(['soak', 'scrub', 'flip']);

export function WashView({ picture, blades }: Props) {
  const shown = blades.slice(0, SHOWN);
  const n = Math.max(1, shown.length);
  const [cols, rows] = n === 1 ? [1, 1] : n === 2 ? [2, 1] : [2, 2];
  const cell = { w: TRAY.w / cols, h: TRAY.h / rows };
  const widest = Math.max(...shown.map((b) => b.diameter_mm), 1);
  const scale = (Math.min(cell.w, cell.h) - 30) / widest;
  const places = shown.map((b, i) => ({
    b,
    x: TRAY.x + cell.w * ((i % cols) + 0.5),
    y: TRAY.y + cell.h * (Math.floor(i / cols) + 0.5),
    r: (b.diameter_mm / 2) * scale,
  }));
  const first = places[0];
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label={`${says[picture]}: ${blades.map((b) => b.name).join(', ')}`}
      style={{ display: 'block', width: '100%', height: 'auto' }}
    >
      {picture !== 'rinse' && picture !== 'dry' && picture !== 'film' && (
        <g>
          <rect
            x={TRAY.x}
            y={TRAY.y}
            width={TRAY.w}
            height={TRAY.h}
            rx={20}
            fill={ink.sheet}
            stroke={ink.ink}
            strokeWidth={2.4}
          />
          <rect
            x={TRAY.x + 9}
            y={TRAY.y + 9}
            width={TRAY.w - 18}
            height={TRAY.h - 18}
            rx={14}
            fill="none"
            stroke={ink.hair}
          />
        </g>
      )}
      {places.map(({ b, x, y }) => (
        <g
          key={b.id}
          transform={`translate(${x} ${y}) scale(${picture === 'flip' ? -scale : scale} ${scale})`}
        >
          <Plate
            shape={b}
            scale={scale}
            pitch={dirt[picture] * Math.min(1, 0.25 + b.condition.pitch_level / 3)}
            strength={0.7}
            line={1.5}
          />
        </g>
      ))}
      {wet.has(picture) && <Liquid deep={picture === 'soak'} />}
      {picture === 'scrub' && first && <Brush {...first} />}
      {picture === 'flip' && first && <Turn {...first} />}
      {picture === 'rinse' && first && <Water {...first} />}
      {picture === 'dry' && places.map((p) => <Cloth key={p.b.id} {...p} />)}
      {picture === 'film' && places.map((p) => <Film key={p.b.id} {...p} />)}
      {(wet.has(picture) || picture === 'ready') && <Level full={picture !== 'ready'} />}
      {blades.length > SHOWN && (
        <Label x={TRAY.x + TRAY.w / 2} y={H - 12} size={20}>
          {t`and ${blades.length - SHOWN} more`}
        </Label>
      )}
    </svg>
  );
}

const says: Record<WashPicture, string> = {
  ready: t`In the tray`,
  soak: t`Covered with cleaner in the tray`,
  scrub: t`Brush the upper face from the bore outward`,
  flip: t`Turn it over and scrub the other face`,
  rinse: t`Rinse both faces under running water`,
  dry: t`Wipe gullets and bore with a cloth`,
  film: t`A thin film on plate and teeth, none where the flanges sit`,
};

/** Waves over all of it: more of them while it soaks. */
function Liquid({ deep }: { deep: boolean }) {
  const rows = deep ? 11 : 5;
  const wave = (y: number) =>
    `M${TRAY.x + 22} ${y}${Array.from({ length: 10 }, (_, i) => `q10 ${i % 2 ? 5 : -5} 20 0t20 0`).join('')}`;
  return (
    <g fill="none" stroke={ink.hair} strokeOpacity={0.75} strokeWidth={1.2}>
      {Array.from({ length: rows }, (_, i) => (
        <path key={i} d={wave(TRAY.y + (TRAY.h * (i + 0.7)) / (rows + 0.4))} />
      ))}
    </g>
  );
}

/** The cleaner's level at the side: over the plates, or still to be poured. */
function Level({ full }: { full: boolean }) {
  const x = 506;
  const [top, tall] = [TRAY.y + 30, TRAY.h - 60];
  return (
    <g>
      <rect
        x={x}
        y={top}
        width={22}
        height={tall}
        rx={11}
        fill={ink.paper}
        stroke={ink.ink}
        strokeWidth={1.8}
      />
      {full && (
        <path
          d={`M${x + 1} ${top + tall * 0.3}q5 -4 10 0t10 0V${top + tall - 12}q0 11 -10 11t-10 -11Z`}
          fill={ink.hair}
          fillOpacity={0.45}
        />
      )}
      <path d={`M${x - 8} ${top + tall * 0.46}h38`} stroke={ink.accent} strokeWidth={2} />
      <Label x={x + 11} y={top + tall + 20} size={20} within={W}>
        {full ? t`covered` : t`to here`}
      </Label>
    </g>
  );
}

interface At {
  x: number;
  y: number;
  r: number;
}

/** A brush on the rim, and the way it goes: from the bore outward. */
function Brush({ x, y, r }: At) {
  const rays = [20, 95, 150, 215, 290];
  return (
    <g>
      {rays.map((deg) => {
        const a = (deg * Math.PI) / 180;
        const from = [x + r * 0.36 * Math.cos(a), y + r * 0.36 * Math.sin(a)];
        const to = [x + r * 0.68 * Math.cos(a), y + r * 0.68 * Math.sin(a)];
        const head = (turn: number) =>
          `L${(to[0]! - 10 * Math.cos(a + turn)).toFixed(1)} ${(to[1]! - 10 * Math.sin(a + turn)).toFixed(1)}`;
        return (
          <path
            key={deg}
            d={`M${from.join(' ')}L${to.join(' ')}${head(0.5)}M${to.join(' ')}${head(-0.5)}`}
            stroke={ink.accent}
            strokeWidth={2.6}
            fill="none"
            strokeLinecap="round"
          />
        );
      })}
      <g transform={`translate(${x + r * 0.72} ${y - r * 0.62}) rotate(-40)`}>
        <path d="M-14 14v20M-6 14v22M2 14v22M10 14v22M18 14v22M26 14v20" stroke={ink.ink} strokeWidth={3} />
        <path d="M-20 -4H34V15H-20Z" fill={ink.wood} stroke={ink.ink} strokeWidth={2.2} />
        <path d="M34 0H118q12 5 0 11H34Z" fill={ink.wood} stroke={ink.ink} strokeWidth={2.2} />
      </g>
    </g>
  );
}

/** Turned over: an arrow about the blade's own width. */
function Turn({ x, y, r }: At) {
  return (
    <g fill="none" stroke={ink.accent} strokeWidth={4} strokeLinecap="round">
      <path d={`M${x - r * 0.6} ${y - r - 4}q${r * 0.6} -34 ${r * 1.2} 0`} />
      <path d={`M${x + r * 0.6 - 14} ${y - r - 14}l14 10l-2 -17`} />
      <path d={`M${x} ${y - r - 6}V${y + r + 6}`} strokeWidth={1.6} strokeDasharray="8 6" />
    </g>
  );
}

function Water({ x, y, r }: At) {
  return (
    <g>
      <path
        d={`M${x - r * 0.9} 4H${x - 10}q26 0 26 26v8h-26v-8H${x - r * 0.9}Z`}
        fill={ink.steel}
        stroke={ink.ink}
        strokeWidth={2.2}
      />
      <path
        d={[-8, 0, 8].map((d) => `M${x + 3 + d} 42q${d * 1.5} ${y - 40} ${d * 3} ${y - 46}`).join('')}
        stroke={ink.hair}
        strokeWidth={2}
        fill="none"
      />
      {[-0.6, -0.2, 0.25, 0.62].map((d) => (
        <path
          key={d}
          transform={`translate(${x + r * d} ${y + r * 0.94}) scale(1.3)`}
          d={DROP}
          fill={ink.paper}
          stroke={ink.hair}
          strokeWidth={1.6}
        />
      ))}
    </g>
  );
}

/** A folded cloth in the gullets, and warm air over it. */
function Cloth({ x, y, r }: At) {
  return (
    <g>
      <path
        transform={`translate(${x + r * 0.5} ${y - r * 0.74}) rotate(28)`}
        d="M-44 -20q22 -14 44 0t44 0l8 40q-26 14 -50 0t-54 0Z"
        fill={ink.paper}
        stroke={ink.ink}
        strokeWidth={2}
      />
      <path
        d={[-0.5, -0.15, 0.2].map((d) => `M${x + r * d} ${y + r * 0.55}q10 -12 0 -24t0 -24t0 -24`).join('')}
        fill="none"
        stroke={ink.accent}
        strokeWidth={2.4}
        strokeLinecap="round"
      />
    </g>
  );
}

/** Film as fine dots, and the ring round the bore that stays bare. */
function Film({ x, y, r }: At) {
  const dots = [];
  for (let i = 0; i < 90; i++) {
    const a = i * 2.39996; // the golden angle spreads them evenly
    const d = r * (0.38 + 0.58 * Math.sqrt(i / 90));
    dots.push(`M${(x + d * Math.cos(a)).toFixed(1)} ${(y + d * Math.sin(a)).toFixed(1)}h.01`);
  }
  return (
    <g>
      <path d={dots.join('')} stroke={ink.accent} strokeWidth={3.4} strokeLinecap="round" />
      <circle
        cx={x}
        cy={y}
        r={r * 0.33}
        fill="none"
        stroke={ink.ink}
        strokeWidth={1.8}
        strokeDasharray="6 5"
      />
      <Label x={x} y={y + r * 0.33 + 14} size={20}>{t`exposed`}</Label>
    </g>
  );
}
