import { keepPreviousData, useQuery } from '@tanstack/react-query';
import client, { unwrap } from './client';
import type { SpecialCutAsk } from './types';

/** What a special cut comes to as its sizes are typed, or which of them cannot be. */
export const useSpecialCut = (ask: SpecialCutAsk | undefined) =>
  useQuery({
    queryKey: ['special-cut', ask],
    enabled: ask !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/special-cuts', { body: ask! })),
    placeholderData: keepPreviousData,
  });
