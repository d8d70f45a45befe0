/** A shop with nothing in it yet, on a server of its own: every place leads on, and the demo shop is beside it. */
import { readFileSync, writeFileSync } from 'node:fs';
import { folder, start, type Server } from './server';
import { accessible, expect, test } from './test';

let server: Server;
let at: string; // its address

test.beforeAll(async () => {
  server = await start('serve', folder());
  at = server.at;
});

test.afterAll(() => server.stop());

test('an empty shop leads on from every place, and the demo shop is looked at beside it', async ({
  page,
  request,
}) => {
  for (const place of ['/', '/run', '/saws', '/blades', '/care', '/groove', '/groove/joints', '/diagnose']) {
    await page.goto(at + place);
    await expect(page.getByRole('heading', { level: 1 }), place).toBeVisible();
    await expect(page.getByRole('link', { name: 'Set up my shop' }), place).toBeVisible();
    await expect(page.getByRole('alert'), place).toHaveCount(0);
  }
  for (const place of ['/log', '/align', '/settings']) {
    await page.goto(at + place);
    await expect(page.getByRole('heading', { level: 1 }), place).toBeVisible();
    await expect(page.getByRole('alert'), place).toHaveCount(0);
  }
  await page.goto(at);
  await accessible(page);
  await page.getByRole('link', { name: 'Explore the demo shop' }).click();
  await expect(page).toHaveURL(`${at}/demo/`);
  await expect(page.getByRole('region', { name: 'Blades for this cut' })).toContainText('Plough');
  const where = page.getByRole('region', { name: 'You are here' });
  await expect(where).toContainText('Nothing you do here changes your own shop');
  await accessible(page);
  await page.getByRole('link', { name: 'Saws', exact: true }).click();
  await expect(page).toHaveURL(`${at}/demo/saws`);
  await page.goto(`${at}/demo/true`);
  await expect(page).toHaveURL(`${at}/demo/align`);
  await page.goto(`${at}/demo/run`);
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByText('Cut logged.')).toBeVisible();
  await where.getByRole('link', { name: 'Back to my shop' }).click();
  await expect(page.getByRole('heading', { name: 'Set up' })).toBeVisible();
  await expect(where).toHaveCount(0);
  const log = (await (await request.get(`${at}/api/v1/log`)).json()) as { items: unknown[] };
  expect(log.items).toEqual([]);
});

test('a whole shop is taken along in a file, and brought into an empty one', async ({ page }, info) => {
  await page.goto('/settings');
  const copies = page.getByRole('region', { name: 'Backups' });
  await copies.getByRole('button', { name: 'Back up now' }).click();
  await expect(copies.getByRole('status')).toContainText(/Last good backup: .* kB/);
  const coming = page.waitForEvent('download');
  await copies.getByRole('link', { name: 'Download backup' }).click();
  const file = info.outputPath('shop.corte.zip');
  await (await coming).saveAs(file);
  // Where there is something already, nothing comes in over it.
  await copies.getByLabel('Backup file of the whole shop').setInputFiles(file);
  await expect(copies.getByText("This shop isn't empty")).toBeVisible();
  await expect(copies.getByRole('button', { name: 'Restore', exact: true })).toHaveCount(0);
  await accessible(page);
  await page.goto(`${at}/settings`);
  const half = info.outputPath('half.corte.zip');
  writeFileSync(half, readFileSync(file).subarray(0, 20_000));
  await copies.getByLabel('Backup file of the whole shop').setInputFiles(half);
  await expect(copies.getByRole('alert')).toContainText('its end is missing');
  await copies.getByLabel('Backup file of the whole shop').setInputFiles(file);
  await expect(copies.getByText(/3 saws, \d+ blades, \d+ rows of the log/)).toBeVisible();
  await accessible(page);
  await copies.getByRole('button', { name: 'Restore', exact: true }).click();
  await expect(copies.getByText('is imported: ')).toBeVisible();
  await page.getByRole('link', { name: 'Blades', exact: true }).click();
  await expect(page.getByText('Plough').first()).toBeVisible();
});
