/** A hand that pushes a board: by pointer, wheel or keys, seen at every frame. What it does is told; what that makes is not known here. */
import { useCallback, useEffect, useRef, useState } from 'react';

/** From where the board begins, before the blade. */
export const BEFORE = 60; // mm

const BEYOND = 5; // mm past the end of the cut, where the push is over
const KEY_FEED = 3; // m/min that a held key comes to
const KEY_RISE = 6; // m/min more in a second
const MOST = 19_000; // frames that are told

export interface Push {
  ms: number[];
  mm: number[];
}

interface Hand {
  mm: number; // of the front edge past the blade
  feed: number; // m/min, over the last tenth of a second
  pushing: boolean;
  grasp: () => void;
  move: (by: number) => void; // mm
  key: (down: boolean) => void;
  letGo: () => void;
  anew: () => void;
}

/** One push over a board that is so long, told when it is over. */
export function useHand(length: number, onOver: (push: Push) => void): Hand {
  const [seen, setSeen] = useState({ mm: -BEFORE, feed: 0 });
  const [pushing, setPushing] = useState(false);
  const at = useRef(-BEFORE);
  const held = useRef({ down: false, feed: 0 });
  const push = useRef<Push>({ ms: [], mm: [] });
  const over = useRef(onOver);
  useEffect(() => {
    over.current = onOver;
  });

  const end = useCallback(() => {
    setPushing(false);
    held.current = { down: false, feed: 0 };
    over.current(push.current);
  }, []);

  useEffect(() => {
    if (!pushing) return;
    let frame = 0;
    let was = 0;
    const begun = performance.now();
    const tick = (now: number) => {
      const ms = Math.max(0, now - begun);
      const key = held.current;
      key.feed = key.down ? Math.min(KEY_FEED, key.feed + (KEY_RISE * (ms - was)) / 1000) : 0;
      at.current += (key.feed * (ms - was)) / 60;
      was = ms;
      const { ms: times, mm } = push.current;
      times.push(ms);
      mm.push(at.current);
      const since = times.findIndex((x) => x >= ms - 100);
      const span = ms - (times[since] ?? ms);
      setSeen({ mm: at.current, feed: span > 0 ? (60 * (at.current - (mm[since] ?? 0))) / span : 0 });
      if (at.current >= length + BEYOND || times.length >= MOST) end();
      else frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [pushing, length, end]);

  const grasp = () => {
    if (pushing || at.current >= length) return;
    push.current = { ms: [], mm: [] };
    setPushing(true);
  };
  return {
    ...seen,
    pushing,
    grasp,
    move: (by) => {
      at.current = Math.max(-BEFORE, at.current + by);
    },
    key: (down) => {
      held.current.down = down;
      if (down) grasp();
    },
    letGo: () => pushing && end(),
    anew: () => {
      at.current = -BEFORE;
      setPushing(false);
      setSeen({ mm: -BEFORE, feed: 0 });
    },
  };
}
