import { replaceEqualDeep, useMutation, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { ProblemError, unwrap } from './client';

/** As often as a page asks by itself for what others change, ms: for what it did not hear (changes.ts). */
export const BY_ITSELF = 30_000;

export const forGood = { staleTime: Infinity };

/** What the core works out from the rack and the log. */
const worked = [
  'shelf',
  'bench',
  'plan',
  'sweep',
  'compared',
  'groove-plan',
  'joint',
  'jobs',
  'care',
  'calendar',
];

/** What is asked again after a change, by what was changed: the first part of each query's key. */
const follows = {
  rack: ['shop', 'blades', 'saws', 'dado-set', 'mounting', 'money', 'owning', 'first-blades', ...worked],
  log: [
    ...['log', 'blades', 'saws', 'dado-set', 'truings', 'lessons', 'trials', 'traces', 'grooves', 'mounting'],
    ...['baths', 'money', 'owning', 'first-blades'],
    ...worked,
  ],
  baths: ['baths', 'care'],
  jobs: ['jobs'],
  owning: ['owning', 'first-blades'],
  calendar: ['calendar'],
  people: ['people', 'passes', 'audit', ...worked], // a sign-off decides what may be cut
};

export type Changed = keyof typeof follows | 'everything';

/** Asks again what follows from a change. */
export function refresh(cache: QueryClient, changed: Changed) {
  const keys = new Set(changed === 'everything' ? Object.values(follows).flat() : follows[changed]);
  const ask = (key: string) => cache.invalidateQueries({ queryKey: [key] });
  if (keys.delete('shelf')) void ask('shelf'); // nobody waits for it
  return Promise.all([...keys].map(ask));
}

/** A change of the shop, after which what follows from it is asked again. */
export function useChange<V, R>(changed: Changed, mutationFn: (v: V) => Promise<R>) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn,
    onSuccess: () => refresh(cache, changed),
    // Somebody else was first: what they did is fetched, to be looked at.
    onError: (e) => (e instanceof ProblemError && e.status === 412 ? refresh(cache, changed) : undefined),
  });
}

/**
 * For a query's `structuralSharing`: of two sights of one thing the one of the later version. What the server
 * read before a change may arrive after the change's own answer, and must not undo it on the page.
 */
export function notOlder(had: unknown, now: unknown) {
  const { version } = (had ?? { version: 0 }) as { version: number };
  return version > (now as { version: number }).version ? had : replaceEqualDeep(had, now);
}

export const keyed = (key: string) => ({ 'Idempotency-Key': key });

/** A call that answers nothing: its refusal as an exception. */
export function done(r: { error?: unknown; response: Response }) {
  if (r.error) unwrap(r as never);
}
