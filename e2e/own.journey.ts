/** Which blade to buy: over the season, over a job, and for who has none yet. */
import { accessible, expect, test } from './test';

test('what to buy next is weighed over the season and over a job, and printed', async ({ page, context }) => {
  await page.goto('/buy');
  const says = page
    .getByRole('status')
    .filter({ hasText: /don't need another blade|adds most|no blade pays off/i });
  await expect(says).toBeVisible();
  await expect(page.getByText(/^Based on \d,\d{3} pieces, /)).toBeVisible();
  await expect(
    page.getByRole('region', { name: 'Blades you could do without' }).getByRole('link').first(),
  ).toBeVisible();
  await accessible(page);
  await page.getByRole('combobox', { name: 'Based on' }).click();
  await page.getByRole('option', { name: 'Balcony set, third act' }).click();
  await expect(page.getByText(/^Based on 132 pieces, /)).toBeVisible();
  // The schools over the same work, each with the point from which it pays.
  await expect(page.getByRole('region', { name: 'One blade, or several?' })).toContainText(
    /another saves less time than mounting it takes/,
  );
  await expect(page.getByRole('region', { name: 'Thin or full kerf?' })).toContainText(/l of dust, /);
  // Prices are the shop's: another device has them, and is told where it was late.
  const other = await context.newPage();
  await other.goto('/buy');
  await expect(other.getByLabel('Value of an hour')).toBeVisible();
  const kept = page.waitForResponse((r) => r.request().method() === 'PUT' && r.ok());
  await page.getByLabel('Value of an hour').fill('40');
  await page.getByLabel('Veneer 80, Long Table').fill('95');
  await kept;
  await other.getByLabel('Value of an hour').fill('50');
  await expect(other.getByText('Another person changed this list')).toBeVisible();
  await other.getByRole('button', { name: 'Try again' }).click();
  await expect(other.getByText('Another person changed this list')).toBeHidden();
  await other.close();
  await page.reload();
  await expect(page.getByLabel('Value of an hour')).toHaveValue('50');
  await expect(page.getByLabel('Veneer 80, Long Table'), 'what both have said is kept').toHaveValue('95');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('combobox', { name: 'Based on' })).toBeHidden();
  await expect(says).toBeVisible();
});

test('a beginner is told the first blades for the work, and what can wait', async ({ page }) => {
  await page.goto('/buy/first');
  const steps = page.getByText(/^With it you cut .* pieces/);
  await expect(steps.first()).toBeVisible();
  await expect(page.getByText(/ instead: \d+ pieces/).first()).toBeVisible();
  await expect(page.getByText("That's enough for now")).toBeVisible();
  await accessible(page);
  const work = page.getByRole('textbox', { name: 'List' });
  await page.getByRole('button', { name: 'cabinets from sheets' }).click();
  await expect(work).toHaveValue(/melamine board/);
  await expect(page.getByText('of 180 pieces').or(page.getByText('all 180 pieces')).first()).toBeVisible();
  await work.fill('40 battens, 38 × 64 lignum, 1200 long, rip');
  await expect(page.getByText('Line 1: Lignum is not a material Corte knows')).toBeVisible();
  await expect(steps).toHaveCount(0);
  await work.fill('40 battens, 38 × 64 white pine, 1200 long, rip');
  await expect(page.getByText('With it you cut all 40 pieces').first()).toBeVisible();
});
