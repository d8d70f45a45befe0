/** Sweeps out what the server said (fallback.ts). It is no part of the first script. */
import { delMany, entries } from 'idb-keyval';
import { PREFIX, SHELF, type Cached } from './cache';

const LONGEST = 60 * 24 * 3600_000; // ms that something is kept
const MOST = 200; // answers that are kept

/** Lets go of what was said too long ago, and of all but the latest: every cut that is tried is a plan. */
export async function sweepKept() {
  const all = (await entries<string, Cached>()).filter(([key]) => key.startsWith(PREFIX));
  all.sort(([, a], [, b]) => b.at - a.at);
  await delMany(
    all
      .filter(([key, k], i) => (i >= MOST && key !== SHELF) || Date.now() - k.at > LONGEST)
      .map(([key]) => key),
  );
}
