/**
 * Cuts, readings, ticks of jobs and steps of washes that wait in this browser while the server doesn't answer. Each
 * keeps its key, so that it is logged once however often it is sent, and they are sent one after the other in the
 * order in which they were made. Each belongs to the person who made it, in the shop they made it in: nobody else
 * sees, sends or discards it, and it outlasts a sign-out. They are in IndexedDB, which changes them in one
 * transaction, so that two tabs lose nothing of each other's; `all` is what this tab read last.
 */
import { get, update } from 'idb-keyval';
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

export const KEY = `corte.waiting${place}`;
const AGAIN = 4000; // ms between tries

const listeners = new Set<() => void>();
const tabs = new BroadcastChannel(KEY);
export const stepped = new Set<(w: TimedWash) => void>();
/** What sends. It is no part of the first script. */
const sending = () => import('./sending');

let maker: string | null | undefined; // who is signed in here, as Made-By has it; null for nobody, undefined where it isn't known yet
let all: Waiting[] = [];
let mine: Waiting[] = [];

function show(now: Waiting[]) {
  all = now;
  mine = all.filter((w) => w.of === maker);
  listeners.forEach((f) => f());
}

/** Reads what waits, as another tab may have changed it. */
export const reread = async () => show((await get<Waiting[]>(KEY)) ?? []);

/** Changes what waits. */
export async function change(by: (all: Waiting[]) => Waiting[]) {
  let now: Waiting[] = [];
  await update<Waiting[]>(KEY, (kept) => (now = by(kept ?? [])));
  show(now);
  tabs.postMessage(0);
}

/** Says who is signed in here: what waits of theirs is shown and sent from now on, and of nobody else. */
export function setMaker(now: string | null | undefined) {
  if (now === maker) return;
  maker = now;
  show(all);
  // What was kept before it was known who is here is theirs.
  if (now) void change((kept) => kept.map((w) => ({ ...w, of: w.of ?? now }))).catch(() => undefined);
}

/** What waits of the person who is signed in here, oldest first; the same array until it changes. */
export const waiting = () => mine;

export function watchWaiting(f: () => void) {
  listeners.add(f);
  tabs.onmessage = () => void reread();
  void reread().catch(() => undefined); // a browser without a database has nothing that waits
  return () => void listeners.delete(f);
}

/** Tells of every wash that a step was sent of, before that step is forgotten here. */
export function watchSteps(f: (w: TimedWash) => void) {
  stepped.add(f);
  return () => void stepped.delete(f);
}

export const forgetWaiting = (key: string) => change((all) => all.filter((c) => c.key !== key));

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
  const kept =
    maker !== null &&
    (await change((all) => [...all, made]).then(
      () => true,
      () => false,
    ));
  if (!kept) {
    // Nobody is signed in for whom it could wait, or the browser keeps nothing: the server takes it now or says why not.
    await (await sending()).send(made);
    return { waits: false };
  }
  await sending().then(
    (m) => m.flush(),
    () => undefined,
  ); // it waits where even that can't be fetched
  const still = all.find((c) => c.key === cut.key);
  if (still?.refused) {
    await forgetWaiting(cut.key);
    throw new Error(still.refused);
  }
  return { waits: !!still, why: still?.trouble };
}

export const next = () => waiting().find((c) => !c.refused);

/** Goes on trying as long as something waits; says when something was sent. */
export function sendWaiting(onSent: () => void) {
  const go = () => {
    if (next())
      void sending()
        .then((m) => m.flush())
        .then(
          (n) => n > 0 && onSent(),
          () => undefined,
        );
  };
  const timer = setInterval(go, AGAIN);
  addEventListener('online', go);
  void reread().then(go, () => undefined);
  return () => {
    clearInterval(timer);
    removeEventListener('online', go);
  };
}
