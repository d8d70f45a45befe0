/** Refreshes docs/screenshots from the demo shop: `make shots`. */
import { test } from '@playwright/test';

const saws = async (request: import('@playwright/test').APIRequestContext) => {
  const { items } = (await (await request.get('/api/v1/saws')).json()) as {
    items: { id: string; kind: string }[];
  };
  return Object.fromEntries(items.map((s) => [s.kind, s.id]));
};

const views: {
  name: string;
  path: (saw: Record<string, string>) => string;
  size?: [number, number];
  night?: true;
  inches?: true;
}[] = [
  { name: 'choose-rip', path: () => '/' },
  {
    name: 'choose-sheet-night-inches',
    path: () => '/?cut=sheet&of=birch-ply&t=19.05&w=609.6&l=1219.2&for=show&exit=zero-clearance',
    night: true,
    inches: true,
  },
  {
    name: 'choose-circular',
    path: (s) => `/?saw=${s.circular}&cut=crosscut&of=softwood-ply&t=18&for=hidden`,
  },
  { name: 'choose-miter-chop', path: (s) => `/?saw=${s.miter}&of=red-oak&t=19&w=90&for=show` },
  { name: 'choose-miter-push', path: (s) => `/?saw=${s.miter}&of=red-oak&t=38&w=240&for=show` },
  { name: 'choose-tablet', path: () => '/?of=cherry&t=19', size: [820, 1180] },
  { name: 'choose-phone', path: () => '/', size: [390, 844] },
  { name: 'rack', path: () => '/rack' },
  { name: 'blade', path: () => 'chorus' },
  { name: 'contract', path: () => '/contract' },
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
    if (view.name === 'blade') {
      await page.goto('/rack');
      await page.getByRole('link', { name: /Chorus/ }).click();
    } else {
      await page.goto(view.path(await saws(request)));
    }
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.waitForLoadState('networkidle');
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: `../docs/screenshots/${view.name}.png` });
    await page.close();
  });
}
