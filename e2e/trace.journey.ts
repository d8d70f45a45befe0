/** From a mark on the wood to its reason. */
import { accessible, expect, own, ownSaw, sheets, test } from './test';
import type { Page } from '@playwright/test';

const yes = (page: Page, sign: string) =>
  page.getByRole('group', { name: sign, exact: true }).getByRole('button', { name: 'yes' }).click();
const reasons = (page: Page) => page.getByRole('list', { name: 'Likely causes' }).getByRole('listitem');
const place = (page: Page, name: RegExp) =>
  page
    .getByRole('group', { name: /^The work/ })
    .getByRole('button', { name })
    .click();

test('one spot of scorch: hands were moved', async ({ page }) => {
  await page.goto('/diagnose?of=cherry');
  await expect(page.getByRole('heading', { name: 'What do the cut edges look like?' })).toBeVisible();
  await accessible(page);
  await yes(page, 'One burned spot');
  await expect(page.getByRole('heading', { name: 'Diagnosis' })).toBeVisible();
  await expect(reasons(page).first()).toContainText('Stopped or hesitated in the cut');
  await place(page, /^when/);
  await yes(page, 'Only in this wood');
  await expect(page.getByRole('region', { name: 'Next check' })).toContainText(/Same cut/);
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByText('cherry burns easily')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Better', exact: true }).first().click();
  await page.getByRole('button', { name: /^Good. The cause was/ }).click();
  await expect(page.getByText(/^Cause: .*A good test cut proved it\.$/)).toBeVisible();
  await page.goto('/log');
  await expect(
    page
      .getByRole('region', { name: 'Rows' })
      .getByRole('listitem')
      .filter({ hasText: 'Fault diagnosed' })
      .first(),
  ).toBeVisible();
});

test('the fence cut edge black with arcs: it stops, and asks for a dial before any cut', async ({
  page,
  request,
}) => {
  // A saw of its own: what other journeys measure on the demo shop's says nothing of it.
  const id = await ownSaw(request, 'Zinc');
  await page.goto(`/diagnose?of=red-oak&saw=${id}`);
  await yes(page, 'Burn marks only on the fence side');
  await expect(page.getByRole('alert')).toContainText('No test cut.');
  await yes(page, 'Arcs crossing the other way');
  await expect(reasons(page).first()).toContainText('Blade toes in toward the fence');
  const next = page.getByRole('region', { name: 'Next check' });
  await expect(next.getByRole('link', { name: 'Measure it under Align' })).toBeVisible();
  await expect(next).not.toContainText('Same cut');
  await accessible(page);
  await yes(page, 'Burn marks on both cut edges');
  await expect(page.getByText('Both edges, or only one?')).toBeVisible();
});

test('furry ply: the insert or the teeth, and one that could not be done is left out', async ({
  page,
  request,
}) => {
  // A blade of its own: what others cut with the one on the saw tells of pitch.
  const blade = await own(request, 'Whinchat');
  await page.goto(`/diagnose?cut=sheet&of=softwood-ply&t=18&for=show&blade=${blade}`);
  await place(page, /^bottom face/);
  await yes(page, 'Tear-out on the exit face');
  await expect(reasons(page).first()).toContainText(/Gap beside the blade|Too few teeth/);
  const next = page.getByRole('region', { name: 'Next check' });
  await expect(next).toContainText('minutes');
  const first = await next
    .locator('div')
    .filter({ hasText: /^[A-Z]/ })
    .first()
    .textContent();
  await next.getByRole('button', { name: "Can't check" }).click();
  await expect(page.getByRole('region', { name: 'Checks done' })).toContainText('could not be done');
  await expect(next).not.toHaveText(first!);
  await expect(page.getByRole('region', { name: 'The piece' })).toContainText('Face with tear-out');
  await accessible(page);
});

test('a trace that runs through a wash and closes on a good test cut', async ({ page, request }) => {
  const made = await request.post('/api/v1/blades', {
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    data: {
      ...{
        name: 'Tarry',
        make: 'toothed',
        diameter_mm: 254,
        bore_mm: 15.875,
        kerf_mm: 3.2,
        plate_mm: 2.2,
        teeth: 80,
      },
      ...{ grind: 'ATB', bevel_deg: 15, hook_deg: 5, max_rpm: 7000, kept_for: 'joints' },
    },
  });
  const { id } = (await made.json()) as { id: string };
  const saws = (await (await request.get('/api/v1/saws')).json()) as {
    items: { id: string; kind: string }[];
  };
  const saw = saws.items.find((s) => s.kind === 'table')!.id;
  const cut = {
    saw_id: saw,
    material: 'yellow-pine',
    direction: 'rip',
    thickness_mm: 38,
    width_mm: 90,
    length_mm: 3000,
    finish: 'rough',
  };
  await request.post('/api/v1/cuts', {
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    data: { cut, blade_id: id, height_mm: 50, pieces: 200, wall: 'clean', splinters: 'none' },
  });
  await page.goto(`/diagnose?of=red-oak&blade=${id}`);
  await place(page, /^feel, sound/);
  await yes(page, 'Hard to feed');
  await expect(page.getByRole('heading', { name: 'Diagnosis' })).toBeVisible();
  await place(page, /^when/);
  await yes(page, 'Has cut a lot of resinous wood');
  await expect(reasons(page).first()).toContainText('Resin on teeth and plate');
  const trace = page.url();
  // Eighty teeth on this rip are worth a check too; whichever comes first, the wash is there.
  await page.getByText('Other checks you can do now').click();
  await page.getByRole('link', { name: 'Clean it under Care' }).click();
  await page.getByRole('button', { name: /^Start/ }).click();
  for (const next of ['Scrub', 'Flip', 'Rinse', 'Dry', 'Film']) {
    await page.getByRole('button', { name: new RegExp(`^(Next: )?${next}`) }).click();
    await expect(page.getByRole('heading', { name: next })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Done. Put it back' }).click();
  await expect(page.getByRole('heading', { name: 'Care', exact: true })).toBeVisible();
  await page.goto(trace);
  await expect(page.getByText('The blade was cleaned. Make the same cut')).toBeVisible();
  await page.goto(`/run?of=red-oak&blade=${id}`);
  await page.getByRole('button', { name: 'Yes, it cuts well again' }).click();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByText('Cut logged.')).toBeVisible();
  await page.goto(trace);
  await expect(page.getByRole('region', { name: 'Checks done' })).toContainText(
    'Clean the blade and cut again: showed it, answer with the next cut',
  );
  await page.getByRole('button', { name: 'Good. The cause was “resin on teeth and plate”' }).click();
  await expect(page.getByText('Cause: Resin on teeth and plate. A good test cut proved it.')).toBeVisible();
  expect(await sheets(page), 'the report').toBe(1);
});
