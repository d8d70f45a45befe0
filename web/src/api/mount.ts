import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import client, { etag, unwrap } from './client';
import type { Units } from './types';
import { BY_ITSELF, useChange } from './change';

export const useMounting = (id: string, units: Units) =>
  useQuery({
    queryKey: ['mounting', id, units],
    refetchInterval: BY_ITSELF,
    queryFn: async () =>
      unwrap(await client.GET('/mountings/{id}', { params: { path: { id }, query: { units } } })),
  });

export const useStartMounting = () =>
  useChange(
    async (body: { saw_id: string; blade_id: string; groove_id?: string; by?: string; units: Units }) =>
      unwrap(await client.POST('/mountings', { body })),
  );

export const useStepMounting = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: async (p: {
      id: string;
      version: number;
      step: number;
      answers: Record<string, boolean>;
      units: Units;
    }) =>
      unwrap(
        await client.PUT('/mountings/{id}', {
          params: { path: { id: p.id }, header: etag(p.version) },
          body: { step: p.step, answers: p.answers, units: p.units },
        }),
      ),
    // An answer that was on its way before the step must not undo it.
    onMutate: () => cache.cancelQueries({ queryKey: ['mounting'] }),
    onSuccess: (m, p) => cache.setQueryData(['mounting', p.id, p.units], m),
    onError: () => cache.invalidateQueries({ queryKey: ['mounting'] }),
  });
};

export const useEndMounting = () =>
  useChange(
    async ({ id, version, ...body }: { id: string; version: number; by?: string; diameter_mm?: number }) =>
      unwrap(
        await client.POST('/mountings/{id}/end', { params: { path: { id }, header: etag(version) }, body }),
      ),
  );

export const useDropMounting = () =>
  useChange(async (id: string) => {
    const r = await client.DELETE('/mountings/{id}', { params: { path: { id } } });
    if (r.error) unwrap(r as never);
  });
