/** How a feed is told to a person: seconds for a stretch of cut, or for one stroke of a chop. */
import { t } from '@lingui/core/macro';
import type { Plan, Setting, Units } from '../api/types';
import { trim } from '../measure/format';

export interface Stretch {
  metres: number;
  name: string; // what the seconds are for
  ticks: number[]; // seconds, for a scale
}

const along: Record<Units, Stretch> = {
  mm: { metres: 0.3, name: t`300 mm`, ticks: [30, 20, 10, 5, 3] },
  in: { metres: 0.3048, name: t`a foot`, ticks: [30, 20, 10, 5, 3] },
};
const strokes = [20, 10, 5, 3, 2, 1, 0.5, 0.3];

/** What the seconds of a plan's feeds are for. */
export function stretchOf(plan: Pick<Plan, 'cut' | 'feed_length_mm'>, units: Units): Stretch {
  if (plan.cut.motion !== 'chop') return along[units];
  const metres = plan.feed_length_mm / 1000;
  const within = strokes.filter(
    (s) => (metres * 60) / s > SLOWEST * 1.15 && (metres * 60) / s < FASTEST * 0.9,
  );
  return { metres, name: t`a stroke`, ticks: within };
}

/** The ends of every scale of feeds, m/min. */
export const SLOWEST = 0.4;
export const FASTEST = 7.5;

/** The suggested feed of a setting, in seconds, as its cut is counted. */
export const secondsOf = (s: Setting, units: Units) =>
  s.sec_per_stroke ?? (units === 'mm' ? s.sec_per_300mm : s.sec_per_foot);

/** Seconds for 300 mm or a foot at a feed in m/min. */
export const secondsAt = (feed: number, units: Units) => (along[units].metres * 60) / feed;

/** `6.2 s` */
export const saidSeconds = (s: Setting, units: Units) => `${trim(secondsOf(s, units), 1)} s`;

/** Minutes where there is little room. */
export const shortMinutes = (min: number) => (min < 0.75 ? t`<1 min` : saidMinutes(min));

/** Minutes as people say them; rounded first, so that no hour has 60 of them. */
export const saidMinutes = (min: number) => {
  const whole = Math.round(min);
  if (min < 0.75) return t`under a minute`;
  return whole < 100
    ? t`${whole} min`
    : t`${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')} min`;
};
