/** Copies of the whole shop: those that the server keeps, and files that go out and come in. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { t } from '@lingui/core/macro';
import { refresh, useChange } from './change';
import client, { ProblemError, unwrap } from './client';
import { api } from './place';
import type { Problem, ShopFile } from './types';

export const useCopies = () =>
  useQuery({ queryKey: ['shop', 'copies'], queryFn: async () => unwrap(await client.GET('/copies')) });

export const useMakeCopy = () => useChange(async () => unwrap(await client.POST('/copies')));

export const shopFileAddress = `${api}/shop-file`;

interface Upload {
  file: File;
  onShare: (share: number) => void; // of it sent, 0 to 1
}

export const useLookAtShopFile = () =>
  useMutation({ mutationFn: (u: Upload) => send('POST', '/shop-file-previews', u) });

export function useBringShopFile() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (u: Upload) => send('PUT', '/shop-file', u),
    onSuccess: () => refresh(cache),
  });
}

/** fetch() cannot say how much of a file has gone out; this can. */
const send = (method: string, path: string, { file, onShare }: Upload) =>
  new Promise<ShopFile>((done, fail) => {
    const ask = new XMLHttpRequest();
    ask.open(method, api + path);
    ask.responseType = 'json';
    ask.setRequestHeader('Content-Type', 'application/octet-stream');
    ask.upload.onprogress = (e) => e.lengthComputable && onShare(e.loaded / e.total);
    ask.onload = () =>
      ask.status === 200
        ? done(ask.response as ShopFile)
        : fail(new ProblemError((ask.response ?? {}) as Partial<Problem>, ask.status));
    ask.onerror = () =>
      fail(
        new Error(t`Corte does not answer: it is not known whether this was saved. The same button is safe.`),
      );
    ask.send(file);
  });
