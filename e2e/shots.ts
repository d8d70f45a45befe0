/** Refreshes docs/screenshots from the demo shop: `make shots`. */
import { test } from '@playwright/test';

type Ids = Record<string, string>; // of saws by kind, and of blades by name

const known = async (request: import('@playwright/test').APIRequestContext): Promise<Ids> => {
  const list = async (path: string) =>
    ((await (await request.get(path)).json()) as { items: { id: string; kind?: string; name: string }[] })
      .items;
  const all = [...(await list('/api/v1/saws')), ...(await list('/api/v1/blades?limit=500'))];
  return Object.fromEntries(all.map((x) => [x.kind ?? x.name, x.id]));
};

const sheet = 'cut=sheet&of=birch-ply&t=19.05&w=609.6&l=1219.2&for=show';

const views: {
  name: string;
  path: (id: Ids, request: import('@playwright/test').APIRequestContext) => string | Promise<string>;
  size?: [number, number];
  night?: true;
  inches?: true;
  press?: string[]; // buttons, before the picture
  file?: string; // of readings
  compare?: true; // with the last time
}[] = [
  { name: 'choose-rip', path: () => '/' },
  {
    name: 'choose-sheet-night-inches',
    path: () => `/?${sheet}&exit=zero-clearance`,
    night: true,
    inches: true,
  },
  {
    name: 'choose-circular-bevel',
    path: (id) => `/?saw=${id.circular}&cut=crosscut&of=softwood-ply&t=18&w=600&l=2440&bevel=30&over=runners`,
  },
  {
    name: 'choose-supports',
    path: (id) => `/?saw=${id.circular}&cut=crosscut&of=softwood-ply&t=18&w=600&l=2440&piece=900`,
    press: ['Hold'],
  },
  { name: 'choose-miter-push', path: (id) => `/?saw=${id.miter}&of=red-oak&t=38&w=240&for=show&exit=scored` },
  { name: 'choose-groove', path: () => '/?form=groove&d=8&of=red-oak', press: ['End'] },
  {
    name: 'choose-compare',
    path: (id) =>
      `/?${sheet}&pin=${id.Needle}~~zero-clearance~spare&pin=${id.Needle}~~open~spare&pin=${id.Stagehand}~~zero-clearance~spare`,
    press: ['Compare 3'],
  },
  { name: 'choose-metal', path: () => '/?cut=crosscut&of=aluminium&t=6&w=40&for=show' },
  { name: 'setup-card', path: (id) => `/card?blade=${id.Plough}&h=39`, size: [900, 1150] },
  { name: 'choose-tablet', path: () => '/?of=cherry&t=19', size: [820, 1180] },
  { name: 'choose-phone', path: () => '/', size: [390, 844] },
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
  { name: 'bench', path: () => '/bench' },
  { name: 'true', path: () => '/true' },
  {
    name: 'true-clearance',
    path: (id) => `/true/clearance?blade=${id.Quill}`,
    file: Array.from({ length: 60 }, (_, i) => 0.5 + 0.006 * Math.sin(i * 7) + (i === 22 ? 0.088 : 0)).join(
      '\n',
    ),
    compare: true,
  },
  { name: 'rack', path: () => '/rack' },
  { name: 'blade', path: (id) => `/rack/${id.Chorus}` },
  { name: 'blade-form', path: (id) => `/rack/${id.Quill}/edit` },
];

for (const view of views) {
  test(view.name, async ({ browser, request, baseURL }) => {
    const [width, height] = view.size ?? [1280, 800];
    const page = await browser.newPage({
      viewport: { width, height },
      colorScheme: view.night ? 'dark' : 'light',
      baseURL,
    });
    await page.addInitScript((u) => localStorage.setItem('corte.units', u), view.inches ? 'in' : 'mm');
    await page.goto(await view.path(await known(request), request));
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.waitForLoadState('networkidle');
    if (view.file) {
      const buffer = Buffer.from(view.file);
      await page
        .getByLabel('Readings file')
        .setInputFiles({ name: 'teeth.csv', mimeType: 'text/csv', buffer });
    }
    if (view.compare) {
      await page.getByRole('combobox', { name: 'Compare with' }).click();
      await page.getByRole('option').nth(1).click();
    }
    for (const name of view.press ?? []) await page.getByRole('button', { name, exact: true }).click();
    await page.waitForLoadState('networkidle');
    await page.getByText('Laying it out').waitFor({ state: 'detached' });
    await page.waitForLoadState('networkidle');
    await page.waitForTimeout(300);
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: `../docs/screenshots/${view.name}.png` });
    await page.close();
  });
}
