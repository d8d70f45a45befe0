/** A day's cuts: a list is pasted and mended, planned, held, run and ticked; on a phone with the network gone in between. */
import { accessible, expect, sheets, test } from './test';

const list = `Gallery:
6 stiles, 22 × 70 ash, 1,100 long, rip, show
12 rungs, 22 × 22 ash, 600 long
4 panels, 18 × 400 elm, 900 long, show
9 cleats, 2000 × 40 ash, 300 long, crosscut`;

test('a list is pasted, mended, planned, held, printed, run and planned anew', async ({ page }) => {
  await page.goto('/jobs');
  await page.getByRole('link', { name: 'New job' }).click();
  await page.getByLabel('Name of the job').fill('Gallery rail');
  const typed = page.getByRole('textbox', { name: 'List' });
  await typed.fill(list);
  await expect(
    page.getByText('2 lines need a fix before you can save. The reason is below each.'),
  ).toBeVisible();
  await expect(page.getByText('Line 4: Elm is not a material')).toBeVisible();
  await expect(page.getByText("Line 5: 2000 mm thick isn't possible")).toBeVisible();
  const keep = page.getByRole('button', { name: 'Save and plan' });
  await expect(keep).toBeDisabled();
  await accessible(page);
  await typed.fill(
    list.replace('elm', 'birch ply').replace('2000 × 40', '22 × 40 ash').replace('ash ash', 'ash'),
  );
  await expect(page.getByText('All 4 lines understood.')).toBeVisible();
  await keep.click();
  await expect(page.getByRole('heading', { name: 'Gallery rail', level: 1 })).toBeVisible();
  await expect(page.getByText('0 of 31 made')).toBeVisible();
  await accessible(page);

  // A knob shows what it would change, and changes nothing until it is taken.
  const sheet = page.getByRole('img', { name: /^The run sheet/ });
  const as = await sheet.getAttribute('aria-label');
  const saws = page.getByRole('group', { name: 'Saws today' });
  const first = /^The run sheet: (.+?) with /.exec(as!)![1]!; // other journeys put saws in
  await saws.getByRole('button', { name: first, exact: true }).click();
  await expect(sheet).not.toHaveAttribute('aria-label', new RegExp(`${first} with`));
  await page.getByRole('button', { name: 'Back to the current plan' }).click();
  await expect(sheet).toHaveAttribute('aria-label', as!);

  // A row that is held to a saw goes there.
  await page.getByRole('button', { name: 'More of panels' }).click();
  await page.getByRole('combobox', { name: 'Only on this saw' }).click();
  await page.getByRole('option', { name: 'Walker' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('The list has changed since it was planned')).toBeVisible();
  await page.getByRole('button', { name: 'Replan the rest' }).click();
  await expect(sheet).toHaveAttribute('aria-label', /Walker with /);
  await expect(page.getByText('The list has changed since it was planned')).toHaveCount(0);

  // Dragged by its grip, with the keys, a row is cut before the other.
  const names = page.getByRole('region', { name: 'Rows' }).getByRole('button', { name: /^Move / });
  await expect(names.first()).toHaveAccessibleName('Move stiles');
  await page.getByRole('button', { name: 'Move rungs' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('rungs is now at rungs.')).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('rungs is now at stiles.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(names.first()).toHaveAccessibleName('Move rungs');

  await page.emulateMedia({ media: 'print' });
  await expect(page.getByText('22 mm × 70 mm × 1100 mm')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add rows' })).toBeHidden();
  expect(await sheets(page)).toBeLessThanOrEqual(2);
  await page.emulateMedia({ media: 'screen' });

  // Run opens from a row with everything filled in, and its cut comes back as ticks.
  await page.getByRole('button', { name: 'Replan the rest' }).click();
  await page.getByRole('link', { name: 'Run rungs' }).click();
  await expect(page.getByRole('heading', { name: 'Run', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await page.getByRole('link', { name: '‹ Job' }).click();
  await expect(page.getByRole('heading', { name: 'Gallery rail', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: '‹ Sheet' }).click();
  await expect(page.getByText('12 of 31 made')).toBeVisible();
  await page.getByRole('button', { name: 'All of stiles made' }).click();
  await page.getByRole('button', { name: '+1 of cleats made' }).click();
  await expect(page.getByText('19 of 31 made')).toBeVisible();
  await page.getByRole('button', { name: 'Replan the rest' }).click();
  await expect(page.getByRole('link', { name: 'Run stiles' })).toHaveCount(0);
  await expect(page.getByRole('link', { name: 'Run cleats' })).toBeVisible();
});

test('beside the saw with the network gone, ticks wait and are counted once', async ({
  browser,
  request,
}) => {
  const lines = (await (
    await request.post('/api/v1/job-lists', {
      data: { text: '5 feet, 30 × 60 ash, 400 long, crosscut\n7 arms, 500 long', units: 'mm' },
    })
  ).json()) as { lines: { row: Record<string, unknown> }[] };
  const rows = lines.lines.map(({ row: { in_stage: _, ...row } }) => ({ ...row, id: crypto.randomUUID() }));
  const added = await request.post('/api/v1/jobs', {
    data: { name: 'Bench in the foyer', rows, knobs: { people: 1 } },
    headers: { 'Idempotency-Key': crypto.randomUUID() },
  });
  const job = (await added.json()) as { id: string; version: number };
  await request.put(`/api/v1/jobs/${job.id}/sheet`, {
    data: { knobs: { people: 1 }, units: 'mm' },
    headers: { 'If-Match': `"${job.version}"` },
  });
  const context = await browser.newContext({
    serviceWorkers: 'allow',
    reducedMotion: 'reduce',
    viewport: { width: 390, height: 844 },
    hasTouch: true,
  });
  const page = await context.newPage();
  await page.goto(`/jobs/${job.id}/next`);
  await expect(page.getByText('left of 5')).toBeVisible();
  await page.waitForLoadState('networkidle');
  await page.waitForFunction(async () => (await navigator.serviceWorker.ready).active?.state === 'activated');
  await accessible(page);
  await context.setOffline(true);
  const made = page.getByRole('button', { name: 'One done' });
  await made.click();
  await expect(page.getByRole('button', { name: 'All 4 made' })).toBeVisible();
  await page.getByRole('button', { name: 'One spoiled' }).click();
  await expect(page.getByRole('button', { name: '2 ticks waiting to send' })).toBeVisible(); // from here on it is kept
  await page.reload();
  await expect(page.getByRole('button', { name: '2 ticks waiting to send' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'All 4 made' })).toBeVisible();
  await page.getByRole('button', { name: 'All 4 made' }).click();
  await expect(page.getByText('left of 7')).toBeVisible();
  await page.getByRole('button', { name: 'Undo: 4 of feet' }).click();
  await expect(page.getByText('left of 5')).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByRole('button', { name: /ticks? waiting to send$/ })).toHaveCount(0);
  const now = (await (await request.get(`/api/v1/jobs/${job.id}`)).json()) as {
    rows: { made: number; spoilt: number }[];
  };
  expect(now.rows.map((r) => [r.made, r.spoilt])).toEqual([
    [1, 1],
    [0, 0],
  ]);
  await context.close();
});
