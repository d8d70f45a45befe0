/** Queues what was done, and has it sent. */
import { enqueue, forgetWaiting, next, queued, reread, type Waiting } from './queue';

const AGAIN = 4000; // ms between tries

/** What sends. It is no part of the first script. */
const sending = () => import('./sending');

/** What became of it: logged, or kept here because the server is away or in trouble. */
export interface Kept {
  waits: boolean;
  why?: string;
}

/** Keeps a cut or readings and sends what waits. Refused at once, it is not kept, and the refusal is thrown. */
export async function keep(cut: Omit<Waiting, 'at'>): Promise<Kept> {
  const { made, kept } = await enqueue(cut);
  if (!kept) {
    await (await sending()).send(made); // the server takes it now or says why not
    return { waits: false };
  }
  await sending().then(
    (m) => m.flush(),
    () => undefined,
  ); // it waits where even that can't be fetched
  const still = queued(cut.key);
  if (still?.refused) {
    await forgetWaiting(cut.key);
    throw new Error(still.refused);
  }
  return { waits: !!still, why: still?.trouble };
}

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
