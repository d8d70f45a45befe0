/** Refreshes docs/screenshots from the demo shop: `make shots`. */
import { test } from './test';
import { bladePhoto } from './photos';
import { withSound } from './sounds';

type Ids = Record<string, string>; // of saws by kind, and of blades by name

const known = async (request: import('@playwright/test').APIRequestContext): Promise<Ids> => {
  const list = async (path: string) =>
    ((await (await request.get(path)).json()) as { items: { id: string; kind?: string; name: string }[] })
      .items;
  const all = [...(await list('/api/v1/saws')), ...(await list('/api/v1/blades?limit=500'))];
  return Object.fromEntries(all.map((x) => [x.kind ?? x.name, x.id]));
};

const balcony = async (request: import('@playwright/test').APIRequestContext) => {
  const { items } = (await (await request.get('/api/v1/jobs')).json()) as { items: { id: string }[] };
  return `/jobs/${items[0]!.id}`;
};

const sheet = 'cut=sheet&of=birch-ply&t=19.05&w=609.6&l=1219.2&for=show';

const views: {
  name: string;
  path: (id: Ids, request: import('@playwright/test').APIRequestContext) => string | Promise<string>;
  size?: [number, number];
  night?: true;
  inches?: true;
  locale?: string;
  press?: (string | RegExp)[]; // buttons, before the picture
  pushed?: true; // by a key, with a stop on the way
}[] = [
  { name: 'choose-rip', path: () => '/' },
  {
    name: 'choose-sheet-night-inches',
    path: () => `/?${sheet}&exit=zero-clearance`,
    night: true,
    inches: true,
  },
  { name: 'choose-phone', path: () => '/', size: [390, 844], locale: 'es-ES' },
  {
    name: 'mount-phone',
    size: [390, 844],
    path: async (id, request) => {
      const body = { saw_id: id.table, blade_id: id.Needle, units: 'mm' };
      const m = (await (await request.post('/api/v1/mountings', { data: body })).json()) as {
        id: string;
        version: number;
      };
      const step = { step: 4, answers: { dead: true, teeth: true, plate: true }, units: 'mm' };
      await request.put(`/api/v1/mountings/${m.id}`, {
        data: step,
        headers: { 'If-Match': `"${m.version}"` },
      });
      return `/mount/${m.id}`;
    },
  },
  {
    name: 'groove',
    path: () => '/groove?of=birch-ply&cut=sheet&t=18&w=400&l=900&p=17.85~17.9~17.85&n=12',
    press: [/^Trapdoor/],
  },
  { name: 'people', path: () => '/people' },
  { name: 'care', path: () => '/care' },
  {
    name: 'wash-phone',
    size: [390, 844],
    path: async (id, request) => {
      const answer = await request.post('/api/v1/washes', {
        headers: { 'Idempotency-Key': crypto.randomUUID() },
        data: { blade_ids: [id.Rook, id.Chorus], cleaner: 'detergent', brush: 'nylon' },
      });
      return `/care/wash/${((await answer.json()) as { id: string }).id}`;
    },
  },
  { name: 'job', path: (_, request) => balcony(request) },
  {
    name: 'trace',
    path: async (id, request) => {
      const size = { thickness_mm: 25, width_mm: 120, length_mm: 900 };
      const answer = await request.post('/api/v1/traces', {
        headers: { 'Idempotency-Key': crypto.randomUUID() },
        data: {
          cut: { saw_id: id.table, material: 'red-oak', direction: 'rip', finish: 'show', ...size },
          present: ['since-moved', 'marks-rear-arcs', 'scorch-fence-wall'],
          units: 'mm',
        },
      });
      return `/diagnose/${((await answer.json()) as { id: string }).id}`;
    },
  },
  { name: 'bench', path: () => '/saws' },
  { name: 'true', path: () => '/align' },
  { name: 'rack', path: () => '/blades' },
  { name: 'blade', path: (id) => `/blades/${id.Chorus}` },
  { name: 'log', path: () => '/log' },
  { name: 'learn-feed', path: () => '/practice/feed?number=1&skill=feed/board&level=3', pushed: true },
  {
    name: 'special',
    path: () => '/special?cut=cove',
  },
];

for (const view of views) {
  test(view.name, async ({ browser, request, baseURL }) => {
    const [width, height] = view.size ?? [1280, 800];
    const page = await browser.newPage({
      viewport: { width, height },
      colorScheme: view.night ? 'dark' : 'light',
      reducedMotion: view.pushed ? 'no-preference' : 'reduce',
      baseURL,
      locale: view.locale ?? 'en-GB',
    });
    await page.addInitScript((u) => localStorage.setItem('corte.units', u), view.inches ? 'in' : 'mm');
    await page.goto(await view.path(await known(request), request));
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.waitForLoadState('networkidle');
    for (const name of view.press ?? []) await page.getByRole('button', { name, exact: true }).click();
    if (view.pushed) {
      await page.getByRole('slider').focus();
      for (const ms of [7000, 3000]) {
        await page.keyboard.down('ArrowRight');
        await page.waitForTimeout(ms);
        if (ms === 7000) await page.keyboard.up('ArrowRight');
        if (ms === 7000) await page.waitForTimeout(1200);
      }
    }
    await page.waitForLoadState('networkidle');
    await page.getByText('Drawing…').waitFor({ state: 'detached' });
    await page.waitForLoadState('networkidle');
    await page.waitForTimeout(300);
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: `../docs/screenshots/${view.name}.png` });
    await page.close();
  });
}

test('run', async ({ request, baseURL }, info) => {
  const { Stagehand } = await known(request);
  const cuts = [3, 8, 13].map((from) => ({ from, to: from + 3.4, droop: 0.022 }));
  await withSound({ teeth: 40, idle: 4080, seconds: 30, cuts }, info.outputPath(), baseURL!, async (page) => {
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.addInitScript(() => localStorage.setItem('corte.units', 'mm'));
    await page.goto(`/run?of=cherry&t=19&for=show&blade=${Stagehand}`);
    await page.getByRole('button', { name: 'Listen to the saw' }).click();
    await page.getByText('2 cuts').waitFor();
    await page.getByText('cutting', { exact: true }).waitFor();
    await page.waitForTimeout(900);
    await page.screenshot({ path: '../docs/screenshots/run.png' });
  });
});

test('which-blade', async ({ page }) => {
  await page.goto('/blades/look');
  const photo = await bladePhoto(page, { teeth: 24, hook: 20, bore: 15.875 / 254, missing: 5, bent: 13 });
  await page.getByLabel('Photo of a blade', { exact: true }).setInputFiles(photo);
  await page.getByRole('heading', { name: '24 teeth' }).waitFor();
  await page.getByRole('button', { name: 'Bore', exact: true }).click();
  await page.getByLabel('Bore, measured').fill('15.875');
  await page.getByText(/^about/).waitFor();
  await page.screenshot({ path: '../docs/screenshots/which-blade.png' });
});
