/** Cuts that need a set-up of their own, and what a saw's readings say to all of them. */
import { accessible, choose, expect, ownSaw, test } from './test';

test('special cuts are worked out as their sizes are typed', async ({ page }) => {
  await page.goto('/special');
  const set = page.getByRole('region', { name: 'Settings' });
  await expect(set).toContainText('2.5°');
  await expect(set.getByRole('list', { name: 'Never' })).toContainText('Never freehand');
  await accessible(page);
  await page.getByRole('textbox', { name: 'Narrow end' }).fill('61');
  await expect(page.getByText('the narrow end must be between', { exact: false }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Cove' }).click();
  await expect(set.getByRole('list', { name: 'Passes' }).getByRole('listitem')).toHaveCount(9);
  await page.getByRole('textbox', { name: 'Width of the cove' }).fill('150');
  await expect(set).toContainText('is wider than this blade makes');
  await expect(set.getByRole('list', { name: 'Passes' })).toBeHidden();
  await page.getByRole('button', { name: 'Crown molding' }).click();
  await expect(set).toContainText('31.6°');
  await expect(set).toContainText('33.9°');
  await accessible(page);
  await page.getByRole('button', { name: 'Plunge cut' }).click();
  await expect(set).toContainText('Overcut at each corner');
  await expect(page).toHaveURL(/cut=plunge/);
});

test('a saw with a sliding carriage and a scoring blade: the cut rides on the one and is scored by the other', async ({
  page,
  request,
}) => {
  const id = await ownSaw(request, 'Glider', {
    carriage_mm: 1600,
    carriage_clamps: true,
    scoring_diameter_mm: 100,
    scoring_kerf_mm: 3.3,
    fence_reach_mm: 760,
  });
  await page.goto(`/?saw=${id}&of=melamine-board&cut=sheet&t=18&w=400&l=1200&for=show`);
  const sentence = page.getByRole('region', { name: 'The cut' });
  await expect(sentence).toContainText('scoring blade');
  await choose(page, 'Guide', 'the sliding carriage');
  await expect(page).toHaveURL(/carriage=true/);
  await page.getByRole('button', { name: 'Guide', exact: true }).click();
  await expect(page.getByText('Clamp the stock to the carriage')).toBeVisible();
  await accessible(page);
  await page.goto(`/align?saw=${id}`);
  await expect(page.getByRole('list', { name: /Measurements/ })).toContainText('Scoring blade');
});
