import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import client, { etag, unwrap } from './client';
import type { TraceAsk, TraceEvidence } from './types';
import { forGood, useChange, keyed, done, notOlder } from './change';

export const useTraceWords = () =>
  useQuery({
    queryKey: ['trace-words'],
    queryFn: async () => unwrap(await client.GET('/trace-words')),
    ...forGood,
  });

export const useTraces = () =>
  useQuery({
    queryKey: ['traces'],
    queryFn: async () => unwrap(await client.GET('/traces', { params: { query: { limit: 30 } } })).items,
  });

export const useTrace = (id: string) =>
  useQuery({
    queryKey: ['traces', id],
    queryFn: async () => unwrap(await client.GET('/traces/{id}', { params: { path: { id } } })),
    structuralSharing: notOlder,
    staleTime: 0, // what was washed or measured meanwhile answers a check
  });

export const useStartTrace = () =>
  useChange('log', async ({ key, body }: { key: string; body: TraceAsk }) =>
    unwrap(await client.POST('/traces', { params: { header: keyed(key) }, body })),
  );

export const useSetEvidence = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, version, body }: { id: string; version: number; body: TraceEvidence }) =>
      unwrap(await client.PUT('/traces/{id}', { params: { path: { id }, header: etag(version) }, body })),
    onSuccess: (t) => cache.setQueryData(['traces', t.id], t),
    onError: () => cache.invalidateQueries({ queryKey: ['traces'] }),
  });
};

export const useEndTrace = () =>
  useChange(
    'log',
    async ({
      id,
      version,
      ...body
    }: {
      id: string;
      version: number;
      cause?: string;
      fixed: boolean;
      note?: string;
    }) =>
      unwrap(
        await client.POST('/traces/{id}/end', { params: { path: { id }, header: etag(version) }, body }),
      ),
  );

export const useDropTrace = () =>
  useChange('log', async (id: string) =>
    done(await client.DELETE('/traces/{id}', { params: { path: { id } } })),
  );
