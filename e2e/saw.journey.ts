import { accessible, expect, own, ownSaw, test } from './test';

test('a blade is mounted card by card, on two devices, and the bench shows it', async ({
  page,
  browser,
  baseURL,
}) => {
  await page.goto('/saws');
  const saw = page.getByRole('region', { name: 'Walker' });
  // What was never measured waits: a cut comes first, and what it has no gauge for is never asked.
  await expect(saw.getByRole('link', { name: 'Choose a cut' })).toBeVisible();
  await saw.getByRole('button', { name: 'More about Walker' }).click();
  await expect(saw.getByRole('list', { name: 'Due on Walker' }).getByRole('listitem')).toHaveText([
    'Run-out: never measured',
    'Tilt: never measured',
  ]);
  await accessible(page);
  // What fails a hard rule cannot be mounted.
  await saw.getByRole('button', { name: 'Mount blade' }).click();
  await page.getByRole('menuitem', { name: /^Curtain/ }).click();
  await expect(saw.getByText(/Curtain can't be mounted on Walker/)).toBeVisible();
  await saw.getByRole('button', { name: 'Mount blade' }).click();
  await page.getByRole('menuitem', { name: /^Ragman/ }).click();

  await expect(page.getByRole('heading', { name: 'Power off' })).toBeVisible();
  const next = page.getByRole('button', { name: 'Done, next' });
  await expect(next).toBeDisabled();
  await accessible(page);
  await page.getByRole('button', { name: 'Yes' }).click();
  await next.click();
  await expect(page.getByRole('heading', { name: /Inspect/ })).toBeVisible();
  await page.getByRole('button', { name: 'No', exact: true }).first().click();
  await expect(page.getByRole('alert')).toContainText('Send it to a sharpening service');
  await expect(page.getByRole('button', { name: 'Stopped' })).toBeDisabled();
  // Another device goes on where this one stopped.
  const other = await browser.newPage({ viewport: { width: 390, height: 844 }, baseURL });
  await other.goto('/saws');
  await other.getByRole('region', { name: 'Walker' }).getByRole('link', { name: 'Continue' }).click();
  await expect(other.getByRole('heading', { name: /Inspect/ })).toBeVisible();
  for (let i = 0; i < 20; i++) {
    const asked = other.getByRole('group').filter({ has: other.getByRole('button', { name: 'Yes' }) });
    for (let k = 0; k < (await asked.count()); k++) {
      const yes = asked.nth(k).getByRole('button', { name: 'Yes' });
      await yes.click();
      await expect(yes).toHaveAttribute('aria-pressed', 'true');
    }
    const on = other.getByRole('button', { name: "It's mounted" });
    if (await on.isVisible()) {
      await other.getByRole('textbox', { name: 'Mounted by' }).fill('Ilse');
      await on.click();
      break;
    }
    const title = await other.getByRole('heading', { level: 1 }).textContent();
    await other.getByRole('button', { name: 'Done, next' }).click();
    await expect(other.getByRole('heading', { level: 1 })).not.toHaveText(title!);
  }
  const bench = other.getByRole('region', { name: 'Walker' });
  await expect(bench.getByRole('link', { name: 'Ragman' })).toBeVisible();
  await other
    .getByRole('region', { name: 'Seven days' })
    .getByRole('button', { name: /^Walker, .*Ragman mounted/ })
    .click();
  await expect(other.getByRole('link', { name: 'See the rows' })).toHaveAttribute('href', /log\?from=.*on=/);
  await other.keyboard.press('Escape');
  await bench.getByRole('button', { name: 'More about Walker' }).click();
  await expect(bench.getByRole('listitem').filter({ hasText: 'Mounted on Walker. Ilse' })).toBeVisible();
  await expect(page.getByText('This mounting was finished or stopped')).toBeVisible();
  await other.close();
});

test('a quick hand on a slow net: each answer on a card is kept, and an older sight undoes none', async ({
  page,
  request,
}) => {
  const body = { saw_id: await ownSaw(request, 'Yoke'), blade_id: await own(request, 'Yaffle'), units: 'mm' };
  const { id } = (await (await request.post('/api/v1/mountings', { data: body })).json()) as { id: string };
  const mounting = `**/api/v1/mountings/${id}*`;
  // What goes to and fro is held until it is let go.
  const held = { event: [] as (() => void)[], sight: [] as (() => void)[], step: [] as (() => void)[] };
  const hold = (kind: keyof typeof held) => new Promise<void>((go) => held[kind].push(go));
  const letGo = async (kind: keyof typeof held) => {
    await expect.poll(() => held[kind].length).toBe(1);
    held[kind].pop()!();
  };
  await page.route('**/api/v1/events', async (route) => {
    await hold('event');
    const said = 'event: changed\ndata: {"what":"mountings"}\n\n';
    await route.fulfill({ contentType: 'text/event-stream', body: said });
  });
  await page.goto(`/mount/${id}`);
  const next = page.getByRole('button', { name: 'Done, next' });
  const yes = page.getByRole('button', { name: 'Yes' });
  await yes.click();
  await next.click();
  await expect(page.getByRole('heading', { name: /Inspect/ })).toBeVisible();
  await page.route(mounting, async (route) => {
    const sight = route.request().method() === 'GET' ? await route.fetch() : undefined;
    await hold(sight ? 'sight' : 'step');
    await (sight ? route.fulfill({ response: sight }) : route.continue());
  });
  const n = await yes.count();
  expect(n).toBeGreaterThan(1);
  for (let k = 0; k < n; k++) {
    await yes.nth(k).click();
    await expect(yes.nth(k)).toHaveAttribute('aria-pressed', 'true');
  }
  await expect(next).toBeDisabled(); // the server has none of it yet
  // Something else is mounted: the page asks, and is answered after all that was said meanwhile.
  await letGo('event');
  await expect.poll(() => held.sight.length).toBe(1);
  for (let k = 0; k < n; k++) await letGo('step');
  await expect(next).toBeEnabled();
  const older = page.waitForResponse((r) => r.request().method() === 'GET' && r.url().includes(id));
  await letGo('sight');
  await (await older).finished();
  await next.click();
  await letGo('step');
  await expect(page.getByRole('heading', { name: /Inspect/ })).toBeHidden();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('a heel is typed in inches by a gauge that presses Enter, and kept', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('corte.units', 'in'));
  await page.goto('/align/heel');
  await expect(page.getByRole('textbox', { name: 'Reading: Front' })).toBeFocused();
  // As quick as a gauge types: both before the first is answered.
  await page.keyboard.type('0.010');
  await page.keyboard.press('Enter');
  await page.keyboard.type('0.016');
  await page.keyboard.press('Enter');
  const found = page.getByRole('region', { name: 'Result' });
  await expect(found).toContainText('The blade toes in 0.0060" toward the fence');
  await expect(found).toContainText('at the bolt');
  await accessible(page);
  await page.getByRole('combobox', { name: 'Miter slot' }).click();
  await page.getByRole('option', { name: 'left of the blade' }).click();
  await expect(found).toContainText('toes out 0.0060"');
  await page.getByRole('button', { name: 'Measure again' }).click();
  await page.keyboard.type('0.010');
  await page.keyboard.press('Enter');
  await page.keyboard.type('0.011');
  await page.keyboard.press('Enter');
  await expect(found).toContainText('parallel to the miter slot');
  await expect(found).toContainText('before: -0.006"');
  await page.getByRole('button', { name: 'Save to log' }).click();
  const card = page.getByRole('listitem').filter({ hasText: 'Blade to slot' });
  await expect(card).toContainText('-0.001"');
  await expect(card.getByText('clear')).toBeVisible();
});

test('readings that are taken while the server is away wait, and are kept once with their own time', async ({
  page,
}) => {
  await page.goto('/align/fence');
  await expect(page.getByRole('textbox', { name: 'Reading: Front' })).toBeFocused();
  let away = true;
  let sent = 0;
  await page.route('**/api/v1/{truing-results,truings}', async (route) => {
    const saves = route.request().method() === 'POST' && route.request().url().endsWith('/truings');
    if (saves) sent++;
    // The first that is saved gets through, and its answer is lost.
    if (saves && sent === 1) await route.fetch();
    if (away) return route.abort('connectionreset');
    return route.continue();
  });
  for (const reading of ['50', '50.05']) {
    await page.keyboard.type(reading);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('Save them anyway')).toBeVisible();
  await page.getByRole('button', { name: 'Save to log' }).click();
  const waiting = page.getByRole('button', { name: '1 session waiting to send' });
  await expect(waiting).toBeVisible();
  await waiting.click();
  await expect(page.getByRole('dialog', { name: 'Waiting to send' })).toContainText(
    'Fence to slot, Long Table',
  );
  await page.keyboard.press('Escape');
  away = false;
  await expect(waiting).toHaveCount(0);
  expect(sent).toBeGreaterThan(1);
  const { items } = (await (await page.request.get('/api/v1/truings?test=fence&limit=100')).json()) as {
    items: { input: { first_mm?: number[] } }[];
  };
  expect(items.filter((r) => r.input.first_mm?.join() === '50,50.05')).toHaveLength(1);
});

test('run-out with the stand-in finds what it hides, arbor and blade apart', async ({ page }) => {
  await page.goto('/align/runout');
  await page.getByRole('combobox', { name: 'Steps around' }).click();
  await page.getByRole('option', { name: '6', exact: true }).click();
  const dial = page.getByRole('region', { name: 'Gauge dial' });
  await expect(dial).toContainText('simulated');
  const readings = page.getByRole('list', { name: 'Readings' }).getByRole('listitem');
  for (const round of [0, 1]) {
    for (let i = 0; i < 6; i++) {
      await dial.getByRole('button', { name: 'Move it there' }).click();
      await page.waitForTimeout(350);
      await dial.getByRole('button', { name: 'Capture' }).click();
      if (i < 5) await expect(readings).toHaveCount(i + 1);
    }
    if (round === 0) await page.getByRole('button', { name: /Turned half a turn/ }).click();
  }
  // Hidden: 0.02 mm stays with the arbor, 0.05 mm travels with the blade; one reading is noisy by 0.002.
  const value = async (name: string) =>
    parseFloat((await page.locator('dt', { hasText: name }).locator('+ dd').textContent())!);
  await expect(page.locator('dt', { hasText: 'from the blade' })).toBeVisible();
  expect(Math.abs((await value('from the arbor')) - 0.02)).toBeLessThan(0.004);
  expect(Math.abs((await value('from the blade')) - 0.05)).toBeLessThan(0.004);
  await expect(page.getByRole('region', { name: 'Result' })).toContainText('Run-out is good');
  await accessible(page);
});

test('a column of teeth is pasted, the proud one is named, and a slip is asked for again', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.goto('/align/clearance');
  await page.getByRole('combobox', { name: 'Blade' }).click();
  await page.getByRole('option', { name: 'Quill' }).click();
  const teeth = Array.from({ length: 60 }, (_, i) => (0.5 + 0.004 * Math.sin(i * 7)).toFixed(4));
  teeth[22] = '0.59';
  await page.evaluate((t) => navigator.clipboard.writeText(t), teeth.join('\n'));
  await page.getByRole('textbox', { name: 'Reading: Left 1' }).focus();
  await page.keyboard.press('ControlOrMeta+v');
  const found = page.getByRole('region', { name: 'Result' });
  await expect(found).toContainText('Tooth 23 sticks out');
  await expect(found).toContainText('0.88 mm apart');
  await expect(page.getByRole('img', { name: 'Left side: 60 teeth, poor, 1 sticking out' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Compare with' }).click();
  await page.getByRole('option', { name: /Quill/ }).first().click();
  const figures = page.getByRole('table', { name: 'Side clearance in figures' });
  await expect(figures.getByRole('columnheader')).toHaveText([
    'Left',
    /^Quill, .*, left$/,
    /^Quill, .*, right$/,
  ]);
  await expect(figures.getByRole('row', { name: 'Least to most' })).toContainText('0.094 mm');
  await accessible(page);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const file = await saved;
  expect(file.suggestedFilename()).toBe('clearance.csv');
  await page.getByRole('button', { name: 'Measure again' }).click();
  await page.getByLabel('Readings file').setInputFiles(await file.path());
  await expect(found, 'a file that was saved comes back the same').toContainText('Tooth 23 sticks out');
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('textbox', { name: 'Reading: Left 58' }).fill('9.5');
  await page.keyboard.press('Enter');
  await expect(page.getByText('far from the others')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save to log' })).toBeDisabled();
  await page.getByRole('button', { name: 'Read Left 58 again' }).click();
  await expect(page.getByRole('textbox', { name: 'Reading: Left 58' })).toBeVisible();
});
