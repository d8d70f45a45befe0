/** The readings of a session: two rounds of so many places, and where the next one goes. */
import { useState } from 'react';

type Rounds = [number[], number[]];

/**
 * Holds them. Each round has `n` places; `onward` says that the second round begins by itself once the first is full.
 */
export function useRounds(n: number, onward: boolean) {
  const [rounds, setRounds] = useState<Rounds>([[], []]);
  const [round, setRound] = useState<0 | 1>(0);
  const change = (by: (now: Rounds) => void) => {
    const next: Rounds = [[...rounds[0]], [...rounds[1]]];
    by(next);
    setRounds(next);
  };
  return {
    rounds,
    round,
    now: rounds[round],
    full: rounds[round].length >= n,
    second: () => setRound(1),
    /** Puts values where they belong; what finds no place is left out. */
    put: (values: number[]) =>
      change((next) => {
        let at = round;
        for (const v of values) {
          if (next[at].length >= n && onward && at === 0) at = 1;
          if (next[at].length < n) next[at].push(v);
        }
        setRound(at);
      }),
    /** Takes both rounds from a file. */
    load: (one: number[], two: number[]) => {
      setRounds([one.slice(0, n), two.slice(0, n)]);
      setRound(1);
    },
    /** Keeps the first places of the round. */
    cutBack: (places: number) => change((next) => void next[round].splice(places)),
    clear: () => {
      setRounds([[], []]);
      setRound(0);
    },
  };
}
