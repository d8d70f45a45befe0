/** Boards to practise feeding on, and what a push leaves of one. Nothing of it is kept. */
import { useMutation, useQuery } from '@tanstack/react-query';
import client, { unwrap } from './client';
import type { PracticePush, Units } from './types';

export const usePracticeBoard = (number: number, units: Units) =>
  useQuery({
    queryKey: ['practice', number, units],
    queryFn: async ({ signal }) =>
      unwrap(
        await client.GET('/practice-boards/{number}', {
          params: { path: { number }, query: { units } },
          signal,
        }),
      ),
  });

export const usePractise = () =>
  useMutation({
    mutationFn: async (body: PracticePush) => unwrap(await client.POST('/practice-cuts', { body })),
  });
