import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { ToTheCore } from './core';
import client, { unwrap } from './client';
import type { Compared, Cut, JointAsk, Pin, SupportRequest, Units } from './types';

/** A question to the core: where the server is away, the core here answers it. */
const toTheCore = (address: ToTheCore['address'], body: unknown) => ({
  meta: { core: { address, body } satisfies ToTheCore },
  placeholderData: keepPreviousData,
});

export const usePlan = (cut: Cut | undefined, units: Units, limit: number) => {
  const body = { cut: cut!, units, limit };
  return useQuery({
    queryKey: ['plan', cut, units, limit],
    enabled: cut !== undefined,
    queryFn: async () => unwrap(await client.POST('/plans', { body })),
    ...toTheCore('/plans', body),
  });
};

export const useComparison = (cut: Cut, pins: Pin[], units: Units) => {
  const body = { cut, pins, units };
  return useQuery({
    queryKey: ['compared', cut, pins, units],
    enabled: pins.length > 0,
    queryFn: async () => unwrap(await client.POST('/comparisons', { body })),
    select: (all: { items: Compared[] }) => all.items,
    ...toTheCore('/comparisons', body),
  });
};

export const useSupports = (body: SupportRequest) =>
  useQuery({
    queryKey: ['supports', body],
    queryFn: async () => unwrap(await client.POST('/support-plans', { body })),
    ...toTheCore('/support-plans', body),
  });

/** One blade at every height, and at one more that is not on the steps. */
export const useSweep = (
  cut: Cut | undefined,
  bladeId: string | undefined,
  stepMm: number,
  alsoMm: number | undefined,
  units: Units,
) => {
  const body = { cut: cut!, blade_id: bladeId!, step_mm: stepMm, also_mm: alsoMm, units };
  return useQuery({
    queryKey: ['sweep', cut, bladeId, stepMm, alsoMm, units],
    enabled: cut !== undefined && bladeId !== undefined,
    queryFn: async () => unwrap(await client.POST('/sweeps', { body })),
    ...toTheCore('/sweeps', body),
  });
};

/** What the core here would weigh by if the server went away; kept, and not shown. */
export const useShelf = () =>
  useQuery({
    queryKey: ['shelf'],
    staleTime: 60_000,
    refetchInterval: 5 * 60_000,
    queryFn: async () => unwrap(await client.GET('/shelf')),
  });

/** What a joint comes to as its sizes are typed, or which of them cannot be. */
export const useJoint = (ask: JointAsk | undefined) =>
  useQuery({
    queryKey: ['joint', ask],
    enabled: ask !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/joint-plans', { body: ask! })),
    placeholderData: keepPreviousData,
  });
