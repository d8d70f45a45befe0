/** How long a wash's step has to go, by the server's clock, wherever this tablet's stands. */
import { t } from '@lingui/core/macro';
import type { TimedWash } from '../api/queue';

export interface Countdown {
  text: string; // minutes and seconds to go, or over; empty where the step has no time
  rings: boolean;
  says: string;
  share: number; // of the time that is over; 0 where the step has none
}

export function countdown(w: TimedWash, now: number): Countdown {
  const step = w.steps[w.step];
  if (!step) return { text: '', rings: false, says: '', share: 0 };
  const gone = (now + w.ahead - new Date(w.step_at).getTime()) / 1000;
  if (step.most_s > 0 && gone >= step.most_s)
    return {
      text: t`${clock(gone - step.most_s)} over`,
      rings: true,
      says: t`Now. Don't let it dry on.`,
      share: 1,
    };
  if (step.least_s > 0 && gone >= step.least_s)
    return { text: t`done`, rings: true, says: t`Long enough.`, share: 1 };
  if (step.least_s > 0)
    return { text: clock(step.least_s - gone), rings: false, says: t`to go`, share: gone / step.least_s };
  return { text: '', rings: false, says: t`Done when it looks clean.`, share: 0 };
}

function clock(seconds: number) {
  const s = Math.max(0, Math.ceil(seconds));
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}
