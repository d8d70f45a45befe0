/**
 * A run sheet as a score: a staff a saw, time along, a box a cut as long as it
 * takes, hatched by the teeth of its blade; a bar line with the blade's name
 * where one is put on; stages as dashed lines through all staves; dots where one
 * of two people waits.
 */
import { t } from '@lingui/core/macro';
import type { RunCut, RunPass, RunSheet, RunTurn } from '../api/types';
import { ink } from './ink';
import { widthOf } from './Label';
import { DROP, WEDGE } from './signs';

export interface ScoreRow {
  name: string;
  pieces: number;
  made: number;
}

interface Props {
  sheet: RunSheet;
  ghost: RunSheet | undefined; // the plan that was, beneath
  rows: Map<string, ScoreRow>;
  stages: Record<RunTurn['stage'], string>;
  width: number; // px
  chosen: string | undefined; // a row
  onChoose: (row: string) => void;
}

const HEAD = 26; // px for the names of stages
const STAFF = 104;
const BOX = 38; // px high
const TOP = 40; // of a box, beneath the names of blades
const FOOT = 30; // px for the clock
const SMALL = 12.5;

export const scoreHeight = (saws: number) => HEAD + saws * STAFF + FOOT;

/** The saws of a sheet in the order in which they are first used. */
export const sawsOf = (sheet: RunSheet) => [...new Map(sheet.turns.map((u) => [u.saw_id, u.saw_name]))];

export function Score({ sheet, ghost, rows, stages, width, chosen, onChoose }: Props) {
  const saws = sawsOf(sheet);
  const end = Math.max(sheet.end_min, ghost?.end_min ?? 0, 1);
  const scale = (width - 16) / end;
  const X = (min: number) => 8 + min * scale;
  const Y = (saw: string) => HEAD + saws.findIndex(([id]) => id === saw) * STAFF;
  const height = scoreHeight(saws.length);
  const starts = stageStarts(sheet);
  const names = bladeNames(sheet, X, width);
  return (
    <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} style={{ display: 'block' }}>
      <defs>
        {[...new Set(sheet.turns.map((u) => u.teeth))].map((teeth) => (
          <pattern
            key={teeth}
            id={`teeth${teeth}`}
            width={pitch(teeth)}
            height={8}
            patternUnits="userSpaceOnUse"
            patternTransform="skewX(-28)"
          >
            <path d="M0.500 0V8" stroke={ink.hair} strokeWidth={1} />
          </pattern>
        ))}
      </defs>
      {saws.map(([id, name]) => (
        <g key={id}>
          {[0, 1, 2].map((i) => (
            <path
              key={i}
              d={`M0 ${Y(id) + TOP + (i * BOX) / 2}H${width}`}
              stroke={ink.hair}
              strokeOpacity={0.5}
              strokeWidth={1}
            />
          ))}
          <text x={2} y={Y(id) + TOP + BOX + 17} fontSize={SMALL} fontWeight={650} fill={ink.mark}>
            {name}
          </text>
        </g>
      ))}
      {starts.map(([stage, min], i) => {
        const room = X(starts[i + 1]?.[1] ?? end) - X(min);
        return (
          <g key={stage}>
            {i > 0 && (
              <path
                d={`M${X(min)} 4V${height - FOOT + 6}`}
                stroke={ink.ink}
                strokeWidth={1.2}
                strokeDasharray="2 5"
              />
            )}
            {widthOf(stages[stage], SMALL) < room && (
              <text x={X(min) + 6} y={15} fontSize={SMALL} fill={ink.mark}>
                {stages[stage]}
              </text>
            )}
          </g>
        );
      })}
      {ghost?.turns.map(
        (u) =>
          saws.some(([id]) => id === u.saw_id) &&
          u.cuts.map((c) => (
            <rect
              key={c.row_id}
              x={X(c.begin_min)}
              y={Y(u.saw_id) + TOP + 6}
              width={Math.max(2, c.minutes * scale - 1)}
              height={BOX}
              fill="none"
              stroke={ink.hair}
              strokeDasharray="3 3"
            />
          )),
      )}
      {sheet.turns.map((u, i) => (
        <g key={i}>
          <path
            d={`M${X(u.begin_min)} ${Y(u.saw_id) + TOP - 12}v${BOX + 20}`}
            stroke={ink.ink}
            strokeWidth={u.changed ? 5 : 1.5}
          />
          {u.changed && (
            <path
              d={`M${X(u.begin_min)} ${Y(u.saw_id) + TOP + BOX / 2}H${X(u.cuts_from_min)}`}
              stroke={ink.ink}
              strokeWidth={2}
              strokeDasharray="2 3"
            />
          )}
          {u.wash && (
            <Wash x={X(u.begin_min)} y={Y(u.saw_id) + TOP} width={X(u.cuts_from_min) - X(u.begin_min)} />
          )}
          {names[i] !== undefined && (
            <text
              x={names[i].x}
              y={Y(u.saw_id) + TOP - 16 - names[i].level * 14}
              fontSize={SMALL}
              fontWeight={u.changed ? 700 : 500}
              fill={ink.ink}
              stroke={ink.sheet}
              strokeWidth={3}
              paintOrder="stroke"
            >
              {sheet.people > 1 ? `${u.person + 1} · ${u.blade_name}` : u.blade_name}
            </text>
          )}
          {u.cuts.map((c) => (
            <Box
              key={c.row_id}
              cut={c}
              row={rows.get(c.row_id)}
              teeth={u.teeth}
              x={X(c.begin_min)}
              y={Y(u.saw_id) + TOP}
              width={Math.max(3, c.minutes * scale - 1)}
              chosen={c.row_id === chosen}
              onChoose={() => onChoose(c.row_id)}
            />
          ))}
        </g>
      ))}
      {waits(sheet).map(([u, until]) => (
        <path
          key={`${u.saw_id} ${u.end_min}`}
          d={`M${X(u.end_min) + 3} ${Y(u.saw_id) + TOP + BOX / 2}H${X(until) - 3}`}
          stroke={ink.hair}
          strokeWidth={6}
          strokeDasharray="1.5 9"
        />
      ))}
      {sheet.passes.map(
        (p, i) => !p.wash && p.swap_to === undefined && <Pass key={i} pass={p} sheet={sheet} X={X} Y={Y} />,
      )}
      <Clock end={sheet.end_min} X={X} y={height - FOOT + 8} width={width} />
    </svg>
  );
}

/** How far apart the strokes of a hatch stand: the coarser the blade, the wider. */
const pitch = (teeth: number) => Math.max(4, Math.min(22, 360 / Math.max(12, teeth)));

function Box(p: {
  cut: RunCut;
  row: ScoreRow | undefined;
  teeth: number;
  x: number;
  y: number;
  width: number;
  chosen: boolean;
  onChoose: () => void;
}) {
  const { cut, row } = p;
  const made = row ? Math.min(1, Math.max(0, row.made - cut.after) / Math.max(1, cut.pieces)) : 0;
  const text = row ? `${cut.pieces} × ${row.name}` : '';
  const fits = widthOf(text, SMALL) + 10 < p.width;
  return (
    <g onClick={p.onChoose} style={{ cursor: 'pointer' }}>
      <rect x={p.x} y={p.y} width={p.width} height={BOX} fill={ink.paper} />
      <rect x={p.x} y={p.y} width={p.width} height={BOX} fill={`url(#teeth${p.teeth})`} fillOpacity={0.55} />
      {cut.burn > 0.1 && (
        <rect
          x={p.x}
          y={p.y + BOX - 5}
          width={p.width}
          height={5}
          fill={ink.scorch}
          fillOpacity={0.35 + cut.burn}
        />
      )}
      {made > 0 && <rect x={p.x} y={p.y} width={p.width * made} height={7} fill={ink.ink} />}
      <rect
        x={p.x}
        y={p.y}
        width={p.width}
        height={BOX}
        fill="none"
        stroke={p.chosen ? ink.accent : ink.ink}
        strokeWidth={p.chosen ? 3.5 : 1.4}
      />
      {fits && (
        <text
          x={p.x + 6}
          y={p.y + BOX / 2 + 5}
          fontSize={SMALL}
          fontWeight={600}
          fill={ink.ink}
          stroke={ink.paper}
          strokeWidth={4}
          paintOrder="stroke"
        >
          {text}
        </text>
      )}
    </g>
  );
}

/** A wash in the middle of the work: a tray as long as it takes, with a drop in it. */
function Wash({ x, y, width }: { x: number; y: number; width: number }) {
  return (
    <g>
      <path
        d={`M${x + 2} ${y + 6}V${y + BOX}H${x + Math.max(4, width) - 2}V${y + 6}`}
        fill="none"
        stroke={ink.ink}
        strokeWidth={2}
      />
      <path
        d={`M${x + 2} ${y + BOX / 2}H${x + Math.max(4, width) - 2}`}
        stroke={ink.hair}
        strokeWidth={1.5}
      />
      <g transform={`translate(${x + width / 2} ${y + BOX * 0.72})`}>
        <path d={DROP} fill={ink.ink} stroke={ink.ink} strokeWidth={1} />
      </g>
    </g>
  );
}

/** Where a blade gets pitchy (a drop) or dull (a wedge), and going on takes least. */
function Pass({
  pass: p,
  sheet,
  X,
  Y,
}: {
  pass: RunPass;
  sheet: RunSheet;
  X: (min: number) => number;
  Y: (saw: string) => number;
}) {
  const parts = sheet.turns.flatMap((turn) =>
    turn.cuts.filter((cut) => cut.row_id === p.row_id).map((cut) => ({ turn, cut })),
  );
  const at = (parts[0]?.cut.after ?? 0) + p.pieces; // of the whole row
  const part = parts.find(({ cut }) => at < cut.after + cut.pieces);
  if (!part) return null;
  const { turn, cut } = part;
  const x = X(cut.begin_min + (cut.minutes * (at - cut.after)) / Math.max(1, cut.pieces));
  return (
    <g transform={`translate(${x} ${Y(turn.saw_id) + TOP + BOX + 12})`}>
      <path d={p.what === 'pitchy' ? DROP : WEDGE} fill={ink.paper} stroke={ink.ink} strokeWidth={1.5} />
    </g>
  );
}

/** Minutes along the foot, in steps that leave them room. */
function Clock({ end, X, y, width }: { end: number; X: (min: number) => number; y: number; width: number }) {
  const step = [5, 10, 15, 30, 60, 120, 240, 480].find((s) => X(s) - X(0) > 46) ?? 960;
  const ticks = Array.from({ length: Math.floor(end / step) + 1 }, (_, i) => i * step);
  return (
    <g fontSize={12} fill={ink.mark} stroke={ink.hair}>
      <path d={`M${X(0)} ${y}H${X(end)}`} />
      {ticks.map((m) => (
        <g key={m}>
          <path d={`M${X(m)} ${y}v5`} />
          <text
            x={Math.min(X(m), width - 26)}
            y={y + 18}
            textAnchor={m === 0 ? 'start' : 'middle'}
            stroke="none"
          >
            {m >= 60
              ? `${Math.floor(m / 60)}:${String(m % 60).padStart(2, '0')}`
              : m === 0
                ? t`0 min`
                : String(m)}
          </text>
        </g>
      ))}
    </g>
  );
}

/** Where one of two is done before the stage is over, and until when he waits. */
function waits(sheet: RunSheet): [RunTurn, number][] {
  if (sheet.people < 2) return [];
  const out: [RunTurn, number][] = [];
  for (const stage of new Set(sheet.turns.map((u) => u.stage))) {
    const turns = sheet.turns.filter((u) => u.stage === stage);
    const over = Math.max(...turns.map((u) => u.end_min));
    for (let person = 0; person < sheet.people; person++) {
      const last = turns.filter((u) => u.person === person).sort((a, b) => b.end_min - a.end_min)[0];
      if (last && over - last.end_min > 0.5) out.push([last, over]);
    }
  }
  return out;
}

function stageStarts(sheet: RunSheet) {
  const out: [RunTurn['stage'], number][] = [];
  for (const u of sheet.turns) {
    const last = out.at(-1);
    if (last?.[0] !== u.stage) out.push([u.stage, u.begin_min]);
    else if (last) last[1] = Math.min(last[1], u.begin_min);
  }
  return out;
}

/** Where the names of blades stand, so that none lies over another; undefined where there is no room. */
function bladeNames(sheet: RunSheet, X: (min: number) => number, width: number) {
  const until = new Map<string, number[]>(); // by saw, where each level is free from
  return sheet.turns.map((u) => {
    const w = widthOf(sheet.people > 1 ? `0 · ${u.blade_name}` : u.blade_name, SMALL) + 8;
    const x = Math.min(X(u.begin_min) + 5, width - w);
    const free = until.get(u.saw_id) ?? [0, 0];
    until.set(u.saw_id, free);
    const level = free.findIndex((from) => from <= x);
    if (level < 0) return undefined;
    free[level] = x + w;
    return { x, level };
  });
}
