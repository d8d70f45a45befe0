/** A mounting under way: its cards, on every device that shows them. */
import {
  useMutation,
  useMutationState,
  useQuery,
  useQueryClient,
  type MutationState,
} from '@tanstack/react-query';
import client, { etag, unwrap } from './client';
import type { Mounting, Units } from './types';
import { BY_ITSELF, done, notOlder, useChange } from './change';

/** How far a mounting has come, or what was answered at one check: what is left out stays as it is. */
interface Step {
  id: string;
  units: Units;
  step?: number;
  answers?: Record<string, boolean>;
}

const stepped = (m: Mounting, s: Step) => ({ ...m.answers, ...s.answers });
const mountingKey = (id: string, units: Units) => ['mounting', id, units];
const steps = 'steps of a mounting'; // so are they known, and stand in line

/** The mounting, with the answers that are still on their way to the server. */
export const useMounting = (id: string, units: Units) => {
  const kept = useQuery({
    queryKey: mountingKey(id, units),
    refetchInterval: BY_ITSELF,
    queryFn: async () =>
      unwrap(await client.GET('/mountings/{id}', { params: { path: { id }, query: { units } } })),
    structuralSharing: notOlder,
  });
  const coming = useMutationState({
    filters: { mutationKey: [steps], status: 'pending' },
    select: (m) => (m.state as MutationState<Mounting, Error, Step>).variables,
  });
  const data = coming.reduce<Mounting | undefined>(
    (m, s) => (m && s?.id === id ? { ...m, answers: stepped(m, s) } : m),
    kept.data,
  );
  return { ...kept, data };
};

/**
 * Steps are sent one after the other, each over what the one before came to: a quick hand answers the
 * second check of a card before the server has the first.
 */
export const useStepMounting = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationKey: [steps],
    scope: { id: steps },
    mutationFn: async (p: Step) => {
      const now = cache.getQueryData<Mounting>(mountingKey(p.id, p.units))!;
      return unwrap(
        await client.PUT('/mountings/{id}', {
          params: { path: { id: p.id }, header: etag(now.version) },
          body: { step: p.step ?? now.step, answers: stepped(now, p), units: p.units },
        }),
      );
    },
    onSuccess: (m, p) => cache.setQueryData(mountingKey(p.id, p.units), m),
    onError: () => cache.invalidateQueries({ queryKey: ['mounting'] }),
  });
};

export const useEndMounting = () =>
  useChange(
    'log',
    async ({ id, version, ...body }: { id: string; version: number; by?: string; diameter_mm?: number }) =>
      unwrap(
        await client.POST('/mountings/{id}/end', { params: { path: { id }, header: etag(version) }, body }),
      ),
  );

export const useDropMounting = () =>
  useChange('log', async (id: string) =>
    done(await client.DELETE('/mountings/{id}', { params: { path: { id } } })),
  );
