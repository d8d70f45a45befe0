import { useEffect, useRef } from 'react';
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import client, { unwrap } from './client';
import type { Amendment, LogFilter, LogImport, LogImportWork } from './types';
import { send, type Upload } from './upload';
import { useChange, keyed } from './change';

/** The log, or the part of it that a filter wants, page after page. */
export const useLog = (of: LogFilter) =>
  useInfiniteQuery({
    queryKey: ['log', of],
    queryFn: async ({ pageParam }) =>
      unwrap(await client.GET('/log', { params: { query: { limit: 25, ...of, before: pageParam } } })),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next,
  });

/** The log summed up by the shop's days, so many up to today. */
export const useSeason = (days: number) =>
  useQuery({
    queryKey: ['log', 'season', days],
    queryFn: async () => unwrap(await client.GET('/log/season', { params: { query: { days } } })),
  });

export const useStrike = () =>
  useChange('log', async ({ id, note, key }: { id: number; note?: string; key: string }) =>
    unwrap(
      await client.POST('/log/{id}/strike', { params: { path: { id }, header: keyed(key) }, body: { note } }),
    ),
  );

/** Puts a row right; with nothing said, one that was struck out comes back. */
export const useAmend = () =>
  useChange('log', async ({ id, body, key }: { id: number; body: Amendment; key: string }) =>
    unwrap(await client.POST('/log/{id}/amendments', { params: { path: { id }, header: keyed(key) }, body })),
  );

export const useNote = () =>
  useChange('log', async ({ id, key, note }: { id: string; key: string; note: string }) =>
    unwrap(
      await client.POST('/blades/{id}/notes', {
        params: { path: { id }, header: keyed(key) },
        body: { note },
      }),
    ),
  );

export const usePreviewLogImport = () =>
  useMutation({
    mutationFn: (u: Upload) => send<LogImport>('POST', '/log-import-previews', u),
  });

/** Begins to add a file's rows. The form makes the ID: sent again under it, nothing is added twice. */
export const useLogImport = () =>
  useChange('log', ({ id, ...u }: Upload & { id: string }) =>
    send<LogImportWork>('PUT', `/log-imports/${id}`, u),
  );

/** The last files of old records, asked again while one is worked through. What follows from rows is stale when one is done. */
export function useLogImports() {
  const cache = useQueryClient();
  const all = useQuery({
    queryKey: ['log', 'imports'],
    queryFn: async ({ signal }) => unwrap(await client.GET('/log-imports', { signal })).items,
    refetchInterval: ({ state }) => (state.data?.some((w) => w.state === 'working') ? 1000 : false),
  });
  const under = all.data?.some((w) => w.state === 'working') ?? false;
  const was = useRef(under);
  useEffect(() => {
    if (was.current && !under) void cache.invalidateQueries();
    was.current = under;
  }, [under, cache]);
  return all;
}
