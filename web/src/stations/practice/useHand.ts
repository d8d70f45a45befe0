/**
 * Hands that push a board, or lead a saw: by pointers, wheel or two keys, seen at
 * every frame. Each hand takes it as far as it reaches and is set anew after
 * that. What they do is told; what that makes is not known here: how it sounds
 * and looks on the way is read from the samples that came with the board.
 */
import { useCallback, useEffect, useRef, useState } from 'react';
import type { FeedSample, PracticeBoard } from '../../api/types';

/** From where the board begins, before the blade. */
export const BEFORE = 60; // mm

const BEYOND = 5; // mm past the end of the cut, where the push is over
const KEY_FEED = 3; // m/min that a held key comes to
const KEY_RISE = 6; // m/min more in a second
const MOST = 19_000; // frames that are told
const OVER = 100; // ms that a feed is taken over

export interface Push {
  ms: number[];
  mm: number[];
}

interface Seen {
  mm: number; // of the front edge past the blade
  feed: number; // m/min
  now: FeedSample; // at that feed
  scorch: number[]; // of each millimetre that was cut
  splinter: number[]; // the same
  spent: boolean; // every hand is at the end of its reach
}

export interface Hand extends Seen {
  pushing: boolean;
  grasp: (hand: string) => void;
  release: (hand: string) => void;
  move: (hand: string, by: number) => void; // mm
  wheel: (by: number) => void; // mm
  letGo: () => void;
  anew: () => void;
}

/** What is between two samples, in the share of a feed between theirs. */
export function sampleAt(samples: FeedSample[], feed: number): FeedSample {
  const after = samples.findIndex((s) => s.feed_m_min >= feed);
  if (after <= 0) return samples[after === 0 ? 0 : samples.length - 1]!;
  const [a, b] = [samples[after - 1]!, samples[after]!];
  const share = (feed - a.feed_m_min) / (b.feed_m_min - a.feed_m_min);
  const mix = (x: number, y: number) => x + share * (y - x);
  return {
    feed_m_min: feed,
    load: mix(a.load, b.load),
    turns: mix(a.turns, b.turns),
    scorch: mix(a.scorch, b.scorch),
    splinter: mix(a.splinter, b.splinter),
  };
}

interface Grip {
  from: number; // mm where it took hold
  key: boolean;
}

/** One push, told when it is over. */
export function useHand(board: PracticeBoard, onOver: (push: Push) => void): Hand {
  const free = board.samples[0]!;
  const still: Seen = {
    mm: -BEFORE,
    feed: 0,
    now: { ...free, load: 0 },
    scorch: [],
    splinter: [],
    spent: false,
  };
  const [seen, setSeen] = useState(still);
  const [pushing, setPushing] = useState(false);
  const at = useRef(-BEFORE);
  const hands = useRef(new Map<string, Grip>());
  const keyFeed = useRef(0);
  const push = useRef<Push>({ ms: [], mm: [] });
  const wall = useRef<{ scorch: number[]; splinter: number[] }>({ scorch: [], splinter: [] });
  const over = useRef(onOver);
  useEffect(() => {
    over.current = onOver;
  });

  const end = useCallback(() => {
    setPushing(false);
    hands.current.clear();
    keyFeed.current = 0;
    over.current(push.current);
  }, []);

  useEffect(() => {
    if (!pushing) return;
    let frame = 0;
    let was = 0;
    let hot = 0;
    const begun = performance.now();
    const left = (h: Grip) => h.from + board.reach_mm - at.current;
    const tick = (now: number) => {
      const ms = Math.max(0, now - begun);
      const span = ms - was;
      was = ms;
      const held = [...hands.current.values()];
      const far = Math.max(0, ...held.filter((h) => h.key).map(left));
      keyFeed.current = far > 0 ? Math.min(KEY_FEED, keyFeed.current + (KEY_RISE * span) / 1000) : 0;
      at.current += Math.min(far, (keyFeed.current * span) / 60);
      const { ms: times, mm } = push.current;
      times.push(ms);
      mm.push(at.current);
      const since = times.findIndex((x) => x >= ms - OVER);
      const over = ms - (times[since] ?? ms);
      const feed = over > 0 ? Math.max(0, (60 * (at.current - (mm[since] ?? 0))) / over) : 0;
      const cutting = at.current > 0 && at.current < board.length_mm;
      const sample = sampleAt(board.samples, feed);
      const cut = Math.floor(Math.max(0, Math.min(at.current, board.length_mm)));
      const { scorch, splinter } = wall.current;
      while (scorch.length < cut) {
        scorch.push(sample.scorch);
        splinter.push(sample.splinter);
      }
      // Where it stands it goes on to brown.
      if (cutting && cut > 0) scorch[cut - 1] = Math.max(scorch[cut - 1] ?? 0, sample.scorch);
      hot = cutting && sample.load >= board.stall_load ? hot + span : 0;
      setSeen({
        mm: at.current,
        feed,
        now: cutting && feed > 0.02 ? sample : { ...board.samples[0]!, load: 0 },
        scorch: scorch.slice(),
        splinter: splinter.slice(),
        spent: held.length > 0 && held.every((h) => left(h) <= 0),
      });
      if (at.current >= board.length_mm + BEYOND || times.length >= MOST || hot >= board.stall_ms) end();
      else frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [pushing, board, end]);

  const begin = () => {
    if (pushing || at.current >= board.length_mm) return;
    push.current = { ms: [], mm: [] };
    setPushing(true);
  };
  const by = (mm: number) => {
    at.current = Math.max(-BEFORE, at.current + mm);
  };
  return {
    ...seen,
    pushing,
    grasp: (hand) => {
      if (!hands.current.has(hand))
        hands.current.set(hand, { from: at.current, key: hand.startsWith('key') });
      begin();
    },
    release: (hand) => hands.current.delete(hand),
    move: (hand, mm) => {
      const grip = hands.current.get(hand);
      if (grip) by(Math.min(mm, Math.max(0, grip.from + board.reach_mm - at.current)));
    },
    wheel: (mm) => {
      begin();
      by(mm);
    },
    letGo: () => pushing && end(),
    anew: () => {
      at.current = -BEFORE;
      wall.current = { scorch: [], splinter: [] };
      hands.current.clear();
      setPushing(false);
      setSeen(still);
    },
  };
}
