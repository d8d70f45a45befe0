import { replaceEqualDeep, useMutation, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { ProblemError, unwrap } from './client';
import type { Changed } from './refresh';

/** As often as a page asks by itself for what others change, ms: for what it did not hear (changes.ts). */
export const BY_ITSELF = 30_000;

export const forGood = { staleTime: Infinity };

/** Asks again what follows from a change (refresh.ts), or everything where even that can't be fetched. */
export const refresh = (cache: QueryClient, changed: Changed): Promise<unknown> =>
  import('./refresh').then(
    (m) => m.refresh(cache, changed),
    () => cache.invalidateQueries(),
  );

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
