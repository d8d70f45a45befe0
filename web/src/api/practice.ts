/** The drills of Learn: what is asked, what an answer was worth, and how who asks stands. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { forGood, keyed } from './change';
import client, { unwrap } from './client';
import type { DrillAnswer, DrillName, Units, WhyName } from './types';

export const useDrills = () =>
  useQuery({
    queryKey: ['drills'],
    queryFn: async ({ signal }) => unwrap(await client.GET('/drills', { signal })),
  });

export interface TaskAsk {
  drill: DrillName;
  number: number;
  skill?: string | undefined; // the one that is due, where it is left out
  level?: number | undefined;
  rack?: boolean;
  units: Units;
}

/** A task stands as it was posed until another is asked for. */
export const useDrillTask = ({ drill, ...query }: TaskAsk) =>
  useQuery({
    queryKey: ['drill-task', drill, query],
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/drills/{drill}/task', { params: { path: { drill }, query }, signal })),
    ...forGood,
  });

export function useAnswerDrill() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: async ({ key, ...body }: DrillAnswer & { key: string }) =>
      unwrap(await client.POST('/drill-answers', { body, params: { header: keyed(key) } })),
    onSuccess: () => Promise.all(['drills', 'people'].map((k) => cache.invalidateQueries({ queryKey: [k] }))),
  });
}

export const useWhy = (why: WhyName, units: Units) =>
  useQuery({
    queryKey: ['why', why, units],
    queryFn: async ({ signal }) =>
      unwrap(await client.GET('/whys/{why}', { params: { path: { why }, query: { units } }, signal })),
    ...forGood,
  });
