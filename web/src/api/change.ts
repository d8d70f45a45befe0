import { replaceEqualDeep, useMutation, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { ProblemError, unwrap } from './client';

/** As often as a page asks by itself for what others change, ms: for what it did not hear (changes.ts). */
export const BY_ITSELF = 30_000;

export const forGood = { staleTime: Infinity };

/** What the shop knows has changed: everything that follows from it is asked again. */
export const refresh = (cache: QueryClient) => {
  void cache.invalidateQueries({ queryKey: ['shelf'] }); // nobody waits for it
  return Promise.all(
    [
      ...['shop', 'blades', 'saws', 'bench', 'mounting', 'truings', 'plan', 'sweep', 'compared'],
      ...[
        'log',
        'care',
        'baths',
        'money',
        'lessons',
        'trials',
        'traces',
        'calendar',
        'dado-set',
        'groove-plan',
        'grooves',
        'joint',
        'jobs',
        'owning',
        'first-blades',
        'people',
        'passes',
        'audit',
      ],
    ].map((k) => cache.invalidateQueries({ queryKey: [k] })),
  );
};

/** A change of the shop, after which what follows from it is asked again. */
export function useChange<V, R>(mutationFn: (v: V) => Promise<R>) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn,
    onSuccess: () => refresh(cache),
    // Somebody else was first: what they did is fetched, to be looked at.
    onError: (e) => (e instanceof ProblemError && e.status === 412 ? refresh(cache) : undefined),
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
