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

const listeners = new Set<() => void>();
const tabs = new BroadcastChannel(KEY);
export const stepped = new Set<(w: TimedWash) => void>();
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
  if (now) void claim(now).catch(() => undefined);
}

async function claim(now: string) {
  await reread();
  if (all.every((w) => w.of)) return;
  await change((kept) => kept.map((w) => ({ ...w, of: w.of ?? now })));
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

/** Puts one at the end; `kept` is false where nobody is signed in for whom it could wait, or the browser keeps nothing. */
export async function enqueue(cut: Omit<Waiting, 'at'>) {
  const made: Waiting = { ...cut, of: maker ?? undefined, at: new Date().toISOString() };
  const kept =
    maker !== null &&
    (await change((all) => [...all, made]).then(
      () => true,
      () => false,
    ));
  return { made, kept };
}

/** One that is still in the queue. */
export const queued = (key: string) => all.find((c) => c.key === key);

/** The next to be sent. */
export const next = () => mine.find((c) => !c.refused);

/** A wash as the server has it, and by how much its clock was ahead of this device's when it said so, ms. */
export type TimedWash = Wash & { ahead: number };

export const timed = (w: Wash): TimedWash => ({ ...w, ahead: Date.parse(w.now) - Date.now() });
