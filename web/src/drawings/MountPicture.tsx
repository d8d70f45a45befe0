/** What the hands do at each step of a mounting, drawn from where the person stands. */
import { t } from '@lingui/core/macro';
import type { ReactNode } from 'react';
import type { Mounting, MountStep } from '../api/types';
import { bladePath, circle, tipsPath } from './blade';
import { ink } from './ink';
import { Label } from './Label';

interface Props {
  picture: MountStep['picture'];
  saw: Mounting['saw_kind'];
  thread: NonNullable<Mounting['thread']>;
}

const blade = { diameter_mm: 150, teeth: 24, hook_deg: 15, gullet_depth_mm: 9 };
const line = { fill: 'none', stroke: ink.ink, strokeWidth: 2 };
const bold = {
  fill: 'none',
  stroke: ink.accent,
  strokeWidth: 4,
  strokeLinejoin: 'round' as const,
  strokeLinecap: 'round' as const,
};
const steel = { fill: ink.steel, stroke: ink.ink, strokeWidth: 1.6 };

/** A blade seen from its side, turning counter-clockwise, or clockwise if it is seen from behind. */
function Disc({
  x,
  y,
  scale = 1,
  mirror = false,
}: {
  x: number;
  y: number;
  scale?: number;
  mirror?: boolean;
}) {
  return (
    <g transform={`translate(${x} ${y}) scale(${mirror ? -scale : scale} ${scale})`}>
      <path d={bladePath(blade)} {...steel} strokeWidth={1.4 / scale} />
      <path d={tipsPath(blade)} fill={ink.ink} />
      <path d={circle(9)} fill={ink.sheet} stroke={ink.ink} />
    </g>
  );
}

/** A round arrow about a point. */
function Round({
  x,
  y,
  r,
  ccw,
  from = 40,
}: {
  x: number;
  y: number;
  r: number;
  ccw: boolean;
  from?: number;
}) {
  const rad = (d: number) => (d * Math.PI) / 180;
  const p = (d: number) => [x + r * Math.cos(rad(d)), y - r * Math.sin(rad(d))] as const;
  const to = ccw ? from + 100 : from - 100;
  const [x1, y1] = p(from);
  const [x2, y2] = p(to);
  const tangent = ccw ? -to - 90 : -to + 90;
  return (
    <g {...bold}>
      <path d={`M${x1} ${y1}A${r} ${r} 0 0 ${ccw ? 0 : 1} ${x2} ${y2}`} />
      <path d="M-11 -7L0 0L-11 7" transform={`translate(${x2} ${y2}) rotate(${tangent})`} />
    </g>
  );
}

const Arrow = ({ d, tip, turn }: { d: string; tip: [number, number]; turn: number }) => (
  <g {...bold}>
    <path d={d} />
    <path d="M-11 -7L0 0L-11 7" transform={`translate(${tip[0]} ${tip[1]}) rotate(${turn})`} />
  </g>
);

const Table = ({ y = 120 }: { y?: number }) => <path d={`M20 ${y}H340`} {...line} strokeWidth={3} />;
const Nut = ({ x, y, r = 22 }: { x: number; y: number; r?: number }) => (
  <path
    d={`M${[0, 60, 120, 180, 240, 300].map((d) => `${x + r * Math.cos((d * Math.PI) / 180)} ${y + r * Math.sin((d * Math.PI) / 180)}`).join('L')}Z`}
    {...steel}
  />
);
/** A ring wrench over a nut, its handle out to the right before it is turned. */
const Wrench = ({ x, y, turn }: { x: number; y: number; turn: number }) => (
  <g transform={`translate(${x} ${y}) rotate(${turn})`}>
    <path d="M28 -9H150q9 9 0 18H28Z" {...steel} />
    <circle r={31} fill="none" stroke={ink.ink} strokeWidth={15} />
    <circle r={31} fill="none" stroke={ink.steel} strokeWidth={12} />
  </g>
);

export function MountPicture({ picture, saw, thread }: Props) {
  return (
    <svg
      width={360}
      height={210}
      viewBox="0 0 360 210"
      style={{ maxWidth: '100%', height: 'auto' }}
      aria-hidden
      focusable="false"
    >
      {pictures[picture](saw, thread)}
    </svg>
  );
}

const pictures: Record<Props['picture'], (saw: Props['saw'], thread: Props['thread']) => ReactNode> = {
  power: (saw) =>
    saw === 'circular' ? (
      <>
        <rect x={60} y={70} width={120} height={70} {...steel} rx={6} />
        <rect x={214} y={82} width={70} height={46} {...steel} rx={4} />
        <path d="M205 92v26" {...line} strokeDasharray="3 4" />
        <Arrow d="M290 105H335" tip={[336, 105]} turn={0} />
        <Label x={249} y={148}>{t`battery out`}</Label>
      </>
    ) : (
      <>
        <rect x={40} y={60} width={90} height={90} {...steel} rx={8} />
        <circle cx={70} cy={95} r={6} fill={ink.ink} />
        <circle cx={100} cy={95} r={6} fill={ink.ink} />
        <path d="M205 80h46q22 0 22 25t-22 25h-46z" {...steel} />
        <path d="M205 92h-22M205 118h-22M273 105q40 0 60 30" {...line} strokeWidth={5} />
        <Arrow d="M150 170H225" tip={[226, 170]} turn={0} />
      </>
    ),
  look: () => (
    <>
      <Disc x={150} y={108} scale={1.2} />
      <circle cx={222} cy={66} r={40} fill="none" stroke={ink.accent} strokeWidth={5} />
      <path d="M251 95L300 145" stroke={ink.accent} strokeWidth={9} strokeLinecap="round" />
    </>
  ),
  oil: () => (
    <>
      <Disc x={140} y={108} scale={1.2} />
      <path
        d="M150 85q40 -34 82 -8t60 8q10 42 -34 62t-96 -8q-24 -26 -12 -54z"
        fill={ink.wood}
        stroke={ink.ink}
        strokeWidth={1.6}
      />
      <Arrow d="M176 112q34 -22 76 4" tip={[254, 118]} turn={35} />
    </>
  ),
  numbers: () => (
    <>
      <Disc x={180} y={100} scale={1.1} />
      <g {...line} strokeWidth={1.4}>
        <path d="M97 100V196M263 100V196M97 190H263M104 186l-7 4l7 4M256 186l7 4l-7 4" />
      </g>
      <Label x={180} y={190} size={16}>{t`diameter, tip to tip`}</Label>
    </>
  ),
  'way-in': (saw) =>
    saw === 'table' ? (
      <>
        <Disc x={140} y={104} />
        <rect x={10} y={132} width={340} height={74} fill={ink.sheet} fillOpacity={0.9} />
        <path d="M20 132H66M214 132H340" {...line} strokeWidth={3} />
        <path d="M236 92L338 76V87L236 103Z" {...steel} />
        <Arrow d="M222 124q20 -14 34 -18" tip={[258, 105]} turn={-20} />
        <Label x={290} y={58}>{t`throat plate out`}</Label>
        <Arrow d="M140 196V160" tip={[140, 158]} turn={-90} />
        <Label x={196} y={182}>{t`blade up`}</Label>
      </>
    ) : saw === 'miter' ? (
      <>
        <Disc x={180} y={118} />
        <path
          d="M92 118A88 88 0 0 1 268 118L238 118A58 58 0 0 0 122 118Z"
          {...steel}
          fillOpacity={0.9}
          transform="rotate(-58 180 118)"
        />
        <rect x={152} y={104} width={44} height={28} {...steel} transform="rotate(38 196 132)" />
        <Round x={180} y={118} r={98} ccw={false} from={70} />
      </>
    ) : (
      <>
        <Disc x={180} y={100} />
        <path d="M20 120H340" {...line} strokeWidth={3} />
        <path
          d="M96 120A84 84 0 0 0 264 120L244 120A64 64 0 0 1 116 120Z"
          {...steel}
          fillOpacity={0.7}
          transform="rotate(-70 180 100)"
        />
        <Round x={180} y={100} r={98} ccw from={-80} />
        <Label x={270} y={178}>{t`pull the guard back by its lever`}</Label>
      </>
    ),
  lock: (saw) =>
    saw === 'table' ? (
      <>
        <Disc x={120} y={104} />
        <Nut x={120} y={104} />
        <Wrench x={120} y={104} turn={-12} />
        <Wrench x={120} y={104} turn={28} />
      </>
    ) : (
      <>
        <Disc x={140} y={104} />
        <rect x={255} y={82} width={60} height={44} {...steel} rx={4} />
        <Arrow d="M345 104H320" tip={[318, 104]} turn={180} />
        <Label x={285} y={146}>{t`arbor lock`}</Label>
      </>
    ),
  undo: (_, thread) => (
    <>
      <Disc x={150} y={106} scale={1.15} />
      <circle cx={150} cy={106} r={36} {...steel} />
      <Nut x={150} y={106} />
      <Wrench x={150} y={106} turn={thread === 'left' ? 20 : -20} />
      <Round x={150} y={106} r={72} ccw={thread !== 'left'} from={thread === 'left' ? 120 : 60} />
      <Label x={250} y={196} size={15}>
        {thread === 'unknown' ? t`tooth direction` : `${thread}-hand: this way off`}
      </Label>
    </>
  ),
  flange: () => (
    <>
      <path d="M60 96h120v20H60z" {...steel} />
      <path d="M180 62h14v88h-14z" {...steel} />
      <path d="M194 96h96v20h-96z" {...steel} />
      <path
        d="M200 96v20M208 96v20M216 96v20M224 96v20M232 96v20M240 96v20M248 96v20M256 96v20M264 96v20"
        stroke={ink.hair}
      />
      <path d="M206 40q38 -24 62 4q4 34 -26 40t-36 -44z" fill={ink.wood} stroke={ink.ink} />
      <Label x={120} y={178}>{t`both faces, thread and plate`}</Label>
    </>
  ),
  teeth: (saw) => (
    <>
      <Disc x={180} y={saw === 'table' ? 128 : 84} mirror={saw !== 'table'} />
      {saw === 'table' ? (
        <>
          <rect x={10} y={132} width={340} height={70} fill={ink.sheet} fillOpacity={0.85} />
          <Table y={132} />
          <Round x={180} y={128} r={92} ccw from={60} />
          <Label x={58} y={116}>{t`you`}</Label>
        </>
      ) : (
        <>
          <path d="M20 162H340" {...line} strokeWidth={3} />
          <Round x={180} y={84} r={92} ccw={false} from={saw === 'miter' ? 170 : 300} />
          <Label x={58} y={182}>
            {saw === 'miter' ? t`you` : t`front`}
          </Label>
          {saw === 'miter' && <rect x={300} y={112} width={12} height={50} {...steel} />}
        </>
      )}
    </>
  ),
  washer: () => <Stack apart />,
  nut: () => <Stack />,
  spin: () => (
    <>
      <Disc x={170} y={104} scale={1.15} />
      <Round x={170} y={104} r={100} ccw from={20} />
      <path d="M286 104h34" stroke={ink.ink} strokeWidth={3} />
      <Label x={318} y={84}>{t`one point`}</Label>
    </>
  ),
  knife: () => (
    <>
      <Disc x={150} y={128} />
      <path d="M226 190Q244 110 190 52L206 40Q268 100 252 190Z" {...steel} fill={ink.wood} />
      <rect x={10} y={140} width={340} height={66} fill={ink.sheet} fillOpacity={0.85} />
      <Table y={140} />
      <path d="M224 96l14 -4M236 86l4 12" {...line} strokeWidth={1.4} />
      <Label x={290} y={92}>{t`3 to 8 mm`}</Label>
    </>
  ),
  brake: () => (
    <>
      <Disc x={130} y={104} />
      <path d="M222 70h86v68h-86q-10 -34 0 -68z" {...steel} />
      <path d="M206 104h14M206 98v12M220 98v12" stroke={ink.accent} strokeWidth={2.5} />
      <Label x={266} y={104}>{t`cartridge`}</Label>
      <Label x={212} y={160}>{t`gap`}</Label>
    </>
  ),
  close: (saw) => (
    <>
      <Disc x={180} y={saw === 'table' ? 130 : 96} />
      {saw === 'table' && (
        <>
          <rect x={10} y={132} width={340} height={70} fill={ink.sheet} fillOpacity={0.9} />
          <Table y={132} />
        </>
      )}
      <path
        d={saw === 'table' ? 'M84 118Q100 30 200 30Q276 34 290 118Z' : 'M92 96A88 88 0 0 0 268 96Z'}
        fill={ink.wood}
        fillOpacity={0.6}
        stroke={ink.ink}
        strokeWidth={2}
      />
      <Label x={180} y={saw === 'table' ? 52 : 150}>
        {saw === 'table' ? t`guard on` : t`the guard closes on its own`}
      </Label>
    </>
  ),
  stack: () => <Stack apart />,
  clock: () => (
    <>
      <Disc x={180} y={105} scale={1.2} />
      {[0, 52, 104].map((turn) => (
        <g key={turn} transform={`translate(180 105) rotate(${turn + 7.5})`}>
          <path d="M-9 -84L-5 84L9 84L5 -84Z" {...steel} fillOpacity={0.8} />
        </g>
      ))}
    </>
  ),
  insert: () => (
    <>
      <rect x={40} y={50} width={280} height={90} rx={20} fill={ink.wood} stroke={ink.ink} strokeWidth={2} />
      <rect x={120} y={78} width={120} height={22} fill={ink.sheet} stroke={ink.accent} strokeWidth={2.5} />
      <rect x={20} y={160} width={320} height={36} {...steel} />
      <Label x={180} y={178}>{t`fence clear of the dado set`}</Label>
    </>
  ),
  test: () => (
    <>
      <rect x={150} y={40} width={60} height={130} {...steel} />
      <path d="M180 48V162" stroke={ink.ink} strokeWidth={5} />
      <path d="M172 172L150 206H210L188 172Z" fill={ink.scorch} fillOpacity={0.35} />
      <path d="M172 38L150 4H210L188 38Z" fill={ink.scorch} fillOpacity={0.35} />
      <circle cx={286} cy={150} r={16} fill="none" stroke={ink.accent} strokeWidth={4} />
      <path d="M258 186q28 -30 56 0" {...bold} />
      <Label x={286} y={112}>{t`stand here`}</Label>
      <Label x={92} y={190}>{t`not in line with the blade`}</Label>
    </>
  ),
};

/** What sits on the arbor, in its order from the saw outward. */
const stack = [
  { name: t`inner flange`, w: 16, h: 70 },
  { name: 'blade', w: 7, h: 130 },
  { name: 'washer', w: 14, h: 64 },
  { name: 'nut', w: 30, h: 48 },
];

/** The arbor from above, its parts together or apart. */
function Stack({ apart = false }: { apart?: boolean }) {
  const gap = apart ? 26 : 1;
  const left = (i: number) => 90 + stack.slice(0, i).reduce((x, p) => x + p.w + gap, 0);
  return (
    <>
      <path d="M20 90H340V110H20Z" fill={ink.steel} stroke={ink.ink} />
      {stack.map((p, i) => (
        <g key={p.name}>
          <rect
            x={left(i)}
            y={100 - p.h / 2}
            width={p.w}
            height={p.h}
            {...steel}
            fill={p.name === 'blade' ? ink.wood : ink.steel}
          />
          {apart && (
            <Label x={left(i) + p.w / 2} y={i % 2 ? 24 : 184}>
              {p.name}
            </Label>
          )}
        </g>
      ))}
      {!apart && <Wrench x={left(3) + 15} y={100} turn={-90} />}
      {apart && <Arrow d="M330 60H270" tip={[268, 60]} turn={180} />}
    </>
  );
}
