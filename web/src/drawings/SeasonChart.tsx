/**
 * A season of the log: weeks along, a lane a blade, the metres of each week as
 * a bar, burns as brown dots, washes as drops, sharpenings as wedges, and under
 * all how often blades were changed. A stroke across it chooses weeks.
 */
import { useRef, useState, type PointerEvent } from 'react';
import { ink } from './ink';
import { DROP, WEDGE } from './signs';

export interface WeekMark {
  metres: number;
  burnt: number;
  washed: number;
  sharpened: number;
}

export interface Lane {
  id: string;
  name: string;
  weeks: WeekMark[];
}

interface Props {
  lanes: Lane[];
  changes: number[]; // blades put on, by week
  starts: string[]; // of each week, as it is written under it; empty where there is no room for it
  lane: number; // px high
  width: number; // px
  chosen: readonly [number, number] | undefined; // first and last week
  onChoose: (from: number, until: number) => void;
}

const FOOT = 64; // px for the changes and the weeks' names

export const seasonHeight = (lanes: number, lane: number) => lanes * lane + FOOT;

export function SeasonChart({ lanes, changes, starts, lane, width, chosen, onChoose }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [from, setFrom] = useState<number>();
  const [to, setTo] = useState<number>();
  const n = starts.length;
  const week = width / n;
  const height = seasonHeight(lanes.length, lane);
  const most = Math.max(1, ...lanes.flatMap((l) => l.weeks.map((w) => w.metres)));
  const mostChanges = Math.max(1, ...changes);
  const at = (e: PointerEvent) => {
    const x = e.clientX - svg.current!.getBoundingClientRect().left;
    return Math.max(0, Math.min(n - 1, Math.floor(x / week)));
  };
  const shown =
    from !== undefined && to !== undefined ? ([Math.min(from, to), Math.max(from, to)] as const) : chosen;
  const foot = lanes.length * lane;
  return (
    <svg
      ref={svg}
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      aria-hidden
      focusable="false"
      style={{ display: 'block', touchAction: 'pan-y', cursor: 'crosshair' }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setFrom(at(e));
        setTo(at(e));
      }}
      onPointerMove={(e) => from !== undefined && setTo(at(e))}
      onPointerUp={() => {
        if (shown && from !== undefined) onChoose(shown[0], shown[1]);
        setFrom(undefined);
        setTo(undefined);
      }}
      onPointerCancel={() => {
        setFrom(undefined);
        setTo(undefined);
      }}
    >
      {shown && (
        <rect
          x={shown[0] * week}
          width={(shown[1] - shown[0] + 1) * week}
          height={height - 22}
          fill={ink.accent}
          fillOpacity={0.14}
          stroke={ink.accent}
          strokeWidth={1.5}
        />
      )}
      {starts.map((name, i) => (
        <g key={i}>
          <path d={`M${i * week} 0V${height - 20}`} stroke={ink.hair} strokeOpacity={name ? 0.6 : 0.2} />
          {name && (
            <text x={i * week + 2} y={height - 6} fontSize={13} fill={ink.mark}>
              {name}
            </text>
          )}
        </g>
      ))}
      {lanes.map((l, k) => (
        <g key={l.id} transform={`translate(0 ${k * lane})`}>
          <path d={`M0 ${lane - 0.5}H${width}`} stroke={ink.hair} strokeOpacity={0.5} />
          {l.weeks.map((w, i) => {
            const tall = (lane - 8) * Math.sqrt(w.metres / most); // the square root, so that a short week is seen beside a long one
            const x = i * week;
            return (
              <g key={i}>
                {w.metres > 0 && (
                  <rect
                    x={x + week * 0.14}
                    width={week * 0.56}
                    y={lane - 1 - Math.max(2, tall)}
                    height={Math.max(2, tall)}
                    fill={ink.ink}
                  />
                )}
                {w.burnt > 0 && (
                  <circle
                    cx={x + week * 0.84}
                    cy={lane - 7}
                    r={Math.min(4.6, week * 0.2, 2 + w.burnt)}
                    fill={ink.scorch}
                  />
                )}
                {w.washed > 0 && (
                  <path
                    transform={`translate(${x + week * 0.84} ${lane * 0.36}) scale(0.85)`}
                    d={DROP}
                    fill={ink.paper}
                    stroke={ink.ink}
                    strokeWidth={1.4}
                  />
                )}
                {w.sharpened > 0 && (
                  <path
                    transform={`translate(${x + week * 0.42} 7) scale(0.85)`}
                    d={WEDGE}
                    fill={ink.ink}
                    stroke={ink.sheet}
                    strokeWidth={1.2}
                  />
                )}
              </g>
            );
          })}
        </g>
      ))}
      {changes.map(
        (c, i) =>
          c > 0 && (
            <g key={i}>
              <rect
                x={i * week + week * 0.3}
                width={week * 0.3}
                y={foot + 38 - (22 * c) / mostChanges}
                height={(22 * c) / mostChanges}
                fill="none"
                stroke={ink.ink}
              />
            </g>
          ),
      )}
      <path d={`M0 ${foot + 38.5}H${width}`} stroke={ink.ink} />
    </svg>
  );
}
