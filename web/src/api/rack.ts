import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import client, { etag, unwrap } from './client';
import type { ToTheCore } from './core';
import type {
  Blade,
  BladeInput,
  DadoSetInput,
  RackFile,
  Renewal,
  Retirement,
  SawInput,
  UnmarkedReadings,
  Units,
} from './types';
import { useChange, forGood, keyed } from './change';

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

export const useSaw = (id: string) =>
  useQuery({
    queryKey: ['saws', id],
    enabled: id !== '',
    queryFn: async () => unwrap(await client.GET('/saws/{id}', { params: { path: { id } } })),
  });

/** A saw of each kind as it usually is. */
export const useUsualSaws = () =>
  useQuery({
    queryKey: ['usual-saws'],
    queryFn: async () => unwrap(await client.GET('/starters/saws')).items,
    ...forGood,
  });

/** A kind of saw with what follows from the diameter of its blade. */
export const useUsualSaw = (of: { kind: SawInput['kind']; diameter_mm: number } | undefined) =>
  useQuery({
    queryKey: ['usual-saws', of],
    enabled: of !== undefined,
    queryFn: async () => unwrap(await client.GET('/starters/saws', { params: { query: of! } })).items[0]!,
    placeholderData: keepPreviousData,
    ...forGood,
  });

/** The usual blades of a saw. */
export const useUsualBlades = (saw_id: string | undefined) =>
  useQuery({
    queryKey: ['saws', 'usual-blades', saw_id],
    enabled: saw_id !== undefined,
    queryFn: async () =>
      unwrap(await client.GET('/starters/blades', { params: { query: { saw_id: saw_id! } } })).items,
  });

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
    meta: { core: { address: '/unmarked-blades', body } satisfies ToTheCore },
    placeholderData: keepPreviousData,
  });

export const useAddBlade = () =>
  useChange('rack', async ({ key, body }: { key: string; body: BladeInput }) =>
    unwrap(await client.POST('/blades', { params: { header: { 'Idempotency-Key': key } }, body })),
  );

export const useChangeBlade = () =>
  useChange('rack', async ({ id, version, body }: { id: string; version: number; body: BladeInput }) =>
    unwrap(await client.PUT('/blades/{id}', { params: { path: { id }, header: etag(version) }, body })),
  );

export const useRetireBlade = () =>
  useChange('log', async ({ id, body }: { id: string; body: Retirement }) =>
    unwrap(await client.PUT('/blades/{id}/retirement', { params: { path: { id } }, body })),
  );

export const useRestoreBlade = () =>
  useChange('log', async (id: string) =>
    unwrap(await client.DELETE('/blades/{id}/retirement', { params: { path: { id } } })),
  );

export const useSetPhoto = () =>
  useChange('rack', async ({ id, file }: { id: string; file: File | null }) => {
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
  useChange('rack', async ({ key, body }: { key: string; body: SawInput }) =>
    unwrap(await client.POST('/saws', { params: { header: { 'Idempotency-Key': key } }, body })),
  );

export const useChangeSaw = () =>
  useChange('rack', async ({ id, version, body }: { id: string; version: number; body: SawInput }) =>
    unwrap(await client.PUT('/saws/{id}', { params: { path: { id }, header: etag(version) }, body })),
  );

export const useRetireSaw = () =>
  useChange('log', async ({ id, body }: { id: string; body: Retirement }) =>
    unwrap(await client.PUT('/saws/{id}/retirement', { params: { path: { id } }, body })),
  );

export const usePreviewImport = () =>
  useMutation({
    mutationFn: async (body: RackFile) => unwrap(await client.POST('/rack-import-previews', { body })),
  });

export const useImport = () =>
  useChange('rack', async (body: RackFile) => unwrap(await client.POST('/rack-imports', { body })));

/** A sheet of labels, as SVG text. */
export const useLabels = () =>
  useMutation({
    mutationFn: async ({ ids, units, skip }: { ids: string[]; units: Units; skip: number }) =>
      unwrap(await client.POST('/labels', { body: { blade_ids: ids, units, skip }, parseAs: 'text' })),
  });

/** Names of blades that can serve while one is away. */
export const useStandIns = (id: string) =>
  useQuery({
    queryKey: ['stand-ins', id],
    queryFn: async () =>
      unwrap(await client.GET('/blades/{id}/stand-ins', { params: { path: { id } } })).items,
  });

export const useDadoSet = (id: string, units: Units) =>
  useQuery({
    queryKey: ['dado-set', id, units],
    enabled: id !== '',
    queryFn: async () =>
      unwrap(await client.GET('/blades/{id}/set', { params: { path: { id }, query: { units } } })),
  });

export const useSetDadoSet = (units: Units) =>
  useChange('log', async ({ id, version, body }: { id: string; version: number; body: DadoSetInput }) =>
    unwrap(
      await client.PUT('/blades/{id}/set', {
        params: { path: { id }, query: { units }, header: etag(version) },
        body,
      }),
    ),
  );

export const useRenewParts = (units: Units) =>
  useChange('log', async ({ id, key, body }: { id: string; key: string; body: Renewal }) =>
    unwrap(
      await client.POST('/blades/{id}/renewals', {
        params: { path: { id }, query: { units }, header: keyed(key) },
        body,
      }),
    ),
  );
