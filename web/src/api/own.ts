/** Which blades a shop should own, and what its stock yields. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import client, { etag, unwrap } from './client';
import { useChange } from './change';
import type { JobRowInput, OwningAsk, OwningInput, StockAsk, Units } from './types';

export const useOwning = (body: OwningAsk) =>
  useQuery({
    queryKey: ['owning', body],
    placeholderData: keepPreviousData,
    queryFn: async () => unwrap(await client.POST('/owning-plans', { body })),
  });

/** What an hour and blades cost here, and what is wished for. */
export const useOwningNotes = () =>
  useQuery({ queryKey: ['owning', 'notes'], queryFn: async () => unwrap(await client.GET('/owning')) });

export const useNoteOwning = () =>
  useChange('owning', async ({ version, body }: { version: number; body: OwningInput }) =>
    unwrap(await client.PUT('/owning', { params: { header: etag(version) }, body })),
  );

export const useFirstBlades = (rows: JobRowInput[], units: Units) =>
  useQuery({
    // Ids are made anew with every reading of the list; what is asked is the rest.
    queryKey: ['first-blades', rows.map((r) => ({ ...r, id: '' })), units],
    enabled: rows.length > 0,
    placeholderData: keepPreviousData,
    queryFn: async () => unwrap(await client.POST('/first-blades', { body: { rows, units } })),
  });

export const useStock = (body: StockAsk | undefined) =>
  useQuery({
    queryKey: ['stock', body],
    enabled: body !== undefined,
    placeholderData: keepPreviousData,
    queryFn: async () => unwrap(await client.POST('/stock-plans', { body: body! })),
  });
