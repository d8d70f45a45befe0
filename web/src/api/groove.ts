import { keepPreviousData, useQuery } from '@tanstack/react-query';
import client, { etag, unwrap } from './client';
import type { GrooveAsk, GrooveEnd, GrooveStart, GrooveTest, Units } from './types';
import { useChange, keyed, done } from './change';

/** Every way to a groove, once a piece has been measured for it. */
export const useGroovePlan = (ask: GrooveAsk | undefined, units: Units) =>
  useQuery({
    queryKey: ['groove-plan', ask, units],
    enabled: ask !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/groove-plans', { body: { ask: ask!, units } })),
    placeholderData: keepPreviousData,
  });

export const useGrooves = (units: Units) =>
  useQuery({
    queryKey: ['grooves', { units }],
    queryFn: async () =>
      unwrap(await client.GET('/grooves', { params: { query: { limit: 12, units } } })).items,
  });

export const useGroove = (id: string, units: Units) =>
  useQuery({
    queryKey: ['grooves', id, units],
    queryFn: async () =>
      unwrap(await client.GET('/grooves/{id}', { params: { path: { id }, query: { units } } })),
    retry: false,
  });

export const useStartGroove = () =>
  useChange('log', async ({ key, body }: { key: string; body: GrooveStart }) =>
    unwrap(await client.POST('/grooves', { params: { header: keyed(key) }, body })),
  );

export const useTestGroove = () =>
  useChange('log', async ({ id, version, body }: { id: string; version: number; body: GrooveTest }) =>
    unwrap(
      await client.POST('/grooves/{id}/tests', { params: { path: { id }, header: etag(version) }, body }),
    ),
  );

export const useEndGroove = () =>
  useChange('log', async ({ id, version, body }: { id: string; version: number; body: GrooveEnd }) =>
    unwrap(await client.POST('/grooves/{id}/end', { params: { path: { id }, header: etag(version) }, body })),
  );

export const useDropGroove = () =>
  useChange('log', async (id: string) =>
    done(await client.DELETE('/grooves/{id}', { params: { path: { id } } })),
  );
