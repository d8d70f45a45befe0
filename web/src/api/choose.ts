import { keepPreviousData, useQuery } from '@tanstack/react-query';
import client, { unwrap } from './client';
import type { Cut, JointAsk, Pin, SupportRequest, Units } from './types';

export const usePlan = (cut: Cut | undefined, units: Units, limit: number) =>
  useQuery({
    queryKey: ['plan', cut, units, limit],
    enabled: cut !== undefined,
    queryFn: async () => unwrap(await client.POST('/plans', { body: { cut: cut!, units, limit } })),
    placeholderData: keepPreviousData,
  });

export const useComparison = (cut: Cut, pins: Pin[], units: Units) =>
  useQuery({
    queryKey: ['comparison', cut, pins, units],
    enabled: pins.length > 0,
    queryFn: async () => unwrap(await client.POST('/comparisons', { body: { cut, pins, units } })).items,
    placeholderData: keepPreviousData,
  });

export const useSupports = (request: SupportRequest) =>
  useQuery({
    queryKey: ['supports', request],
    queryFn: async () => unwrap(await client.POST('/support-plans', { body: request })),
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

/** What a joint comes to as its sizes are typed, or which of them cannot be. */
export const useJoint = (ask: JointAsk | undefined) =>
  useQuery({
    queryKey: ['joint', ask],
    enabled: ask !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/joint-plans', { body: ask! })),
    placeholderData: keepPreviousData,
  });
