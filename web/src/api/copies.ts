/** Copies of the whole shop: those that the server keeps, and files that go out and come in. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { refresh, useChange } from './change';
import client, { unwrap } from './client';
import { api } from './place';
import type { DamagedRow, ShopFile } from './types';
import { send, type Upload } from './upload';

export const useCopies = () =>
  useQuery({ queryKey: ['shop', 'copies'], queryFn: async () => unwrap(await client.GET('/copies')) });

export const useMakeCopy = () => useChange('everything', async () => unwrap(await client.POST('/copies')));

export const shopFileAddress = `${api}/shop-file`;

export const useLookAtShopFile = () =>
  useMutation({ mutationFn: (u: Upload) => send<ShopFile>('POST', '/shop-file-previews', u) });

/** Rows of this shop that can't be read, those of the log where they are wanted. */
export const useDamaged = (log = false) =>
  useQuery({
    queryKey: ['shop', 'damaged', log],
    queryFn: async () => unwrap(await client.GET('/damaged-rows', { params: { query: { log } } })).items,
  });

export const useRepair = () =>
  useChange('everything', async ({ table, id, digest, row }: DamagedRow) =>
    unwrap(
      await client.PUT('/damaged-rows/{table}/{row}', {
        params: { path: { table, row: id } },
        body: { row, digest },
      }),
    ),
  );

export const useRemoveRow = () =>
  useChange('everything', async ({ table, id, digest }: DamagedRow) =>
    unwrap(
      await client.DELETE('/damaged-rows/{table}/{row}', {
        params: { path: { table, row: id }, query: { digest } },
      }),
    ),
  );

export function useBringShopFile() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (u: Upload) => send<ShopFile>('PUT', '/shop-file', u),
    onSuccess: () => refresh(cache, 'everything'),
  });
}
