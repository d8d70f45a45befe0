/** Everything that the screens ask of the server. Server state lives here alone. */
import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryClient,
} from '@tanstack/react-query';

import { useEffect, useSyncExternalStore } from 'react';
import client, { ProblemError, unwrap } from './client';
import type {
  Blade,
  BladeInput,
  BathAsk,
  Cut,
  DadoSetInput,
  GrooveAsk,
  GrooveEnd,
  GrooveStart,
  GrooveTest,
  Inspection,
  JointAsk,
  Judgement,
  LogFilter,
  Pin,
  RackFile,
  Renewal,
  Retirement,
  Returned,
  SawInput,
  Sending,
  ShopInput,
  SupportRequest,
  TraceAsk,
  TraceEvidence,
  TrialAsk,
  TrialGrade,
  TruingInput,
  TruingTest,
  UnmarkedReadings,
  Units,
  WashAsk,
  Mending,
} from './types';
import { keepCut, sendWaiting, waitingCuts, watchWaiting } from './waiting';

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

/** The whole rack, or the wall of the retired, page after page. */
export const useBlades = (retired = false) =>
  useQuery({
    queryKey: ['blades', { retired }],
    queryFn: async () => {
      const all: Blade[] = [];
      let after: string | undefined;
      do {
        const page = unwrap(
          await client.GET('/blades', { params: { query: { limit: 500, after, retired } } }),
        );
        all.push(...page.items);
        after = page.next;
      } while (after);
      return all;
    },
  });

export const useBlade = (id: string) =>
  useQuery({
    queryKey: ['blades', id],
    enabled: id !== '',
    queryFn: async () => unwrap(await client.GET('/blades/{id}', { params: { path: { id } } })),
  });

/** The log, or the part of it that a filter wants, page after page. */
export const useLog = (of: LogFilter) =>
  useInfiniteQuery({
    queryKey: ['log', of],
    queryFn: async ({ pageParam }) =>
      unwrap(await client.GET('/log', { params: { query: { limit: 25, ...of, before: pageParam } } })),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next,
  });

export const useSaw = (id: string) =>
  useQuery({
    queryKey: ['saws', id],
    enabled: id !== '',
    queryFn: async () => unwrap(await client.GET('/saws/{id}', { params: { path: { id } } })),
  });

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

/** Reads a length as somebody typed it. */
export const readingLength = ['reading-length'];

export const useReadLength = () =>
  useMutation({
    mutationKey: readingLength,
    mutationFn: async (q: { text: string; units: Units }) =>
      unwrap(await client.GET('/length', { params: { query: q } })),
  });

/** Logs a cut, at once or as soon as the server is there. */
export const useLogCut = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: keepCut,
    onSuccess: (kept) => (kept.waits ? undefined : refresh(cache)),
  });
};

/** What waits in this browser, sent once the server answers again. */
export const useWaiting = () => {
  const cache = useQueryClient();
  useEffect(() => sendWaiting(() => void refresh(cache)), [cache]);
  return useSyncExternalStore(watchWaiting, waitingCuts);
};

/** What the shop knows has changed: everything that follows from it is asked again. */
const refresh = (cache: QueryClient) =>
  Promise.all(
    [
      ...['shop', 'blades', 'saws', 'bench', 'mounting', 'truings', 'plan', 'sweep', 'comparison'],
      ...[
        'log',
        'care',
        'baths',
        'money',
        'lessons',
        'trials',
        'traces',
        'calendar',
        'dado-set',
        'groove-plan',
        'grooves',
        'joint',
      ],
    ].map((k) => cache.invalidateQueries({ queryKey: [k] })),
  );

/** A change of the shop, after which what follows from it is asked again. */
function useChange<V, R>(mutationFn: (v: V) => Promise<R>) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn,
    onSuccess: () => refresh(cache),
    // Somebody else was first: what they did is fetched, to be looked at.
    onError: (e) => (e instanceof ProblemError && e.status === 412 ? refresh(cache) : undefined),
  });
}

const etag = (version: number) => ({ 'If-Match': `"${version}"` });

/** What a blade's numbers come to as they are typed, or which of them cannot be. */
export const useBladeDraft = (body: BladeInput | undefined) =>
  useQuery({
    queryKey: ['blade-draft', body],
    enabled: body !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/blade-drafts', { body: body! })),
    placeholderData: keepPreviousData,
  });

export const useSawDraft = (body: SawInput | undefined) =>
  useQuery({
    queryKey: ['saw-draft', body],
    enabled: body !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/saw-drafts', { body: body! })),
    placeholderData: keepPreviousData,
  });

export const useUnmarked = (body: UnmarkedReadings) =>
  useQuery({
    queryKey: ['unmarked', body],
    retry: false,
    queryFn: async () => unwrap(await client.POST('/unmarked-blades', { body })),
    placeholderData: keepPreviousData,
  });

export const useAddBlade = () =>
  useChange(async ({ key, body }: { key: string; body: BladeInput }) =>
    unwrap(await client.POST('/blades', { params: { header: { 'Idempotency-Key': key } }, body })),
  );

export const useChangeBlade = () =>
  useChange(async ({ id, version, body }: { id: string; version: number; body: BladeInput }) =>
    unwrap(await client.PUT('/blades/{id}', { params: { path: { id }, header: etag(version) }, body })),
  );

export const useRetireBlade = () =>
  useChange(async ({ id, body }: { id: string; body: Retirement }) =>
    unwrap(await client.PUT('/blades/{id}/retirement', { params: { path: { id } }, body })),
  );

export const useRestoreBlade = () =>
  useChange(async (id: string) =>
    unwrap(await client.DELETE('/blades/{id}/retirement', { params: { path: { id } } })),
  );

export const useSetPhoto = () =>
  useChange(async ({ id, file }: { id: string; file: File | null }) => {
    const params = { path: { id } };
    if (!file) return unwrap(await client.DELETE('/blades/{id}/photo', { params }));
    return unwrap(
      await client.PUT('/blades/{id}/photo', {
        params,
        body: file as never, // the contract says bytes, and a file is those
        bodySerializer: (f) => f,
        headers: { 'Content-Type': 'application/octet-stream' },
      }),
    );
  });

export const useAddSaw = () =>
  useChange(async ({ key, body }: { key: string; body: SawInput }) =>
    unwrap(await client.POST('/saws', { params: { header: { 'Idempotency-Key': key } }, body })),
  );

export const useChangeSaw = () =>
  useChange(async ({ id, version, body }: { id: string; version: number; body: SawInput }) =>
    unwrap(await client.PUT('/saws/{id}', { params: { path: { id }, header: etag(version) }, body })),
  );

export const useRetireSaw = () =>
  useChange(async ({ id, body }: { id: string; body: Retirement }) =>
    unwrap(await client.PUT('/saws/{id}/retirement', { params: { path: { id } }, body })),
  );

export const useChangeShop = () =>
  useChange(async ({ version, body }: { version: number; body: ShopInput }) =>
    unwrap(await client.PUT('/shop', { params: { header: etag(version) }, body })),
  );

export const usePreviewImport = () =>
  useMutation({
    mutationFn: async (body: RackFile) => unwrap(await client.POST('/rack-import-previews', { body })),
  });

export const useImport = () =>
  useChange(async (body: RackFile) => unwrap(await client.POST('/rack-imports', { body })));

/** A sheet of labels, as SVG text. */
export const useLabels = () =>
  useMutation({
    mutationFn: async ({ ids, units, skip }: { ids: string[]; units: Units; skip: number }) =>
      unwrap(await client.POST('/labels', { body: { blade_ids: ids, units, skip }, parseAs: 'text' })),
  });

export const useBench = () =>
  useQuery({ queryKey: ['bench'], queryFn: async () => unwrap(await client.GET('/bench')).items });

export const useMounting = (id: string, units: Units) =>
  useQuery({
    queryKey: ['mounting', id, units],
    // Another device may go on with it.
    refetchInterval: 5000,
    queryFn: async () =>
      unwrap(await client.GET('/mountings/{id}', { params: { path: { id }, query: { units } } })),
  });

export const useStartMounting = () =>
  useChange(
    async (body: { saw_id: string; blade_id: string; groove_id?: string; by?: string; units: Units }) =>
      unwrap(await client.POST('/mountings', { body })),
  );

export const useStepMounting = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: async (p: {
      id: string;
      version: number;
      step: number;
      answers: Record<string, boolean>;
      units: Units;
    }) =>
      unwrap(
        await client.PUT('/mountings/{id}', {
          params: { path: { id: p.id }, header: etag(p.version) },
          body: { step: p.step, answers: p.answers, units: p.units },
        }),
      ),
    // An answer that was on its way before the step must not undo it.
    onMutate: () => cache.cancelQueries({ queryKey: ['mounting'] }),
    onSuccess: (m, p) => cache.setQueryData(['mounting', p.id, p.units], m),
    onError: () => cache.invalidateQueries({ queryKey: ['mounting'] }),
  });
};

export const useEndMounting = () =>
  useChange(
    async ({ id, version, ...body }: { id: string; version: number; by?: string; diameter_mm?: number }) =>
      unwrap(
        await client.POST('/mountings/{id}/end', { params: { path: { id }, header: etag(version) }, body }),
      ),
  );

export const useDropMounting = () =>
  useChange(async (id: string) => {
    const r = await client.DELETE('/mountings/{id}', { params: { path: { id } } });
    if (r.error) unwrap(r as never);
  });

/** What readings come to, while they are read; nothing until there are enough. */
export const useTruingResult = (body: TruingInput | undefined) =>
  useQuery({
    queryKey: ['truing-result', body],
    enabled: body !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/truing-results', { body: body! })),
    placeholderData: (last) => (body ? last : undefined),
  });

export const useTruings = (of: { saw_id?: string; blade_id?: string; test?: TruingTest }) =>
  useQuery({
    queryKey: ['truings', of],
    queryFn: async () =>
      unwrap(await client.GET('/truings', { params: { query: { ...of, limit: 100 } } })).items,
  });

export const useSaveTruing = () =>
  useChange(async ({ key, body }: { key: string; body: TruingInput }) =>
    unwrap(await client.POST('/truings', { params: { header: { 'Idempotency-Key': key } }, body })),
  );

export const useMoveSaw = () =>
  useChange(async ({ id, key, note }: { id: string; key: string; note?: string }) =>
    unwrap(
      await client.POST('/saws/{id}/moves', {
        params: { path: { id }, header: { 'Idempotency-Key': key } },
        body: { note },
      }),
    ),
  );

export const usePlaceGauge = () =>
  useMutation({
    mutationFn: async (p: { name: string; where: Place; step?: number; of?: number }) => {
      const r = await client.POST('/gauges/{name}/place', {
        params: { path: { name: p.name } },
        body: { where: p.where, step: p.step, of: p.of },
      });
      if (r.error) unwrap(r as never);
    },
  });

export type Place =
  'heel-front' | 'heel-rear' | 'fence-front' | 'fence-rear' | 'runout' | 'turned' | 'left' | 'right';

const keyed = (key: string) => ({ 'Idempotency-Key': key });

/** A call that answers nothing: its refusal as an exception. */
function done(r: { error?: unknown; response: Response }) {
  if (r.error) unwrap(r as never);
}

export const useStrike = () =>
  useChange(async ({ id, note, key }: { id: number; note?: string; key: string }) =>
    unwrap(
      await client.POST('/log/{id}/strike', { params: { path: { id }, header: keyed(key) }, body: { note } }),
    ),
  );

export const useCare = () =>
  useQuery({
    queryKey: ['care'],
    queryFn: async () => unwrap(await client.GET('/care')),
    refetchInterval: 30_000, // another device may be washing
  });

export const useJudge = () =>
  useChange(async ({ id, key, body }: { id: string; key: string; body: Judgement }) =>
    unwrap(
      await client.POST('/blades/{id}/judgements', { params: { path: { id }, header: keyed(key) }, body }),
    ),
  );

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

export const useNote = () =>
  useChange(async ({ id, key, note }: { id: string; key: string; note: string }) =>
    unwrap(
      await client.POST('/blades/{id}/notes', {
        params: { path: { id }, header: keyed(key) },
        body: { note },
      }),
    ),
  );

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

export const useCalendar = () =>
  useQuery({ queryKey: ['calendar'], queryFn: async () => unwrap(await client.GET('/calendar')) });

export const useNewCalendar = () => useChange(async () => unwrap(await client.POST('/calendar')));

export const useWithdrawCalendar = () => useChange(async () => done(await client.DELETE('/calendar')));

export const useLessons = () =>
  useQuery({ queryKey: ['lessons'], queryFn: async () => unwrap(await client.GET('/lessons')).items });

export const useTrials = (blade_id?: string) =>
  useQuery({
    queryKey: ['trials', { blade_id }],
    queryFn: async () =>
      unwrap(await client.GET('/trials', { params: { query: { blade_id, limit: 20 } } })).items,
  });

export const useTrial = (id: string) =>
  useQuery({
    queryKey: ['trials', id],
    queryFn: async () => unwrap(await client.GET('/trials/{id}', { params: { path: { id } } })),
    refetchInterval: 5000,
  });

export const useStartTrial = () =>
  useChange(async ({ key, body }: { key: string; body: TrialAsk }) =>
    unwrap(await client.POST('/trials', { params: { header: keyed(key) }, body })),
  );

export const useTrialCut = () =>
  useChange(async (p: { id: string; version: number; piece: number; seconds?: number }) =>
    unwrap(
      await client.POST('/trials/{id}/cuts', {
        params: { path: { id: p.id }, header: etag(p.version) },
        body: { piece: p.piece, seconds: p.seconds },
      }),
    ),
  );

export const useTrialGrade = () =>
  useChange(async ({ id, version, body }: { id: string; version: number; body: TrialGrade }) =>
    unwrap(
      await client.POST('/trials/{id}/grades', { params: { path: { id }, header: etag(version) }, body }),
    ),
  );

export const useEndTrial = () =>
  useChange(async ({ id, version }: { id: string; version: number }) =>
    unwrap(await client.POST('/trials/{id}/end', { params: { path: { id }, header: etag(version) } })),
  );

export const usePreviewLogImport = () =>
  useMutation({
    mutationFn: async (body: RackFile) => unwrap(await client.POST('/log-import-previews', { body })),
  });

export const useLogImport = () =>
  useChange(async (body: RackFile) => unwrap(await client.POST('/log-imports', { body })));

export const useTraceWords = () =>
  useQuery({
    queryKey: ['trace-words'],
    queryFn: async () => unwrap(await client.GET('/trace-words')),
    ...forGood,
  });

export const useTraces = () =>
  useQuery({
    queryKey: ['traces'],
    queryFn: async () => unwrap(await client.GET('/traces', { params: { query: { limit: 30 } } })).items,
  });

export const useTrace = (id: string) =>
  useQuery({
    queryKey: ['traces', id],
    queryFn: async () => unwrap(await client.GET('/traces/{id}', { params: { path: { id } } })),
    staleTime: 0, // what was washed or measured meanwhile answers a check
  });

export const useStartTrace = () =>
  useChange(async ({ key, body }: { key: string; body: TraceAsk }) =>
    unwrap(await client.POST('/traces', { params: { header: keyed(key) }, body })),
  );

export const useSetEvidence = () => {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: async ({ id, version, body }: { id: string; version: number; body: TraceEvidence }) =>
      unwrap(await client.PUT('/traces/{id}', { params: { path: { id }, header: etag(version) }, body })),
    onSuccess: (t) => cache.setQueryData(['traces', t.id], t),
    onError: () => cache.invalidateQueries({ queryKey: ['traces'] }),
  });
};

export const useEndTrace = () =>
  useChange(
    async ({
      id,
      version,
      ...body
    }: {
      id: string;
      version: number;
      cause?: string;
      fixed: boolean;
      note?: string;
    }) =>
      unwrap(
        await client.POST('/traces/{id}/end', { params: { path: { id }, header: etag(version) }, body }),
      ),
  );

export const useDropTrace = () =>
  useChange(async (id: string) => done(await client.DELETE('/traces/{id}', { params: { path: { id } } })));

export const useDadoSet = (id: string, units: Units) =>
  useQuery({
    queryKey: ['dado-set', id, units],
    enabled: id !== '',
    queryFn: async () =>
      unwrap(await client.GET('/blades/{id}/set', { params: { path: { id }, query: { units } } })),
  });

export const useSetDadoSet = (units: Units) =>
  useChange(async ({ id, version, body }: { id: string; version: number; body: DadoSetInput }) =>
    unwrap(
      await client.PUT('/blades/{id}/set', {
        params: { path: { id }, query: { units }, header: etag(version) },
        body,
      }),
    ),
  );

export const useRenewParts = (units: Units) =>
  useChange(async ({ id, key, body }: { id: string; key: string; body: Renewal }) =>
    unwrap(
      await client.POST('/blades/{id}/renewals', {
        params: { path: { id }, query: { units }, header: keyed(key) },
        body,
      }),
    ),
  );

/** Every way to a groove, once a piece has been measured for it. */
export const useGroovePlan = (ask: GrooveAsk | undefined, units: Units) =>
  useQuery({
    queryKey: ['groove-plan', ask, units],
    enabled: ask !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/groove-plans', { body: { ask: ask!, units } })),
    placeholderData: keepPreviousData,
  });

export const useGrooves = (units: Units) =>
  useQuery({
    queryKey: ['grooves', { units }],
    queryFn: async () =>
      unwrap(await client.GET('/grooves', { params: { query: { limit: 12, units } } })).items,
  });

export const useGroove = (id: string, units: Units) =>
  useQuery({
    queryKey: ['grooves', id, units],
    queryFn: async () =>
      unwrap(await client.GET('/grooves/{id}', { params: { path: { id }, query: { units } } })),
    retry: false,
  });

export const useStartGroove = () =>
  useChange(async ({ key, body }: { key: string; body: GrooveStart }) =>
    unwrap(await client.POST('/grooves', { params: { header: keyed(key) }, body })),
  );

export const useTestGroove = () =>
  useChange(async ({ id, version, body }: { id: string; version: number; body: GrooveTest }) =>
    unwrap(
      await client.POST('/grooves/{id}/tests', { params: { path: { id }, header: etag(version) }, body }),
    ),
  );

export const useEndGroove = () =>
  useChange(async ({ id, version, body }: { id: string; version: number; body: GrooveEnd }) =>
    unwrap(await client.POST('/grooves/{id}/end', { params: { path: { id }, header: etag(version) }, body })),
  );

export const useDropGroove = () =>
  useChange(async (id: string) => done(await client.DELETE('/grooves/{id}', { params: { path: { id } } })));

/** What a joint comes to as its sizes are typed, or which of them cannot be. */
export const useJoint = (ask: JointAsk | undefined) =>
  useQuery({
    queryKey: ['joint', ask],
    enabled: ask !== undefined,
    retry: false,
    queryFn: async () => unwrap(await client.POST('/joint-plans', { body: ask! })),
    placeholderData: keepPreviousData,
  });
