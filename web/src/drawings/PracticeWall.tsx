/** The wall as a push left it, face on, and under it the feed along it against the feed range. */
import { ink } from './ink';

const W = 1000;
const WALL = 130;
const GAP = 14;
const CHART = 200;
const TOP_FEED = 8; // m/min at the chart's upper edge

export const char = '#1d1712';

interface Props {
  length: number; // of the cut, mm
  wall: { feed_m_min: number[]; scorch: number[]; splinter: number[] };
  slowest: number; // m/min
  fastest: number;
  alone?: boolean; // the wall without the feed under it
}

/** Neighbouring millimetres that look alike, as one. */
export function runs(of: number[], look: (x: number) => number) {
  const out: { from: number; to: number; look: number }[] = [];
  of.forEach((x, i) => {
    const last = out[out.length - 1];
    if (last?.look === look(x)) last.to = i + 1;
    else out.push({ from: i, to: i + 1, look: look(x) });
  });
  return out;
}

/** From light brown at what the board just bears to black at twice that, in tenths. */
export const burn = (scorch: number) => Math.round(10 * Math.max(0, Math.min(1, (scorch - 0.9) / 1.1))) / 10;

export function PracticeWall({ length, wall, slowest, fastest, alone = false }: Props) {
  const tall = alone ? WALL : WALL + GAP + CHART;
  const x = (mm: number) => (W * mm) / length;
  const y = (feed: number) => WALL + GAP + CHART - (CHART * Math.min(feed, TOP_FEED)) / TOP_FEED;
  const line = wall.feed_m_min.map((f, i) => `${i ? 'L' : 'M'}${x(i + 0.5).toFixed(1)} ${y(f).toFixed(1)}`);
  const done = x(wall.scorch.length);
  return (
    <svg
      viewBox={`0 0 ${W} ${tall}`}
      width="100%"
      preserveAspectRatio="none"
      aria-hidden
      focusable="false"
      style={{ display: 'block', height: alone ? 64 : tall }}
    >
      <rect width={done} height={WALL} fill={ink.wood} />
      <path
        d={`M0 18q${done / 4} -8 ${done / 2} 2t${done / 2} -4M0 46q${done / 3} 8 ${done / 2} 0t${done / 2} 4`}
        stroke={ink.grain}
        fill="none"
      />
      {runs(wall.scorch, burn).map(
        (r) =>
          r.look > 0 && (
            <rect
              key={r.from}
              x={x(r.from)}
              width={x(r.to - r.from)}
              height={WALL}
              fill={r.look >= 0.8 ? char : ink.scorch}
              fillOpacity={0.25 + 0.6 * r.look}
            />
          ),
      )}
      {runs(wall.splinter, (s) => (s > 1 ? 1 : 0)).map(
        (r) =>
          r.look > 0 && (
            <path
              key={r.from}
              d={`M${x(r.from)} ${WALL}${Array.from({ length: Math.max(1, Math.round(x(r.to - r.from) / 14)) }, () => 'l5 -11 9 11').join('')}z`}
              fill={ink.sheet}
            />
          ),
      )}
      <rect width={W} height={WALL} fill="none" stroke={ink.ink} strokeWidth={1.5} />
      {!alone && (
        <>
          <rect
            y={y(fastest)}
            width={W}
            height={y(slowest) - y(fastest)}
            fill={ink.steel}
            fillOpacity={0.5}
          />
          <path
            d={line.join('')}
            stroke={ink.accent}
            strokeWidth={3}
            fill="none"
            vectorEffect="non-scaling-stroke"
          />
          <line y1={y(0)} y2={y(0)} x2={W} stroke={ink.ink} strokeWidth={1.5} />
        </>
      )}
    </svg>
  );
}
