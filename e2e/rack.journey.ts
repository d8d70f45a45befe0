import { accessible, expect, test } from './test';

test('the rack is drawn, and a blade tells its history', async ({ page }) => {
  await page.goto('/rack');
  await expect(page.getByRole('heading', { name: 'Blades, 21 on the wall' })).toBeVisible();
  await expect(page.getByRole('list').first().getByRole('listitem')).toHaveCount(3);
  await accessible(page);
  await page.getByRole('link', { name: /Rook/ }).click();
  await expect(page.getByText('dull: sharpen it')).toBeVisible();
  const rows = page.getByRole('region', { name: 'History' }).getByRole('listitem');
  await expect(rows).toHaveCount(25);
  await page.getByRole('button', { name: 'Earlier' }).click();
  await expect.poll(() => rows.count()).toBeGreaterThan(25);
  await accessible(page);
});

test('night, a tablet and a phone', async ({ browser }) => {
  for (const [width, height] of [
    [820, 1180],
    [390, 844],
  ] as const) {
    const context = await browser.newContext({ viewport: { width, height }, colorScheme: 'dark' });
    const page = await context.newPage();
    for (const address of ['/', '/rack']) {
      await page.goto(address);
      await expect(page.getByRole('heading').first()).toBeVisible();
      const wide = await page.evaluate(() => document.documentElement.scrollWidth);
      expect(wide, `${address} at ${width} scrolls sideways`).toBeLessThanOrEqual(width);
      await accessible(page);
    }
    await context.close();
  }
});

test('the contract can be read, and an unknown blade is told so', async ({ page }) => {
  await page.goto('/contract');
  await expect(page.getByRole('heading', { name: 'POST /plans' })).toBeVisible();
  await accessible(page);
  await page.goto('/rack/00000000-0000-4000-8000-000000000000');
  await expect(page.getByText('There is no such blade in this shop.')).toBeVisible();
});
