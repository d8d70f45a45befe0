/** A season's marks as lanes of weeks, and as shares of what came out badly. */
import { t } from '@lingui/core/macro';
import type { Lane, WeekMark } from '../../drawings/SeasonChart';
import type { Share } from '../../drawings/ShareBars';
import type { DayMark } from '../../api/types';

const DAY = 86_400_000;
const atUTC = (day: string) => Date.parse(`${day}T00:00:00Z`);
const dayOf = (it: number) => new Date(it).toISOString().slice(0, 10);

/** How many weeks are worth drawing: from the first mark on, but enough to look like a season. */
export const shownOf = (marks: DayMark[], until: string, most: number) =>
  marks[0]
    ? Math.max(8, Math.min(most, Math.ceil((atUTC(until) - atUTC(marks[0].day)) / (7 * DAY) + 0.1)))
    : 8;

/** The first day of each week up to a day; the last week ends with it. */
export function weeksUpTo(until: string, n: number): string[] {
  const last = atUTC(until);
  return Array.from({ length: n }, (_, i) => dayOf(last - (7 * (n - i) - 1) * DAY));
}

export const lastDayOf = (week: string) => dayOf(atUTC(week) + 6 * DAY);

const weekOf = (day: string, weeks: string[]) => Math.floor((atUTC(day) - atUTC(weeks[0]!)) / (7 * DAY));

const none = (): WeekMark => ({ metres: 0, burnt: 0, washed: 0, sharpened: 0 });

/** A lane a blade, those that cut most first; what does not fit into so many lanes is summed up in a last one. */
export function lanesOf(marks: DayMark[], weeks: string[], most: number): Lane[] {
  const lanes = new Map<string, Lane>();
  for (const m of marks) {
    const i = weekOf(m.day, weeks);
    if (!m.blade_id || i < 0 || i >= weeks.length) continue;
    if (m.kind !== 'cut' && m.kind !== 'washed' && m.kind !== 'sharpened') continue;
    let lane = lanes.get(m.blade_id);
    if (!lane) {
      lane = { id: m.blade_id, name: m.blade_name ?? '', weeks: weeks.map(none) };
      lanes.set(m.blade_id, lane);
    }
    add(lane.weeks[i]!, m);
  }
  const total = (l: Lane) => l.weeks.reduce((all, w) => all + w.metres, 0);
  const all = [...lanes.values()].sort((a, b) => total(b) - total(a));
  if (all.length <= most) return all;
  const rest: Lane = { id: '', name: t`${all.length - most + 1} others`, weeks: weeks.map(none) };
  for (const l of all.slice(most - 1))
    l.weeks.forEach((w, i) => {
      const sum = rest.weeks[i]!;
      sum.metres += w.metres;
      sum.burnt += w.burnt;
      sum.washed += w.washed;
      sum.sharpened += w.sharpened;
    });
  return [...all.slice(0, most - 1), rest];
}

function add(w: WeekMark, m: DayMark) {
  w.metres += m.metres ?? 0;
  w.burnt += m.burnt ?? 0;
  if (m.kind === 'washed') w.washed += m.rows;
  if (m.kind === 'sharpened') w.sharpened += m.rows;
}

/** How often a blade was put on, by week. */
export function changesOf(marks: DayMark[], weeks: string[]): number[] {
  const out = weeks.map(() => 0);
  for (const m of marks) {
    const i = weekOf(m.day, weeks);
    if (m.kind === 'mounted' && i >= 0 && i < out.length) out[i]! += m.rows;
  }
  return out;
}

/** How many of the cuts in each material, or for each finish, came out badly; what was cut most first. */
export function sharesOf(
  marks: DayMark[],
  by: 'material' | 'finish',
  bad: 'burnt' | 'splintery',
  most: number,
): Share[] {
  const out = new Map<string, Share>();
  for (const m of marks) {
    if (m.kind !== 'cut' || !m[by]) continue;
    let s = out.get(m[by]);
    if (!s) {
      s = { id: m[by], name: (by === 'material' ? m.material_name : m.finish) ?? m[by], bad: 0, of: 0 };
      out.set(m[by], s);
    }
    s.bad += m[bad] ?? 0;
    s.of += m.rows;
  }
  return [...out.values()].sort((a, b) => b.of - a.of).slice(0, most);
}
