/** Another language: whatever the front end says by itself comes from its catalogue. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { expect, moveTo, own, test } from './test';

const ofWeb = createRequire(path.resolve('../web/package.json'));
type Token = string | Token[] | { [option: string]: Token };
const { compileMessage } = ofWeb('@lingui/message-utils/compileMessage') as {
  compileMessage: (text: string) => Token;
};
const { generateMessageId } = ofWeb('@lingui/message-utils/generateMessageId') as {
  generateMessageId: (text: string) => string;
};
const po = ofWeb('pofile') as { parse: (text: string) => { items: { msgid: string }[] } };

const accents: Record<string, string> = {
  a: 'á',
  e: 'é',
  i: 'í',
  o: 'ó',
  u: 'ú',
  A: 'Á',
  E: 'É',
  I: 'Í',
  O: 'Ó',
  U: 'Ú',
};

/** English with every vowel accented, but for tags and what stands for a value. */
function foreign(said: Token): Token {
  if (typeof said === 'string')
    return said.replace(/<[^>]*>|[aeiou]/gi, (c) => (c.startsWith('<') ? c : accents[c]!));
  if (!Array.isArray(said)) return said;
  return said.map((part) => {
    if (!Array.isArray(part)) return foreign(part);
    const [name, kind, options] = part as [string, string?, Record<string, Token>?];
    if (!options || typeof options === 'string') return part;
    const of = Object.entries(options).map(([k, v]) => [k, k === 'offset' ? v : foreign(v)] as const);
    return [name, kind!, Object.fromEntries(of)];
  });
}

/** The browser's own words for days and months, and names of files. */
const dates = [
  'json csv',
  ...Array.from({ length: 365 }, (_, i) => i).flatMap((i) =>
    (['long', 'short'] as const).map((f) =>
      new Intl.DateTimeFormat('en-GB', { weekday: f, month: f }).format(new Date(2026, 0, i)),
    ),
  ),
].join(' ');

test('every sentence of the pages comes from the catalogue', async ({ page, request }) => {
  test.setTimeout(180_000);
  const messages: Record<string, Token> = {};
  for (const { msgid } of po.parse(readFileSync('../web/src/locales/en.po', 'utf8')).items)
    messages[generateMessageId(msgid)] = foreign(compileMessage(msgid));
  await page.addInitScript(
    (kept) => localStorage.setItem('corte.language', kept),
    JSON.stringify({ locale: 'xx', messages }),
  );
  // What the server says is its own matter (core/say): names, materials, findings.
  const known = new Set(dates.toLowerCase().match(/[a-z]+/g));
  let answers: Promise<unknown>[] = []; // to the page that stands; a slow browser drops them when it goes on
  page.on('response', (r) => {
    if (r.url().includes('/api/v1/') && r.headers()['content-type']?.includes('json'))
      answers.push(
        r.text().then(
          (text) => (text.toLowerCase().match(/[a-z]+/g) ?? []).forEach((word) => known.add(word)),
          () => undefined,
        ),
      );
  });
  const items = async (what: string) =>
    (
      (await (await request.get(`/api/v1/${what}`)).json()) as {
        items: { id: string; name: string; kind: string }[];
      }
    ).items;
  const blades = await items('blades');
  const blade = blades.find((b) => b.name === 'Plough')!.id;
  const set = blades.find((b) => b.name === 'Trapdoor')!.id;
  const saws = await items('saws');
  const made = async (what: string, data: object) =>
    (
      (await (
        await request.post(`/api/v1/${what}`, {
          data,
          headers: { 'Idempotency-Key': crypto.randomUUID() },
        })
      ).json()) as { id: string }
    ).id;
  // What is under way is of a blade of its own, so that no other journey is in its way.
  const mine = await own(request, 'Sandglass');
  const table = saws.find((s) => s.kind === 'table')!.id;
  const cut = { saw_id: table, material: 'red-oak', direction: 'rip', finish: 'show' };
  const size = { thickness_mm: 25, width_mm: 100, length_mm: 900 };
  const pins = [31, 60].map((height_mm) => ({ blade_id: mine, height_mm }));
  const trace = await made('traces', {
    cut: { ...cut, ...size },
    present: ['since-moved', 'marks-rear-arcs'],
    units: 'mm',
  });
  const wash = await made('washes', { blade_ids: [mine], cleaner: 'detergent', brush: 'nylon' });
  const trial = await made('trials', {
    ...{ cut: { ...cut, ...size }, settings: pins, repeats: 3, blind: true, units: 'mm' },
  });
  const jobs = await items('jobs');
  const job = jobs.find((j) => j.name.startsWith('Balcony'))!.id;
  const left: Record<string, string[]> = {};
  await page.goto('/');
  for (const address of [
    '/',
    '/?form=groove&d=6',
    '/run',
    '/trial/new',
    `/trial/${trial}`,
    '/jobs',
    '/jobs/new',
    `/jobs/${job}`,
    `/jobs/${job}/next`,
    '/saws',
    '/align',
    '/align/heel',
    '/align/runout',
    '/align/gauge',
    '/blades',
    `/blades/${blade}`,
    `/blades/${blade}/edit`,
    `/blades/${blade}/survey`,
    `/blades/${set}/set`,
    `/saws/${saws[0]!.id}`,
    '/blades/new',
    '/saws/new',
    '/blades/files',
    '/blades/labels',
    '/care',
    `/care/wash?b=${blade}`,
    `/care/wash/${wash}`,
    '/buy',
    '/buy/first',
    `/jobs/${job}/stock`,
    '/care/bath',
    `/care/money/${blade}`,
    '/groove',
    '/groove/joints',
    '/diagnose',
    `/diagnose/${trace}`,
    '/log',
    '/settings',
    '/start',
    '/glossary',
  ]) {
    await moveTo(page, address);
    await expect(page.getByRole('heading', { level: 1 }).first(), address).toBeVisible();
    const shown = await page.evaluate(() => {
      const out = [document.title];
      const all = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT | NodeFilter.SHOW_ELEMENT);
      for (let n = all.nextNode(); n; n = all.nextNode()) {
        if (n instanceof Element) {
          if (n.matches('script, style, code')) continue;
          for (const a of ['aria-label', 'placeholder', 'title', 'alt', 'aria-valuetext'])
            if (n.hasAttribute(a)) out.push(n.getAttribute(a)!);
        } else if (!n.parentElement?.closest('script, style, code, noscript, datalist, select'))
          out.push(n.textContent ?? '');
      }
      return out;
    });
    await Promise.all(answers);
    answers = [];
    const words = shown.flatMap((s) => s.match(/(?<![\p{L}])[a-zA-Z]{2,}(?![\p{L}])/gu) ?? []);
    const english = words.filter((w) => /[aeiou]/i.test(w) && !known.has(w.toLowerCase()));
    if (english.length > 0) left[address] = [...new Set(english)];
  }
  expect(left).toEqual({});
});
