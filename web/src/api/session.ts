/** Who is at this browser, and whose name work goes under. */
import { useQuery, type QueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import client, { unwrap } from './client';
import type { Session } from './types';

export const sessionKey = ['session'];

export const useSession = () =>
  useQuery({ queryKey: sessionKey, queryFn: async () => unwrap(await client.GET('/session')) });

/** Whose name work goes under, as the server last said. */
export const nameNow = (cache: QueryClient) => cache.getQueryData<Session>(sessionKey)?.name;

/** Whose name a record goes under: who is here, until another is typed. */
export function useBy() {
  const name = useSession().data?.name ?? '';
  const [typed, setTyped] = useState<string>();
  return [typed ?? name, setTyped] as const;
}

/** Whether who is here runs the shop. */
export const useOwner = () => useSession().data?.role === 'owner';
