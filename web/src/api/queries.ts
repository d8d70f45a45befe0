/** Everything that the screens ask of the server. Server state lives here alone. */
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query';
import client, { unwrap } from './client';
import type { Blade, Cut, CutMade, Units } from './types';

const forGood = { staleTime: Infinity };

export const useMaterials = () =>
  useQuery({
    queryKey: ['materials'],
    queryFn: async () => unwrap(await client.GET('/materials')).items,
    ...forGood,
  });

export const useShop = () =>
  useQuery({ queryKey: ['shop'], queryFn: async () => unwrap(await client.GET('/shop')) });

export const useSaws = () =>
  useQuery({ queryKey: ['saws'], queryFn: async () => unwrap(await client.GET('/saws')).items });

/** The whole rack, page after page. */
export const useBlades = () =>
  useQuery({
    queryKey: ['blades'],
    queryFn: async () => {
      const all: Blade[] = [];
      let after: string | undefined;
      do {
        const page = unwrap(await client.GET('/blades', { params: { query: { limit: 500, after } } }));
        all.push(...page.items);
        after = page.next;
      } while (after);
      return all;
    },
  });

export const useBlade = (id: string) =>
  useQuery({
    queryKey: ['blades', id],
    queryFn: async () => unwrap(await client.GET('/blades/{id}', { params: { path: { id } } })),
  });

export const useBladeLog = (id: string) =>
  useInfiniteQuery({
    queryKey: ['blades', id, 'log'],
    queryFn: async ({ pageParam }) =>
      unwrap(
        await client.GET('/blades/{id}/log', {
          params: { path: { id }, query: { limit: 25, before: pageParam } },
        }),
      ),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => last.next,
  });

export const usePlan = (cut: Cut | undefined, units: Units) =>
  useQuery({
    queryKey: ['plan', cut, units],
    enabled: cut !== undefined,
    queryFn: async () => unwrap(await client.POST('/plans', { body: { cut: cut!, units } })),
    placeholderData: keepPreviousData,
  });

/** One blade at every height, and at one more that is not on the steps. */
export const useSweep = (
  cut: Cut | undefined,
  bladeId: string | undefined,
  stepMm: number,
  alsoMm: number | undefined,
  units: Units,
) =>
  useQuery({
    queryKey: ['sweep', cut, bladeId, stepMm, alsoMm, units],
    enabled: cut !== undefined && bladeId !== undefined,
    queryFn: async () =>
      unwrap(
        await client.POST('/sweeps', {
          body: { cut: cut!, blade_id: bladeId!, step_mm: stepMm, also_mm: alsoMm, units },
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** Reads a length as somebody typed it. */
export const useReadLength = () =>
  useMutation({
    mutationFn: async (q: { text: string; units: Units }) =>
      unwrap(await client.GET('/length', { params: { query: q } })),
  });

/** Logs a cut. The key makes a retry from a flaky tablet log once. */
export const useLogCut = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: async ({ key, made }: { key: string; made: CutMade }) =>
      unwrap(await client.POST('/cuts', { params: { header: { 'Idempotency-Key': key } }, body: made })),
    retry: (times, error) => times < 3 && !('status' in error),
    onSuccess: () =>
      Promise.all(['blades', 'saws', 'plan', 'sweep'].map((k) => cache.invalidateQueries({ queryKey: [k] }))),
  });
};
