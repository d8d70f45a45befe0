import { useMutation, useQuery } from '@tanstack/react-query';
import client, { unwrap } from './client';
import type { TruingInput, TruingTest } from './types';
import { useChange } from './change';

/** What readings come to, while they are read; nothing until there are enough. */
export const useTruingResult = (body: TruingInput | undefined) =>
  useQuery({
    queryKey: ['truing-result', body],
    enabled: body !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/truing-results', { body: body! })),
    placeholderData: (last) => (body ? last : undefined),
  });

export const useTruings = (of: { saw_id?: string; blade_id?: string; test?: TruingTest }) =>
  useQuery({
    queryKey: ['truings', of],
    queryFn: async () =>
      unwrap(await client.GET('/truings', { params: { query: { ...of, limit: 100 } } })).items,
  });

export const useMoveSaw = () =>
  useChange('log', async ({ id, key, note }: { id: string; key: string; note?: string }) =>
    unwrap(
      await client.POST('/saws/{id}/moves', {
        params: { path: { id }, header: { 'Idempotency-Key': key } },
        body: { note },
      }),
    ),
  );

export const usePlaceGauge = () =>
  useMutation({
    mutationFn: async (p: { name: string; where: Place; step?: number; of?: number }) => {
      const r = await client.POST('/gauges/{name}/place', {
        params: { path: { name: p.name } },
        body: { where: p.where, step: p.step, of: p.of },
      });
      if (r.error) unwrap(r as never);
    },
  });

export type Place =
  'heel-front' | 'heel-rear' | 'fence-front' | 'fence-rear' | 'runout' | 'turned' | 'left' | 'right';
