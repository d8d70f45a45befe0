/** Who is at this browser, and whose name work goes under. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import client, { unwrap } from './client';
import type { Session } from './types';

export const sessionKey = ['session'];

export const useSession = () =>
  useQuery({ queryKey: sessionKey, queryFn: async () => unwrap(await client.GET('/session')) });

/** Who makes what is logged here, as the header Made-By has it: shop and member. Null where nobody is signed in. */
export const makerOf = (s: Session | undefined) =>
  s && (s.shop && (s.state === 'in' || s.state === 'open') ? `${s.shop.id}:${s.member_id ?? ''}` : null);

/** Whose name a record goes under: who is here, until another is typed. */
export function useBy() {
  const name = useSession().data?.name ?? '';
  const [typed, setTyped] = useState<string>();
  return [typed ?? name, setTyped] as const;
}

/** Whether who is here runs the shop. */
export const useOwner = () => useSession().data?.role === 'owner';
