/** Questions to the core, worked out in this browser where the server does not answer. */
import { i18n } from '@lingui/core';
import { get } from 'idb-keyval';
import type { Answer, Picture, Question } from './worker';
import { ProblemError } from './client';
import { SHELF } from './cache';
import type { HeardSaw } from './types';

/** What the server would be asked, so that the core here can be. */
export interface ToTheCore extends Record<string, unknown> {
  address:
    | '/plans'
    | '/sweeps'
    | '/comparisons'
    | '/support-plans'
    | '/length'
    | '/unmarked-blades'
    | '/blade-looks'
    | '/wall-looks'
    | '/edge-looks';
  body: unknown;
  picture?: () => Promise<Picture>; // for what looks at one; decoded only if the core here is to look
}

/** The status of an answer that the core here could not give (see the worker). */
const FAILED = 503;

let worker: Worker | undefined;
let told: number | undefined; // the moment of the shelf that the worker has
let next = 0;
const waiting = new Map<number, (a: Answer) => void>();

function host() {
  if (worker) return worker;
  worker = new Worker(new URL('./worker.ts', import.meta.url), { name: 'core' });
  worker.onmessage = ({ data }: MessageEvent<Answer>) => {
    waiting.get(data.id)?.(data);
    waiting.delete(data.id);
  };
  // A worker that cannot be had answers nobody; the next question asks for another.
  worker.onerror = () => {
    worker = undefined;
    for (const [id, answer] of waiting) answer({ id, status: FAILED, body: '{}' });
    waiting.clear();
  };
  return worker;
}

/** Asks the core here, over the shelf that was last seen; undefined where there is none, or no answer. */
async function put(question: Omit<Question, 'id' | 'shelf'>) {
  const shelf = await get<{ at: number; data: unknown }>(SHELF).catch(() => undefined);
  if (!shelf) return undefined;
  const id = next++;
  const answer = await new Promise<Answer>((resolve) => {
    waiting.set(id, resolve);
    const fresh = told === shelf.at ? {} : { shelf: JSON.stringify(shelf.data), language: i18n.locale };
    told = shelf.at;
    host().postMessage({ id, ...fresh, ...question } satisfies Question);
  });
  if (answer.status === FAILED) {
    told = undefined; // whatever it had of the shelf
    return undefined;
  }
  return { at: shelf.at, status: answer.status, data: JSON.parse(answer.body) as unknown };
}

/** An answer, or its problem as an exception. */
async function answered(asked: ReturnType<typeof put>) {
  const answer = await asked;
  if (answer && answer.status !== 200) throw new ProblemError(answer.data as object, answer.status);
  return answer;
}

/** An answer of the core over the shelf that was last seen, and when that was; undefined where there is none. */
export async function workOut(ask: ToTheCore): Promise<{ at: number; data: unknown } | undefined> {
  return answered(
    put({ address: ask.address, body: JSON.stringify(ask.body), picture: await ask.picture?.() }),
  );
}

/** Begins to listen here; false where the core here knows no shelf. */
export async function listenHere(saw: string, blade: string, rate: number) {
  return (
    (await answered(put({ address: '/listening', body: '', listen: { saw, blade, rate } }))) !== undefined
  );
}

/** What was heard so far, with this block. */
export async function hearHere(block: Uint8Array) {
  const answer = await answered(put({ address: '/listening', body: '', block }));
  return answer && (answer.data as HeardSaw);
}
