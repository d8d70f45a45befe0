/** Everything that the screens ask of the server, a station a file: server state lives in these alone. */
import { useMutation, useQuery } from '@tanstack/react-query';
import client, { etag, unwrap } from './client';
import type { ShopInput, Units } from './types';
import { recalled } from './fallback';
import { forGood, useChange, done } from './change';

export const useMaterials = () =>
  useQuery({
    queryKey: ['materials'],
    queryFn: async () => unwrap(await client.GET('/materials')).items,
    ...forGood,
  });

export const useShop = () =>
  useQuery({ queryKey: ['shop'], queryFn: async () => unwrap(await client.GET('/shop')) });

/** Reads a length as somebody typed it. */
export const readingLength = ['reading-length'];

export const useReadLength = () =>
  useMutation({
    mutationKey: readingLength,
    networkMode: 'always', // where the server is away, the core here reads it
    mutationFn: async (q: { text: string; units: Units }) =>
      recalled(async () => unwrap(await client.GET('/length', { params: { query: q } })), '/length', q),
  });

export const useChangeShop = () =>
  useChange('rack', async ({ version, body }: { version: number; body: ShopInput }) =>
    unwrap(await client.PUT('/shop', { params: { header: etag(version) }, body })),
  );

export const useBench = () =>
  useQuery({ queryKey: ['bench'], queryFn: async () => unwrap(await client.GET('/bench')).items });

export const useLicences = () =>
  useQuery({
    queryKey: ['licences'],
    queryFn: async () => unwrap(await client.GET('/licences')).items,
    ...forGood,
  });

export const useCalendar = () =>
  useQuery({ queryKey: ['calendar'], queryFn: async () => unwrap(await client.GET('/calendar')) });

export const useNewCalendar = () => useChange('calendar', async () => unwrap(await client.POST('/calendar')));

export const useWithdrawCalendar = () =>
  useChange('calendar', async () => done(await client.DELETE('/calendar')));
