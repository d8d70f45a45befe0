/** Another language, whole: every page in Spanish, on a phone, without an English word or anything cut off. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { expect, moveTo, own, test } from './test';

const ofWeb = createRequire(path.resolve('../web/package.json'));
const po = ofWeb('pofile') as {
  parse: (text: string) => { items: { msgid: string; msgstr: string[] }[] };
};

/** The words of a text, without tags, what stands for a value, and the verbs of a form. */
const wordsOf = (text: string) =>
  text.replace(/<[^>]*>|\{\w+(, \w+,)?|%(\[\d+\])?[\d.+]*[a-z]/g, ' ').match(/[\p{L}]{2,}/gu) ?? [];

const sentences = po.parse(readFileSync('../web/src/locales/es.po', 'utf8')).items;
const { forms } = JSON.parse(readFileSync('../internal/locale/es.json', 'utf8')) as {
  forms: Record<string, string>;
};
const lower = (texts: string[]) => new Set(texts.flatMap(wordsOf).map((w) => w.toLowerCase()));
const english = lower([...sentences.map((s) => s.msgid), ...Object.keys(forms)]);
const months = Array.from({ length: 12 }, (_, m) =>
  new Intl.DateTimeFormat('es-ES', { month: 'short' }).format(new Date(2026, m, 1)),
);
const spanish = lower([...sentences.flatMap((s) => s.msgstr), ...Object.values(forms), ...months]);

/** What people wrote: names, notes and places, which stand as they are in every language. */
function written(answer: unknown, into: Set<string>) {
  if (typeof answer !== 'object' || answer === null) return;
  for (const [key, value] of Object.entries(answer))
    if (typeof value === 'string' && /(^|_)(name|note|by|to|hangs|time_zone|assembly)$/.test(key))
      wordsOf(value).forEach((w) => into.add(w));
    else written(value, into);
}

test.use({ locale: 'es-ES', viewport: { width: 390, height: 844 } });

test('every page speaks Spanish on a phone, and nothing of it is cut off', async ({ page, request }) => {
  test.setTimeout(180_000);
  const known = new Set<string>();
  let answers: Promise<unknown>[] = []; // to the page that stands; a slow browser drops them when it goes on
  page.on('response', (r) => {
    // What a plan names are faces and edges, in codes.
    if (
      /\/api\/v1\/(?!plans|sweeps|comparisons)/.test(r.url()) &&
      r.headers()['content-type']?.includes('json')
    )
      answers.push(
        r.json().then(
          (answer) => written(answer, known),
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
    '/people',
    '/practice',
    '/special',
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
        } else if (!n.parentElement?.closest('script, style, code, noscript, datalist, select, textarea'))
          out.push(n.textContent ?? '');
      }
      return out;
    });
    await Promise.all(answers);
    answers = [];
    const words = shown.flatMap(wordsOf);
    const foreign = words.filter(
      (w) => english.has(w.toLowerCase()) && !spanish.has(w.toLowerCase()) && !known.has(w),
    );
    if (foreign.length > 0) left[address] = [...new Set(foreign)];
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    if (wide > 1) left[address] = [...(left[address] ?? []), `${wide} px too wide`];
  }
  expect(left).toEqual({});
});

test('a language is chosen under the shop’s name and kept here; an unknown one is English', async ({
  page,
}) => {
  await page.addInitScript(
    () => localStorage.getItem('corte.language') ?? localStorage.setItem('corte.language', 'xx'),
  );
  await page.goto('/');
  await expect(page.locator('html')).toHaveAttribute('lang', 'es'); // what is kept is no language, so the browser's counts
  await page.getByRole('button', { name: /(^|: )más$/i }).click();
  await page.getByRole('radio', { name: 'English' }).click();
  await expect(page.locator('html')).toHaveAttribute('lang', 'en');
  await page.goto('/run?of=cherry');
  await expect(page.getByText(/Stand to the side of the blade/).first()).toBeVisible(); // the server follows the page, not the browser
  await page.getByRole('button', { name: /(^|: )more$/i }).click();
  await page.getByRole('radio', { name: 'Español' }).click();
  await expect(page.getByText(/Colócate al lado de la hoja/).first()).toBeVisible();
});
