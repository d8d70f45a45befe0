/**
 * What the server said last, kept in this browser. It is asked first, always;
 * where it does not answer, what was seen before is shown with its age, and as
 * soon as it answers again everything is asked anew.
 */
import { get, set } from 'idb-keyval';
import type { Query, QueryClient, QueryFunctionContext } from '@tanstack/react-query';
import { PREFIX, SHELF, type Cached } from './cache';
import client, { ProblemError } from './client';
import type { ToTheCore } from './core';

/** Since when nothing was heard of the server, and how old the oldest of what is shown is. */
export interface Away {
  since: number;
  from: number;
  here?: boolean; // something was worked out here since
}

const KNOWS_BETTER = 10 * 60_000; // ms from an answer to a newer sight of the rack
const AGAIN = 3000; // ms between asking whether it is back

const listeners = new Set<() => void>();
let away: Away | undefined;

export const awayNow = () => away;

export function watchAway(f: () => void) {
  listeners.add(f);
  return () => void listeners.delete(f);
}

function tell(now: Away | undefined) {
  if (now === away) return;
  away = now;
  listeners.forEach((f) => f());
}

/** Whether an error is the server's silence: no answer at all, or one that it cannot give now. */
const silent = (e: unknown) => !(e instanceof ProblemError) || [502, 503, 504].includes(e.status);

type Ask = (c: QueryFunctionContext) => unknown;

/** Asks the server; what it says is kept, and what was kept stands in for its silence. */
export async function askOrRecall(ask: Ask, c: QueryFunctionContext, query: Query) {
  const key = PREFIX + query.queryHash;
  try {
    const data = await ask(c);
    void set(key, { at: Date.now(), data } satisfies Cached).catch(() => undefined); // a full disk keeps nothing
    return data;
  } catch (e) {
    if (!silent(e) || c.signal.aborted) throw e;
    const seen = query.state.data;
    const kept =
      seen === undefined
        ? await get<Cached>(key).catch(() => undefined)
        : { at: query.state.dataUpdatedAt, data: seen };
    const core = query.meta?.core as ToTheCore | undefined;
    const here = (!kept || (core && (await outlived(kept)))) && (await workedOut(core));
    const shown = here || kept;
    if (!shown) throw e;
    tell({
      since: away?.since ?? Date.now(),
      from: Math.min(away?.from ?? shown.at, shown.at),
      here: away?.here || Boolean(here),
    });
    return shown.data;
  }
}

/** Whether the rack was seen so long after an answer that the core here knows better by now. */
async function outlived(kept: Cached) {
  const shelf = await get<Cached>(SHELF).catch(() => undefined);
  return shelf !== undefined && shelf.at - kept.at > KNOWS_BETTER;
}

/** What the core in this browser makes of a question to the core; it is fetched with the first. */
async function workedOut(ask: ToTheCore | undefined): Promise<Cached | undefined> {
  return ask && (await import('./core')).workOut(ask);
}

/** Asks the server what the core here can answer as well. */
export async function recalled<T>(
  ask: () => Promise<T>,
  address: ToTheCore['address'],
  body: unknown,
  picture?: ToTheCore['picture'],
): Promise<T> {
  try {
    return await ask();
  } catch (e) {
    const here = silent(e) && (await workedOut({ address, body, picture }));
    if (!here) throw e;
    return here.data as T;
  }
}

/** While the server is away, asks whether it is back, and then for everything that is shown. */
export function waitForServer(cache: QueryClient) {
  const ask = async () => {
    if (!away) return;
    try {
      const { response } = await client.GET('/health');
      if (!response.ok) return;
      tell(undefined);
      await cache.invalidateQueries();
    } catch {
      // it is asked again
    }
  };
  const timer = setInterval(() => void ask(), AGAIN);
  const now = () => void ask();
  addEventListener('online', now);
  return () => {
    clearInterval(timer);
    removeEventListener('online', now);
  };
}
