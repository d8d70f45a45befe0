import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useSyncExternalStore } from 'react';
import client, { unwrap } from './client';
import type {
  BathAsk,
  CareSheet,
  Inspection,
  Judgement,
  Mending,
  Returned,
  Sending,
  Wash,
  WashAsk,
} from './types';
import { BY_ITSELF, forGood, useChange, keyed, done } from './change';
import { washKey } from './keep';
import { timed, waiting, watchWaiting, type TimedWash, type Waiting } from './queue';

/** What the rack wants, and what is under way, with the steps of washes that wait here. */
export type CareNow = Omit<CareSheet, 'washes'> & { washes: TimedWash[] };

export function useCare() {
  const care = useQuery({
    queryKey: ['care'],
    queryFn: async (): Promise<CareNow> => {
      const sheet = unwrap(await client.GET('/care'));
      return { ...sheet, washes: sheet.washes.map(timed) };
    },
    refetchInterval: BY_ITSELF, // another device may be washing
  });
  const waits = useSyncExternalStore(watchWaiting, waiting);
  const data = useMemo(
    () =>
      care.data && {
        ...care.data,
        washes: care.data.washes.filter((w) => !ends(w, waits)).map((w) => onward(w, waits)),
      },
    [care.data, waits],
  );
  return { ...care, data };
}

/** Whether a wash is done but for the sending. */
const ends = (w: Wash, waits: Waiting[]) =>
  waits.some((s) => s.wash?.id === w.id && s.wash.to === 'end' && !s.refused);

/** How a blade has stood through its log. */
export const useLife = (id: string) =>
  useQuery({
    queryKey: ['care', 'life', id],
    queryFn: async () => unwrap(await client.GET('/blades/{id}/life', { params: { path: { id } } })),
  });

export const useJudge = () =>
  useChange('log', async ({ id, key, body }: { id: string; key: string; body: Judgement }) =>
    unwrap(
      await client.POST('/blades/{id}/judgements', { params: { path: { id }, header: keyed(key) }, body }),
    ),
  );

/** What a look-over can find, and what of it keeps a blade off every saw. */
export const useFaults = () =>
  useQuery({
    queryKey: ['faults'],
    queryFn: async () => unwrap(await client.GET('/faults')).items,
    ...forGood,
  });

export const useInspect = () =>
  useChange('log', async ({ id, key, body }: { id: string; key: string; body: Inspection }) =>
    unwrap(
      await client.POST('/blades/{id}/inspections', { params: { path: { id }, header: keyed(key) }, body }),
    ),
  );

export const useMend = () =>
  useChange('log', async ({ id, key, body }: { id: string; key: string; body: Mending }) =>
    unwrap(await client.POST('/blades/{id}/mending', { params: { path: { id }, header: keyed(key) }, body })),
  );

/** What the last survey of a blade came to. */
export const useSurvey = (id: string) =>
  useQuery({
    queryKey: ['survey', id],
    queryFn: async () => unwrap(await client.GET('/blades/{id}/survey', { params: { path: { id } } })),
    retry: false,
  });

export const useSendOut = () =>
  useChange('log', async ({ id, key, body }: { id: string; key: string; body: Sending }) =>
    unwrap(await client.POST('/blades/{id}/sending', { params: { path: { id }, header: keyed(key) }, body })),
  );

export const useTakeBack = () =>
  useChange('log', async ({ id, key, body }: { id: string; key: string; body: Returned }) =>
    unwrap(await client.POST('/blades/{id}/return', { params: { path: { id }, header: keyed(key) }, body })),
  );

export const useCleaners = () =>
  useQuery({
    queryKey: ['cleaners'],
    queryFn: async () => unwrap(await client.GET('/cleaners')).items,
    ...forGood,
  });

/** What does not agree between blades, cleaner and brush. */
export const useWashCheck = (body: WashAsk | undefined) =>
  useQuery({
    queryKey: ['wash-check', body],
    enabled: body !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/wash-checks', { body: body! })).items,
  });

export const useStartWash = () =>
  useChange('log', async ({ key, body }: { key: string; body: WashAsk }) =>
    unwrap(await client.POST('/washes', { params: { header: keyed(key) }, body })),
  );

/** A wash as it stands here: as the server has it, and the steps that wait. */
export function useWash(id: string) {
  const wash = useQuery({
    queryKey: washKey(id),
    queryFn: async () => timed(unwrap(await client.GET('/washes/{id}', { params: { path: { id } } }))),
    refetchInterval: BY_ITSELF,
    retry: false,
  });
  const waits = useSyncExternalStore(watchWaiting, waiting);
  return {
    error: wash.error,
    data: useMemo(() => wash.data && onward(wash.data, waits), [wash.data, waits]),
  };
}

/** A wash after the steps that wait to be sent. */
function onward(w: TimedWash, waits: Waiting[]): TimedWash {
  for (const { wash: to, at, refused } of waits)
    if (to?.id === w.id && to.to !== 'end' && to.version === w.version && !refused)
      w = {
        ...w,
        step: to.to,
        step_at: new Date(Date.parse(at) + w.ahead).toISOString(),
        version: w.version + 1,
      };
  return w;
}

export const useDropWash = () =>
  useChange('log', async (id: string) =>
    done(await client.DELETE('/washes/{id}', { params: { path: { id } } })),
  );

export const useBathMix = (body: BathAsk | undefined) =>
  useQuery({
    queryKey: ['bath-mix', body],
    enabled: body !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/bath-mixes', { body: body! })),
    placeholderData: keepPreviousData,
  });

export const useMakeBath = () =>
  useChange('baths', async ({ key, body }: { key: string; body: BathAsk }) =>
    unwrap(await client.POST('/baths', { params: { header: keyed(key) }, body })),
  );

export const useStrainBath = () =>
  useChange('baths', async (id: string) =>
    unwrap(await client.POST('/baths/{id}/strain', { params: { path: { id } } })),
  );

export const useEmptyBath = () =>
  useChange('baths', async (id: string) =>
    done(await client.DELETE('/baths/{id}', { params: { path: { id } } })),
  );

export interface MoneyQuery {
  price?: number;
  sharpening?: number;
  sharpenings?: number;
  cheap_price?: number;
  cheap_life?: number;
}

export const useMoney = (id: string, query: MoneyQuery) =>
  useQuery({
    queryKey: ['money', id, query],
    queryFn: async () => unwrap(await client.GET('/blades/{id}/money', { params: { path: { id }, query } })),
    placeholderData: keepPreviousData,
  });
