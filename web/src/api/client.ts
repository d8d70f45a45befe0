import { t } from '@lingui/core/macro';
import createClient from 'openapi-fetch';
import { api } from './place';
import type { paths } from './schema';
import type { Problem } from './types';

const client = createClient<paths>({ baseUrl: api });
export default client;

/**
 * The keys of changes that got no answer. The same change, sent again, takes its
 * key along, so that the same button is safe however often it is pressed.
 */
const unanswered = new Map<string, string>();
const changes = new WeakMap<Request, string>();

let signedOut: () => void = () => undefined;

/** Tells when a call is refused because nobody is signed in any more. */
export const onSignedOut = (f: () => void) => {
  signedOut = f;
};

client.use({
  async onRequest({ request }) {
    const typed = request.headers.get('Content-Type') ?? '';
    if (request.method === 'GET' || request.headers.has('Idempotency-Key')) return;
    if (typed !== '' && !typed.startsWith('application/json')) return; // a photo
    const version = request.headers.get('If-Match') ?? '';
    const change = [request.method, request.url, version, await request.clone().text()].join('\n');
    const key = unanswered.get(change) ?? crypto.randomUUID();
    unanswered.set(change, key);
    request.headers.set('Idempotency-Key', key);
    changes.set(request, change);
  },
  onResponse({ request, response }) {
    const change = changes.get(request);
    if (change !== undefined && response.status < 500) unanswered.delete(change);
    if (response.status === 401 && !request.url.includes('/session')) signedOut();
  },
  // The browser's own word for it helps nobody.
  onError({ request, error }) {
    if (error instanceof DOMException) return; // given up by the page itself
    return new Error(
      request.method === 'GET'
        ? t`You're offline, and this page hasn't been opened on this device before.`
        : t`No answer from the server, so this may or may not be saved. Press again: it won't be saved twice.`,
    );
  },
});

/** What the server refused, in a sentence, with the field it is about. */
export class ProblemError extends Error {
  readonly status: number;
  readonly field: string | undefined;

  constructor(p: Partial<Problem>, status: number) {
    super(p.detail ?? t`No answer from Corte. Check that the server is running.`);
    this.status = p.status ?? status;
    this.field = p.field;
  }
}

/** The data of an answer, or its problem as an exception. */
export function unwrap<T>(r: { data?: T; error?: Partial<Problem>; response: Response }): T {
  if (r.data !== undefined) return r.data;
  throw new ProblemError(r.error ?? {}, r.response.status);
}

/** The header of a change over a version. */
export const etag = (version: number) => ({ 'If-Match': `"${version}"` });
