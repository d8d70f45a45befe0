/** What an old hand would say: how many and how long, what stands against a cut, a chop by the stroke, a blade looked over and mended. */
import type { APIRequestContext, Page } from '@playwright/test';
import { accessible, choose, cut, expect, first, rack, sheets, test, type } from './test';

const runIt = (page: Page) => page.getByRole('link', { name: 'Run this cut' });

async function made(request: APIRequestContext, what: 'saws' | 'blades', data: object) {
  const answer = await request.post(`/api/v1/${what}`, {
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    data,
  });
  return ((await answer.json()) as { id: string }).id;
}

test('so many pieces take so many minutes, and go along to the log', async ({ page }) => {
  await page.goto('/?of=cherry&t=19&w=80&l=1200&for=show');
  await page.getByRole('button', { name: 'Pieces: one piece' }).click();
  await page.getByRole('textbox', { name: 'Pieces' }).fill('60');
  await page.getByRole('textbox', { name: 'Pieces' }).press('Enter');
  await expect(cut(page)).toContainText('60 pieces');
  await expect(first(page)).toContainText(/60 in (\d+ min|\d h \d\d min)/);
  await expect(rack(page)).toContainText('Change blades or stay');
  await accessible(page);
  await runIt(page).click();
  await expect(page.getByText('for 60 pieces, with handling')).toBeVisible();
  await expect(page.getByRole('group', { name: 'Identical pieces' })).toContainText('60 alike');
});

test('a piece too short for the fence stops the cut, and the way out is said', async ({ page }) => {
  await page.goto('/?of=red-oak&t=19&w=60&l=250');
  const against = page.getByRole('list', { name: 'What speaks against this cut' });
  await expect(against).toContainText('under 300 mm nothing keeps it straight');
  await expect(against).toContainText('Cut a longer blank');
  await expect(page.getByRole('button', { name: 'Not like this' })).toBeDisabled();
  await expect(runIt(page)).toBeHidden();
  await accessible(page);
  await page.goto('/run?of=red-oak&t=19&w=60&l=250');
  await expect(against).toContainText('nothing keeps it straight');
  await expect(page.getByRole('button', { name: 'Start feed beat' })).toBeHidden();
  await page.goto('/?of=red-oak&t=19&w=60&l=300&bevel=30&fence=left');
  await expect(against).toContainText('trap the piece and throw it');
  await choose(page, 'Fence', 'right');
  await expect(runIt(page)).toBeVisible();
});

test('a touch brake would fire in wet stock, until somebody says that it is bypassed', async ({
  page,
  request,
}) => {
  const saw = await made(request, 'saws', {
    ...{ name: 'Quick Stop', kind: 'table', diameter_mm: 254, arbor_mm: 15.875, rpm: 4000, motor_w: 1500 },
    ...{ volts: 230, breaker_a: 16, reach_mm: 79, knife_mm: 2.3, tilt_side: 'left' },
    brake: { min_kerf_mm: 2.3, max_kerf_mm: 4.5, min_diameter_mm: 250, max_diameter_mm: 258 },
  });
  await page.goto(`/?saw=${saw}&of=white-pine&t=38&w=90`);
  await expect(runIt(page)).toBeVisible();
  await choose(page, 'Stock', 'Wet or treated');
  const against = page.getByRole('list', { name: 'What speaks against this cut' });
  await expect(against).toContainText('wet stock conducts electricity like a hand');
  await expect(runIt(page)).toBeHidden();
  const yes = against.getByRole('button', { name: 'Yes' });
  await yes.click();
  await expect(runIt(page)).toBeVisible();
  await expect(page.getByRole('list', { name: 'Cautions' })).toContainText('The blade brake is bypassed');
  // The yes is of this cut: no link carries it on, and another cut asks anew, even where it is the same again.
  expect(new URL(page.url()).search).not.toContain('brake');
  expect(await runIt(page).getAttribute('href')).not.toContain('brake');
  await type(page, 'Thickness', '40');
  await expect(yes).toBeVisible();
  await type(page, 'Thickness', '38');
  await expect(yes).toBeVisible();
  await yes.click();
  await expect(runIt(page)).toBeVisible();
  await runIt(page).click();
  await expect(page.getByRole('heading', { name: 'Run', level: 1 })).toBeVisible();
  await expect(yes).toBeVisible();
  await yes.click();
  await expect(against).toBeHidden();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByText('Cut logged.')).toBeVisible();
  await expect(yes).toBeVisible();
  // A groove asks as well.
  await page.goto(`/groove?saw=${saw}&of=white-pine&stock=wet&t=38&w=90&p=18&brakeoff=true`);
  await yes.click();
  await expect(against).toBeHidden();
  await page.reload();
  await expect(yes).toBeVisible();
});

test('a chop speaks in seconds a stroke, on the card, in Run and in the log', async ({ page, request }) => {
  const blade = await made(request, 'blades', {
    ...{ name: 'Guillotine', make: 'toothed', diameter_mm: 305, bore_mm: 25.4, kerf_mm: 3, teeth: 80 },
    ...{ grind: 'ATB', bevel_deg: 15, hook_deg: -2, max_rpm: 5000, kept_for: 'joints' },
  });
  const saws = (await (await request.get('/api/v1/saws')).json()) as {
    items: { id: string; kind: string }[];
  };
  const drop = saws.items.find((s) => s.kind === 'miter')!.id;
  const address = `saw=${drop}&cut=crosscut&of=hard-maple&t=38&w=140&for=show`;
  await page.goto(`/?${address}`);
  await expect(rack(page)).toContainText('seconds for a stroke');
  await page.goto(`/card?${address}&blade=${blade}`);
  await expect(page.getByRole('article', { name: 'Setup card' })).toContainText(/[\d.]+ sfor a stroke/);
  expect(await sheets(page)).toBe(1);
  await page.goto(`/run?${address}&blade=${blade}`);
  await expect(page.getByText('for a stroke')).toBeVisible();
  await page.getByRole('textbox', { name: 'Time per piece, s' }).fill('3');
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByText('Cut logged.')).toBeVisible();
  await page.goto(`/blades/${blade}`);
  await expect(page.getByRole('listitem').first()).toContainText('3 s per stroke');
});

test('a tip is lost: looked over place by place, off every saw, mended and inspected', async ({
  page,
  request,
}) => {
  const id = await made(request, 'blades', {
    ...{ name: 'Gap', make: 'toothed', diameter_mm: 254, bore_mm: 15.875, kerf_mm: 3.2, plate_mm: 2.2 },
    ...{ teeth: 60, grind: 'ATB', bevel_deg: 15, hook_deg: 5, max_rpm: 7000, kept_for: 'joints', price: 120 },
  });
  await page.goto(`/blades/${id}`);
  await page.getByRole('link', { name: 'Inspect' }).click();
  const next = page.getByRole('button', { name: 'Next' });
  await page.getByRole('button', { name: 'A tip is missing' }).click();
  await page.getByRole('button', { name: 'A thick coat' }).click();
  await page.getByRole('group', { name: 'Is it clean now?' }).getByRole('button', { name: 'Yes' }).click();
  await next.click();
  await page.getByRole('textbox', { name: 'Missing' }).fill('1');
  await accessible(page);
  await next.click();
  await page.getByRole('button', { name: 'Saw marks across it' }).click();
  await expect(page.getByRole('img', { name: 'Seat of a lost tip' })).toBeVisible();
  await next.click();
  await page.getByRole('button', { name: 'Squeezed out' }).click();
  await next.click();
  await page.getByRole('button', { name: 'Evenly worn' }).click();
  await next.click();
  await page.getByRole('button', { name: 'None' }).click();
  await next.click();
  for (const ask of ['Any blue spots?', 'Bent?'])
    await page.getByRole('group', { name: ask }).getByRole('button', { name: 'No' }).click();
  await next.click();
  await page.getByRole('button', { name: 'Like the others', exact: true }).click();
  await next.click();
  await page.getByRole('textbox', { name: 'Inspected by' }).fill('Maren');
  await page.getByRole('button', { name: 'Save inspection' }).click();
  const report = page.getByRole('article', { name: 'Inspection' });
  await expect(report).toContainText('1 tip of 60 missing');
  await expect(report).toContainText('0.13 mm to 0.18 mm');
  await expect(report).toContainText('Please check all of them');
  await expect(report).toContainText('ran on for a good while');
  await expect(report).toContainText('Worth repairing');
  await expect(report).toContainText("Don't use this blade");
  await accessible(page);
  expect(await sheets(page)).toBe(1);

  await page.goto('/?of=red-oak&t=19');
  await expect(rack(page)).toContainText('a tip is missing');
  // Sent and back is not mended.
  const key = () => ({ 'Idempotency-Key': crypto.randomUUID() });
  await request.post(`/api/v1/blades/${id}/sending`, { headers: key(), data: { to: 'the saw doctor' } });
  await request.post(`/api/v1/blades/${id}/return`, { headers: key(), data: { sharpened: true } });
  await page.goto(`/blades/${id}`);
  await expect(page.getByText('a tip is missing').first()).toBeVisible();
  await page.getByRole('button', { name: 'Repaired…' }).click();
  const may = page.getByRole('button', { name: 'Back in use' });
  await page.getByRole('textbox', { name: 'Repaired by' }).fill('the saw doctor on Quay Street');
  await expect(may).toBeDisabled();
  await page.getByRole('textbox', { name: 'Inspected by' }).fill('Maren');
  await may.click();
  await expect(page.getByText('repaired by the saw doctor on Quay Street, inspected by Maren')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Repaired…' })).toBeHidden();
});
