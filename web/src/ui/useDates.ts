/** Dates and times as the shop's own clock has them, whoever looks and wherever the browser stands. */
import { useMemo } from 'react';
import { useShop } from '../api/shop';
import { locale } from '../measure/format';

type Words = Record<
  'day' | 'short' | 'moment' | 'weekday' | 'time' | 'longDay',
  (at: string | number) => string
> & {
  date: (date: string) => string; // of a calendar date, which has no zone
  shortDate: (date: string) => string; // the same, without its year
  weekdayOf: (date: string) => string; // the same, as Tue 24
  today: (now: number) => string; // as a calendar date
};

const on = { day: 'numeric', month: 'short' } as const;
const hours = { hour: '2-digit', minute: '2-digit' } as const;

export function useDates(): Words {
  const timeZone = useShop().data?.time_zone;
  return useMemo(() => {
    const as = (o: Intl.DateTimeFormatOptions) => {
      const f = new Intl.DateTimeFormat(locale(), { timeZone, ...o });
      return (at: string | number) => f.format(new Date(at));
    };
    const iso = new Intl.DateTimeFormat('sv-SE', { timeZone });
    return {
      day: as({ ...on, year: 'numeric' }),
      short: as(on),
      time: as(hours),
      longDay: as({ weekday: 'long', ...on, year: 'numeric' }),
      moment: as({ ...on, year: 'numeric', ...hours }),
      weekday: as({ weekday: 'short', ...hours }),
      date: as({ ...on, year: 'numeric', timeZone: 'UTC' }),
      shortDate: as({ ...on, timeZone: 'UTC' }),
      weekdayOf: as({ weekday: 'short', day: 'numeric', timeZone: 'UTC' }),
      today: (now) => iso.format(now),
    };
  }, [timeZone]);
}

/** Where this browser stands, such as Europe/Vienna. */
export const hereabouts = () => new Intl.DateTimeFormat().resolvedOptions().timeZone;
