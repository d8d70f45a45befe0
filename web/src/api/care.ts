import { keepPreviousData, useQuery } from '@tanstack/react-query';
import client, { unwrap } from './client';
import type { BathAsk, Inspection, Judgement, Returned, Sending, WashAsk, Mending } from './types';
import { forGood, useChange, etag, keyed, done } from './change';

export const useCare = () =>
  useQuery({
    queryKey: ['care'],
    queryFn: async () => unwrap(await client.GET('/care')),
    refetchInterval: 30_000, // another device may be washing
  });

/** How a blade has stood through its log. */
export const useLife = (id: string) =>
  useQuery({
    queryKey: ['care', 'life', id],
    queryFn: async () => unwrap(await client.GET('/blades/{id}/life', { params: { path: { id } } })),
  });

export const useJudge = () =>
  useChange(async ({ id, key, body }: { id: string; key: string; body: Judgement }) =>
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
  useChange(async ({ id, key, body }: { id: string; key: string; body: Inspection }) =>
    unwrap(
      await client.POST('/blades/{id}/inspections', { params: { path: { id }, header: keyed(key) }, body }),
    ),
  );

export const useMend = () =>
  useChange(async ({ id, key, body }: { id: string; key: string; body: Mending }) =>
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
  useChange(async ({ id, key, body }: { id: string; key: string; body: Sending }) =>
    unwrap(await client.POST('/blades/{id}/sending', { params: { path: { id }, header: keyed(key) }, body })),
  );

export const useTakeBack = () =>
  useChange(async ({ id, key, body }: { id: string; key: string; body: Returned }) =>
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
  useChange(async ({ key, body }: { key: string; body: WashAsk }) =>
    unwrap(await client.POST('/washes', { params: { header: keyed(key) }, body })),
  );

export const useWash = (id: string) =>
  useQuery({
    queryKey: ['care', 'wash', id],
    queryFn: async () => unwrap(await client.GET('/washes/{id}', { params: { path: { id } } })),
    refetchInterval: 5000,
    retry: false,
  });

export const useStepWash = () =>
  useChange(async ({ id, version, step }: { id: string; version: number; step: number }) =>
    unwrap(
      await client.PUT('/washes/{id}', { params: { path: { id }, header: etag(version) }, body: { step } }),
    ),
  );

export const useEndWash = () =>
  useChange(async ({ id, version }: { id: string; version: number }) =>
    unwrap(await client.POST('/washes/{id}/end', { params: { path: { id }, header: etag(version) } })),
  );

export const useDropWash = () =>
  useChange(async (id: string) => done(await client.DELETE('/washes/{id}', { params: { path: { id } } })));

export const useBathMix = (body: BathAsk | undefined) =>
  useQuery({
    queryKey: ['bath-mix', body],
    enabled: body !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/bath-mixes', { body: body! })),
    placeholderData: keepPreviousData,
  });

export const useMakeBath = () =>
  useChange(async ({ key, body }: { key: string; body: BathAsk }) =>
    unwrap(await client.POST('/baths', { params: { header: keyed(key) }, body })),
  );

export const useStrainBath = () =>
  useChange(async (id: string) =>
    unwrap(await client.POST('/baths/{id}/strain', { params: { path: { id } } })),
  );

export const useEmptyBath = () =>
  useChange(async (id: string) => done(await client.DELETE('/baths/{id}', { params: { path: { id } } })));

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
