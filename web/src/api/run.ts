import { useQuery } from '@tanstack/react-query';
import client, { etag, unwrap } from './client';
import type { TrialAsk, TrialGrade } from './types';
import { BY_ITSELF, useChange, keyed } from './change';

export const useLessons = () =>
  useQuery({ queryKey: ['lessons'], queryFn: async () => unwrap(await client.GET('/lessons')).items });

export const useTrials = (blade_id?: string) =>
  useQuery({
    queryKey: ['trials', { blade_id }],
    queryFn: async () =>
      unwrap(await client.GET('/trials', { params: { query: { blade_id, limit: 20 } } })).items,
  });

export const useTrial = (id: string) =>
  useQuery({
    queryKey: ['trials', id],
    queryFn: async () => unwrap(await client.GET('/trials/{id}', { params: { path: { id } } })),
    refetchInterval: BY_ITSELF,
  });

export const useStartTrial = () =>
  useChange('log', async ({ key, body }: { key: string; body: TrialAsk }) =>
    unwrap(await client.POST('/trials', { params: { header: keyed(key) }, body })),
  );

export const useTrialCut = () =>
  useChange('log', async (p: { id: string; version: number; piece: number; seconds?: number }) =>
    unwrap(
      await client.POST('/trials/{id}/cuts', {
        params: { path: { id: p.id }, header: etag(p.version) },
        body: { piece: p.piece, seconds: p.seconds },
      }),
    ),
  );

export const useTrialGrade = () =>
  useChange('log', async ({ id, version, body }: { id: string; version: number; body: TrialGrade }) =>
    unwrap(
      await client.POST('/trials/{id}/grades', { params: { path: { id }, header: etag(version) }, body }),
    ),
  );

export const useEndTrial = () =>
  useChange('log', async ({ id, version }: { id: string; version: number }) =>
    unwrap(await client.POST('/trials/{id}/end', { params: { path: { id }, header: etag(version) } })),
  );
