import createClient from 'openapi-fetch';
import type { paths } from './schema';
import type { Problem } from './types';

const client = createClient<paths>({ baseUrl: '/api/v1' });
export default client;

/** What the server refused, in a sentence, with the field it is about. */
export class ProblemError extends Error {
  readonly status: number;
  readonly field: string | undefined;

  constructor(p: Partial<Problem>, status: number) {
    super(p.detail ?? 'Corte does not answer. Is the server still running?');
    this.status = p.status ?? status;
    this.field = p.field;
  }
}

/** The data of an answer, or its problem as an exception. */
export function unwrap<T>(r: { data?: T; error?: Partial<Problem>; response: Response }): T {
  if (r.data !== undefined) return r.data;
  throw new ProblemError(r.error ?? {}, r.response.status);
}
