/**
 * Cuts, readings, ticks of jobs and steps of washes that wait in this browser while the server doesn't answer. Each
 * keeps its key, so that it is logged once however often it is sent, and they are sent one after the other in the
 * order in which they were made. Each belongs to the person who made it, in the shop they made it in: nobody else
 * sees, sends or discards it, and it outlasts a sign-out.
 */
import client, { etag, ProblemError, unwrap } from './client';
import { place } from './place';
import type { CutMade, JobTick, TruingInput, Wash } from './types';

export interface Waiting {
  key: string;
  of?: string; // shop and member who made it, as Made-By has them; missing in what an earlier version kept
  made?: CutMade; // a cut
  read?: TruingInput; // or the readings of a session
  tick?: { id: string; body: JobTick }; // or pieces of a job
  wash?: { id: string; version: number; to: number | 'end' }; // or a step of a wash, over the version it leads on from
  at: string; // when it was made
  blade: string; // what it is of, for people
  refused?: string; // why the server will not have it
  trouble?: string; // what the server said of itself, if it said anything
}

const KEY = `corte.waiting${place}`;
const AGAIN = 4000; // ms between tries
const PATIENCE = 8000; // ms for one answer

const listeners = new Set<() => void>();
const stepped = new Set<(w: TimedWash) => void>();
let maker: string | null | undefined; // who is signed in here, as Made-By has it; null for nobody, undefined where it isn't known yet
let seen: { text: string; maker?: string | null; mine: Waiting[] } = { text: '', mine: [] };

const everyones = () => JSON.parse(localStorage.getItem(KEY) ?? '[]') as Waiting[];

/** Says who is signed in here: what waits of theirs is shown and sent from now on, and of nobody else. */
export function setMaker(now: string | null | undefined) {
  if (now === maker) return;
  maker = now;
  after = undefined;
  // What an earlier version kept names nobody: it is of whoever is here when this one first runs.
  if (now) store(everyones().map((w) => ({ ...w, of: w.of ?? now })));
  else listeners.forEach((f) => f());
}

/** What waits of the person who is signed in here, oldest first; the same array until it changes. */
export function waiting(): Waiting[] {
  const text = localStorage.getItem(KEY) ?? '[]';
  if (text !== seen.text || maker !== seen.maker)
    seen = { text, maker, mine: everyones().filter((w) => w.of === maker) };
  return seen.mine;
}

function store(all: Waiting[]) {
  localStorage.setItem(KEY, JSON.stringify(all));
  listeners.forEach((f) => f());
}

export function watchWaiting(f: () => void) {
  listeners.add(f);
  addEventListener('storage', f); // another tab
  return () => {
    listeners.delete(f);
    removeEventListener('storage', f);
  };
}

/** Tells of every wash that a step was sent of, before that step is forgotten here. */
export function watchSteps(f: (w: TimedWash) => void) {
  stepped.add(f);
  return () => void stepped.delete(f);
}

export const forgetWaiting = (key: string) => store(everyones().filter((c) => c.key !== key));

/** What became of it: logged, or kept here because the server is away or in trouble. */
export interface Kept {
  waits: boolean;
  why?: string;
}

/** A wash as the server has it, and by how much its clock was ahead of this device's when it said so, ms. */
export type TimedWash = Wash & { ahead: number };

export const timed = (w: Wash): TimedWash => ({ ...w, ahead: Date.parse(w.now) - Date.now() });

/** Keeps a cut or readings and sends what waits. Refused at once, it is not kept, and the refusal is thrown. */
export async function keep(cut: Omit<Waiting, 'at'>): Promise<Kept> {
  const made = { ...cut, of: maker ?? undefined, at: new Date().toISOString() };
  if (maker === null) {
    await send(made); // nobody is signed in for whom it could wait: the server says what is missing
    return { waits: false };
  }
  store([...everyones(), made]);
  await flush();
  const mine = everyones().find((c) => c.key === cut.key);
  if (mine?.refused) {
    forgetWaiting(cut.key);
    throw new Error(mine.refused);
  }
  return mine ? { waits: true, why: mine.trouble } : { waits: false };
}

// The row of the cut sent last: what was made after it is logged after it, by the server's clock.
let after: string | undefined;

/**
 * Sends one. How long it waited stands beside it, so that it stays the same to the letter however often it is sent,
 * and no clock of a tablet is trusted, only what passed on it. Another tab may have signed somebody else in
 * meanwhile: the server takes it from its maker alone.
 */
async function send(c: Waiting) {
  const waited = Math.max(0, (Date.now() - Date.parse(c.at)) / 1000);
  const sending: Sending = {
    params: {
      header: { 'Idempotency-Key': c.key, 'Waited-Seconds': waited, 'Made-After': after, 'Made-By': c.of },
    },
    signal: AbortSignal.timeout(PATIENCE),
  };
  if (c.made) after = unwrap(await client.POST('/cuts', { ...sending, body: c.made })).at;
  else if (c.wash) await sendStep(c.wash, sending);
  else if (c.tick)
    unwrap(
      await client.POST('/jobs/{id}/ticks', {
        ...sending,
        params: { ...sending.params, path: { id: c.tick.id } },
        body: c.tick.body,
      }),
    );
  else if (c.read) after = unwrap(await client.POST('/truings', { ...sending, body: c.read })).at;
}

/** Sends in order until one gets no answer. One tab at a time. */
const flush = () =>
  navigator.locks.request(KEY, async () => {
    let sent = 0;
    for (let c = next(); c; c = next()) {
      const { key } = c;
      try {
        await send(c);
        forgetWaiting(key);
        sent++;
      } catch (e) {
        const answered = e instanceof ProblemError;
        const away = !answered || e.status >= 500 || [401, 429].includes(e.status) || notNow(e);
        const told = answered ? { [away ? 'trouble' : 'refused']: e.message } : {};
        store(everyones().map((w) => (w.key === key ? { ...w, ...told } : w)));
        if (away) break;
      }
    }
    return sent;
  });

interface Sending {
  params: {
    header: {
      'Idempotency-Key': string;
      'Waited-Seconds': number;
      'Made-After'?: string;
      'Made-By'?: string;
    };
  };
  signal: AbortSignal;
}

async function sendStep({ id, version, to }: NonNullable<Waiting['wash']>, { params, signal }: Sending) {
  const at = { path: { id }, header: { ...params.header, ...etag(version) } };
  if (to === 'end') {
    const { items } = unwrap(await client.POST('/washes/{id}/end', { params: at, signal }));
    after = items[0]?.at ?? after;
    return;
  }
  const w = timed(unwrap(await client.PUT('/washes/{id}', { params: at, signal, body: { step: to } })));
  stepped.forEach((f) => f(w));
}

/** A refusal of who asks, not of what was sent, which names a field: it waits until its maker may send it. */
const notNow = (e: ProblemError) => e.status === 403 && e.field === undefined;

const next = () => waiting().find((c) => !c.refused);

/** Goes on trying as long as something waits; says when something was sent. */
export function sendWaiting(onSent: () => void) {
  const go = () => {
    if (next()) void flush().then((n) => n > 0 && onSent());
  };
  const timer = setInterval(go, AGAIN);
  addEventListener('online', go);
  go();
  return () => {
    clearInterval(timer);
    removeEventListener('online', go);
  };
}
