/** A saw from above, with the places where it can be measured: fractions of the drawing, for handles to stand on. */
import { t } from '@lingui/core/macro';
import type { Saw, TruingTest } from '../api/types';
import { ink } from './ink';
import { Label } from './Label';

export const planSize = { width: 640, height: 460 };
const { width: W, height: H } = planSize;

type Spots = Partial<Record<TruingTest, readonly [number, number]>>; // px on the drawing

const table: Spots = {
  heel: [318, 112],
  runout: [318, 200],
  clearance: [318, 288],
  tilt: [236, 200],
  fence: [470, 112],
  width: [400, 288],
  gauge: [124, 330],
  depth: [236, 288],
};
const miter: Spots = {
  runout: [330, 176],
  tilt: [412, 244],
  clearance: [330, 306],
  gauge: [500, 176],
};
const circular: Spots = {
  runout: [372, 160],
  tilt: [290, 216],
  clearance: [372, 300],
  depth: [446, 260],
};

/** A thumb apart on a phone too, where the drawing is little more than half as large. */
const spots: Record<Saw['kind'], Spots> = { table, miter, circular };

/** Where a test is measured on a kind of saw, px on the drawing. */
export const spotOf = (kind: Saw['kind'], test: TruingTest) => spots[kind][test];

export function SawPlan({ saw }: { saw: Saw }) {
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      role="img"
      aria-label={t`${saw.name} from above`}
      style={{ display: 'block', width: '100%', height: 'auto' }}
    >
      {saw.kind === 'table' ? <Table /> : saw.kind === 'miter' ? <Miter saw={saw} /> : <Circular />}
    </svg>
  );
}

const line = { stroke: ink.ink, strokeWidth: 2.2, fill: 'none', strokeLinejoin: 'round' } as const;
const sheet = { stroke: ink.ink, strokeWidth: 2.2, fill: ink.sheet, strokeLinejoin: 'round' } as const;

function Table() {
  return (
    <g>
      <rect x={40} y={40} width={560} height={360} {...sheet} />
      {/* the slots, and the opening that the blade comes through */}
      {[190, 416].map((x) => (
        <rect
          key={x}
          x={x}
          y={40}
          width={18}
          height={360}
          fill={ink.hair}
          fillOpacity={0.28}
          stroke={ink.ink}
        />
      ))}
      <rect x={294} y={92} width={50} height={244} rx={10} fill="none" stroke={ink.hair} strokeWidth={1.6} />
      <path d="M318 112V316" stroke={ink.ink} strokeWidth={6} strokeLinecap="round" />
      <path d="M318 76V108" stroke={ink.ink} strokeWidth={3} />
      {/* the fence, and the rail that it is locked to */}
      <path d="M458 28H484V392H458Z" fill={ink.wood} {...{ stroke: ink.ink, strokeWidth: 2.2 }} />
      <rect x={26} y={400} width={588} height={20} {...sheet} />
      <path d="M448 392H494V428H448Z" {...sheet} />
      {/* the gauge in its slot */}
      <path d="M92 322H296V338H92Z" {...sheet} />
      <path d="M150 338a49 49 0 0 0 98 0" {...line} />
      <path d="M191 338V430H207V338" {...line} strokeWidth={1.6} />
      <Arrow />
    </g>
  );
}

function Miter({ saw }: { saw: Saw }) {
  return (
    <g>
      <path d="M60 214H600V250Q600 262 588 262H480A154 154 0 0 1 172 262H72Q60 262 60 250Z" {...sheet} />
      <circle cx={326} cy={262} r={146} {...sheet} />
      <path d="M326 116V400" stroke={ink.hair} strokeWidth={1.4} strokeDasharray="8 6" />
      {/* fence to either side, kerf plate between */}
      <path d="M60 184H304V206H60ZM350 184H600V206H350Z" fill={ink.wood} stroke={ink.ink} strokeWidth={2.2} />
      <rect x={314} y={160} width={26} height={250} rx={8} fill="none" stroke={ink.hair} strokeWidth={1.6} />
      <path d="M330 150V330" stroke={ink.ink} strokeWidth={6} strokeLinecap="round" />
      <rect x={338} y={190} width={96} height={64} rx={10} {...sheet} fillOpacity={0.8} />
      {saw.sliding && <path d="M306 150V36M356 150V36" {...line} strokeWidth={7} />}
      <path d="M300 128H362V160H300Z" {...sheet} />
      <path d="M326 408l-14 22h28Z" {...sheet} />
      {[-45, -22.5, 22.5, 45].map((deg) => {
        const a = ((90 + deg) * Math.PI) / 180;
        return (
          <path
            key={deg}
            d={`M${326 + 146 * Math.cos(a)} ${262 + 146 * Math.sin(a)}l${12 * Math.cos(a)} ${12 * Math.sin(a)}`}
            {...line}
          />
        );
      })}
      <Arrow />
    </g>
  );
}

function Circular() {
  return (
    <g>
      <rect x={170} y={90} width={290} height={300} rx={8} {...sheet} />
      <rect x={352} y={96} width={40} height={288} rx={8} fill="none" stroke={ink.hair} strokeWidth={1.6} />
      <path d="M372 116V348" stroke={ink.ink} strokeWidth={6} strokeLinecap="round" />
      <rect x={206} y={168} width={150} height={96} rx={22} {...sheet} />
      <path d="M356 216H372M236 168V264M266 168V264" {...line} strokeWidth={1.6} />
      <path d="M300 132q-60 -6 -66 40M300 132h58v36" {...line} strokeWidth={8} strokeLinecap="round" />
      {/* the rail that it is led along */}
      <path d="M486 30H512V440H486Z" fill={ink.wood} stroke={ink.ink} strokeWidth={2.2} />
      <path d="M460 216H486" {...line} strokeDasharray="5 4" />
      <Arrow />
    </g>
  );
}

/** Which way the work, or the saw, goes. */
function Arrow() {
  return (
    <g>
      <path d="M90 160V74M80 88l10 -14l10 14" fill="none" stroke={ink.hair} strokeWidth={2} />
      <Label x={92} y={180} size={22}>{t`feed`}</Label>
    </g>
  );
}
