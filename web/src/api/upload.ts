/** Files that go to the server, with how much of each is sent. */
import { t } from '@lingui/core/macro';
import { ProblemError } from './client';
import { api } from './place';
import type { Problem } from './types';

export interface Upload {
  file: File;
  onShare: (share: number) => void; // of it sent, 0 to 1
}

/** fetch() cannot say how much of a file has gone out; this can. */
export const send = <T>(method: string, path: string, { file, onShare }: Upload) =>
  new Promise<T>((done, fail) => {
    const ask = new XMLHttpRequest();
    ask.open(method, api + path);
    ask.responseType = 'json';
    ask.setRequestHeader('Content-Type', 'application/octet-stream');
    ask.upload.onprogress = (e) => e.lengthComputable && onShare(e.loaded / e.total);
    ask.onload = () =>
      ask.status === 200 || ask.status === 202
        ? done(ask.response as T)
        : fail(new ProblemError((ask.response ?? {}) as Partial<Problem>, ask.status));
    ask.onerror = () =>
      fail(
        new Error(
          t`No answer from the server, so this may or may not be saved. Press again: it won't be saved twice.`,
        ),
      );
    ask.send(file);
  });
