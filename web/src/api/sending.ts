/** Sends what waits (queue.ts), one after the other, each in its maker's session alone. */
import client, { etag, ProblemError, unwrap } from './client';
import { change, forgetWaiting, KEY, next, reread, stepped, timed, type Waiting } from './queue';

const PATIENCE = 8000; // ms for one answer

// The row of the cut sent last: what was made after it is logged after it, by the server's clock.
let after: string | undefined;

/**
 * Sends one. How long it waited stands beside it, so that it stays the same to the letter however often it is sent,
 * and no clock of a tablet is trusted, only what passed on it. Another tab may have signed somebody else in
 * meanwhile: the server takes it from its maker alone.
 */
export async function send(c: Waiting) {
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
export const flush = () =>
  navigator.locks.request(KEY, async () => {
    let sent = 0;
    await reread();
    for (let c = next(); c; c = next()) {
      const { key } = c;
      try {
        await send(c);
        await forgetWaiting(key);
        sent++;
      } catch (e) {
        const answered = e instanceof ProblemError;
        const away = !answered || e.status >= 500 || [401, 429].includes(e.status) || notNow(e);
        const told = answered ? { [away ? 'trouble' : 'refused']: e.message } : {};
        await change((all) => all.map((w) => (w.key === key ? { ...w, ...told } : w)));
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

/** Takes over what an earlier version kept in localStorage, once. */
async function takeOver() {
  const old = localStorage.getItem(KEY);
  if (!old) return;
  await change((now) => [
    ...(JSON.parse(old) as Waiting[]).filter((w) => !now.some((n) => n.key === w.key)),
    ...now,
  ]);
  localStorage.removeItem(KEY);
}

void takeOver().catch(() => undefined);
