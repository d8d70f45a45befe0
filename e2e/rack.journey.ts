import { accessible, expect, moveTo, own, test } from './test';

test('the rack is drawn, and a blade tells its history', async ({ page }) => {
  await page.goto('/blades');
  await expect(page.getByText(/^\d+ in the rack$/)).toBeVisible();
  await accessible(page);
  // What presses most hangs first and stands large; the one that has the keyboard takes its place.
  const pegs = page.getByRole('list', { name: 'Blades' }).getByRole('listitem');
  await expect(pegs.first()).toContainText('caution');
  const beside = page.getByRole('complementary');
  await expect(beside.getByRole('heading')).toHaveText(
    (await pegs.first().getByRole('link').locator('div').nth(1).textContent())!,
  );
  await pegs.getByRole('link', { name: /^Glass/ }).focus();
  await expect(beside.getByRole('heading')).toHaveText('Glass');
  await page.getByRole('button', { name: 'By size' }).click();
  await expect(page.getByRole('heading', { name: /^305 mm, Drop/ })).toBeVisible();
  for (const name of ['Batten', 'Gallop']) await page.getByRole('checkbox', { name: `Pick ${name}` }).check();
  await expect(page.getByRole('status').filter({ hasText: '2 picked' })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Clean 2' }).click();
  await expect(page.getByRole('heading', { name: 'Cleaning', exact: true })).toBeVisible();
  await expect(page).toHaveURL(/care\/wash\?b=.*&b=/);
  await page.goBack();
  // It hangs as it was left; a blade is found by its name.
  await expect(page.getByRole('heading', { name: /^305 mm, Drop/ })).toBeVisible();
  await page.getByRole('textbox', { name: 'Find' }).fill('rook');
  await page.getByRole('link', { name: /Rook/ }).click();
  await expect(page.getByText('dull: sharpen it')).toBeVisible();
  await expect(page.getByRole('img', { name: /^Over .* edge \d+ % used up/ })).toBeVisible();
  const rows = page.getByRole('region', { name: 'History' }).locator('time');
  await expect(rows).toHaveCount(25);
  await page.getByRole('button', { name: 'Earlier' }).click();
  await expect.poll(() => rows.count()).toBeGreaterThan(25);
  await accessible(page);
});

for (const addresses of [
  ['/', '/saws', '/align', '/align/runout'],
  ['/blades', '/blades/new', '/blades/files', '/settings'],
  ['/groove', '/groove?p=17.85~17.9', '/groove/joints', '/groove/joints?joint=fold'],
])
  test(`night on a tablet and a phone: ${addresses.join(' ')}`, async ({ browser, baseURL }) => {
    const page = await browser.newPage({ colorScheme: 'dark', baseURL });
    await page.goto(addresses[0]!);
    for (const address of addresses) {
      await moveTo(page, address);
      for (const [width, height] of [
        [820, 1180],
        [390, 844],
      ] as const) {
        await page.setViewportSize({ width, height });
        await expect(page.getByRole('heading').first()).toBeVisible();
        const wide = () => page.evaluate(() => document.documentElement.scrollWidth);
        await expect.poll(wide, `${address} scrolls sideways`).toBeLessThanOrEqual(width);
        await accessible(page);
      }
    }
    await page.close();
  });

test('the contract can be read, and an unknown blade is told so', async ({ page }) => {
  await page.goto('/contract');
  await expect(page.getByRole('heading', { name: 'POST /plans' })).toBeVisible();
  await accessible(page, 'main > section:nth-of-type(-n + 2)'); // the others are made alike
  await page.goto('/blades/00000000-0000-4000-8000-000000000000');
  await expect(page.getByText('There is no such blade in this shop.')).toBeVisible();
});

test('a blade is read off its steel, added, edited by two people, and retired', async ({ page, request }) => {
  await page.goto('/blades/new');
  await page.getByRole('textbox', { name: 'Name' }).fill('Marionette');
  const size = page.getByRole('textbox', { name: 'Diameter' });
  await size.fill('160');
  await page.getByRole('combobox', { name: 'Grind' }).click();
  await page.getByRole('option', { name: 'ATB+R (alternate top bevel with raker)' }).click();
  await page.getByRole('button', { name: /Nothing printed on it/ }).click();
  await page.getByRole('textbox', { name: 'Teeth in one group' }).fill('5');
  await page.getByRole('textbox', { name: 'Groups' }).fill('8');
  const groups = page.getByRole('region', { name: 'Teeth, by groups' });
  await expect(groups.getByRole('status')).toHaveText('40 teeth');
  await groups.getByRole('button', { name: 'Use it' }).click();
  await page.getByRole('textbox', { name: 'Offset' }).fill('1');
  await expect(page.getByText('hook 0.7°')).toBeVisible();
  await page.getByRole('button', { name: 'Bevel 20 degrees' }).click();
  await accessible(page);
  // The drawing follows, and what cannot be is said at its field.
  await page.getByRole('textbox', { name: 'Plate', exact: true }).fill('3.4');
  await expect(page.getByText('would rub').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add blade' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Plate', exact: true }).fill('2.2');
  await expect(page.getByText('Tooth spacing 12.57 mm')).toBeVisible();
  await page.getByRole('button', { name: 'Add blade' }).click();
  await expect(page.getByRole('heading', { name: 'Marionette' })).toBeVisible();
  await expect(page.getByText('40, 12.57 mm apart')).toBeVisible();

  await page.getByRole('link', { name: 'Edit' }).click();
  await page.getByRole('textbox', { name: 'Location' }).fill('peg 12');
  const at = page.url().replace('/edit', '').replace('/blades/', '/api/v1/blades/');
  const { id, version, name } = (await (await request.get(at)).json()) as Record<string, unknown>;
  const other = {
    name,
    make: 'toothed',
    diameter_mm: 160,
    bore_mm: 15.875,
    kerf_mm: 3.2,
    teeth: 40,
    grind: 'ATBR',
  };
  const theirs = await request.put(`/api/v1/blades/${String(id)}`, {
    data: { ...other, bevel_deg: 20, kept_for: 'joints' },
    headers: { 'If-Match': `"${String(version)}"` },
  });
  expect(theirs.ok()).toBe(true);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const differs = page.getByRole('table', { name: 'Differences' });
  await expect(differs).toContainText('joints');
  await expect(differs).toContainText('peg 12');
  await accessible(page);
  await page.getByRole('button', { name: /Keep mine/ }).click();
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('peg 12', { exact: true })).toBeVisible();

  await page.getByRole('button', { name: 'Retire', exact: true }).click();
  await page.getByRole('combobox', { name: 'Why' }).click();
  await page.getByRole('option', { name: 'cracked plate' }).click();
  await page.getByRole('button', { name: 'Retire' }).click();
  await expect(page.getByText("It isn't offered for any cut.")).toBeVisible();
  await expect(page.getByRole('listitem').first()).toContainText('Retired: cracked plate');
});

test('a file with two bad rows is shown row by row before anything is saved', async ({ page }) => {
  await page.goto('/blades/files');
  const csv =
    'name,make,diameter_mm,bore_mm,kerf_mm,plate_mm,teeth,grind,hook_deg,bevel_deg,kept_for\n' +
    'Puck,toothed,160,20,3/32,1.6,30,ATB,10,20,sheet\n' +
    'Thick,toothed,160,20,2,2.4,40,ATB,10,20,general\n' +
    'Odd,toothed,160,20,wide,1.4,40,ATB,10,20,general\n';
  await page
    .getByLabel('File of saws and blades')
    .setInputFiles({ name: 'new.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByText('1 to add, 0 to change, 0 the same, 2 rejected')).toBeVisible();
  const rows = page.getByRole('list', { name: 'Rows of the file' }).getByRole('listitem');
  await expect(rows.nth(1)).toContainText('would rub');
  await expect(rows.nth(2)).toContainText('"wide" is not a length');
  await accessible(page);
  // What was previewed once is not saved once the rack is another: the preview is made again.
  const again = page.waitForResponse('**/api/v1/rack-import-previews');
  await page.route(
    '**/api/v1/rack-imports',
    (route) =>
      route.continue({ postData: { ...(route.request().postDataJSON() as object), digest: 'of before' } }),
    { times: 1 },
  );
  await page.getByRole('button', { name: 'Save 1 row' }).click();
  await again;
  await expect(page.getByRole('alert')).toContainText('Nothing was saved');
  // A journey beside this one may change it too.
  await expect(async () => {
    await page.getByRole('button', { name: 'Save 1 row' }).click({ timeout: 5000 });
    await expect(page.getByText('Saved: 1 added, 0 changed.')).toBeVisible();
  }).toPass({ timeout: 60_000 });
  await page.goto('/blades');
  await page.getByRole('textbox', { name: 'Find' }).fill('30 puck');
  await expect(page.getByRole('listitem').filter({ hasText: 'Puck' })).toHaveCount(1);
});

test('labels are laid out for the blades that are ticked', async ({ page }) => {
  await page.goto('/blades/labels');
  await page.getByRole('checkbox', { name: 'Needle' }).check();
  await page.getByRole('checkbox', { name: 'Plough' }).check();
  await page.getByRole('button', { name: 'Make 2' }).click();
  await expect(page.getByRole('img', { name: 'Labels of 2 blades' })).toBeVisible();
  await accessible(page);
});

test('a wall of two thousand blades is drawn in windows and searched at once', async ({ page }) => {
  const { items } = (await (await page.request.get('/api/v1/blades')).json()) as {
    items: { id: string; name: string }[];
  };
  const many = Array.from({ length: 2000 }, (_, i) => ({
    ...items[i % items.length]!,
    id: `${i}`,
    name: `Blade ${i}`,
  }));
  await page.route('**/api/v1/blades?*', (route) => route.fulfill({ json: { items: many } }));
  await page.goto('/blades');
  await expect(page.getByText('2000 in the rack')).toBeVisible();
  const pegs = page.getByRole('list', { name: 'Blades' }).getByRole('listitem');
  await expect(pegs.first()).toHaveAttribute('aria-setsize', '2000');
  expect(await pegs.count()).toBeLessThan(60);
  // A hand types faster than a wall is drawn anew.
  await (await page.context().newCDPSession(page)).send('Emulation.setCPUThrottlingRate', { rate: 6 });
  const find = page.getByRole('textbox', { name: 'Find' });
  await find.focus();
  await Promise.all([...'1999'].map((key) => page.keyboard.press(key)));
  await expect(find).toHaveValue('1999');
  await expect(pegs).toHaveCount(1);
  await expect(page).toHaveURL(/find=1999$/);
});

test('a saw is put in, held to its own tolerances, and taken out again', async ({ page }) => {
  await page.goto('/saws/new');
  await page.getByRole('textbox', { name: 'Name' }).fill('Prompter');
  await page.getByRole('combobox', { name: 'Kind' }).click();
  await page.getByRole('option', { name: 'circular saw' }).click();
  await page.getByRole('textbox', { name: 'Blade diameter' }).fill('160');
  await page.getByRole('textbox', { name: 'Upright' }).fill('95');
  await expect(page.getByText('deeper than its radius').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add saw' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Upright' }).fill('55');
  await page.getByRole('textbox', { name: 'Circuit, V' }).fill('120');
  await page.getByRole('textbox', { name: 'Breaker, A' }).fill('10');
  // 0.75 of what the breaker carries is less than the motor gives.
  await expect(page.getByText('900 W')).toBeVisible();
  await page.getByRole('checkbox', { name: 'Your tolerances' }).check();
  await page.getByRole('textbox', { name: 'Run-out: correct above, mm' }).fill('0.3');
  await accessible(page);
  await page.getByRole('button', { name: 'Add saw' }).click();
  await page.getByRole('button', { name: 'More about Prompter' }).click();
  await page.getByRole('region', { name: 'Prompter' }).getByRole('link', { name: 'Saw details' }).click();
  await expect(page.getByRole('textbox', { name: 'Run-out: correct above, mm' })).toHaveValue('0.3');
  await page.getByRole('button', { name: 'Retire', exact: true }).click();
  await page.getByRole('combobox', { name: 'Why' }).click();
  await page.getByRole('option', { name: 'lost' }).click();
  await page.getByRole('button', { name: 'Retire' }).click();
  await expect(page.getByRole('heading', { name: 'Saws' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Prompter' })).toHaveCount(0);
});

test('how the shop works is changed by version, and the second of two is told', async ({ page, request }) => {
  await page.goto('/settings');
  const shop = (await (await request.get('/api/v1/shop')).json()) as Record<string, unknown>;
  const name = page.getByRole('textbox', { name: 'Name' });
  await expect(name).toHaveValue(String(shop.name));
  await name.fill('Our own shop');
  const { version, ...rest } = shop;
  delete rest.id;
  const theirs = await request.put('/api/v1/shop', {
    data: { ...rest, name: 'Somebody’s shop' },
    headers: { 'If-Match': `"${String(version)}"` },
  });
  expect(theirs.ok()).toBe(true);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('table', { name: 'Differences' })).toContainText('Somebody’s shop');
  await page.getByRole('button', { name: 'Use theirs' }).click();
  await expect(name).toHaveValue('Somebody’s shop');
  await name.fill(String(shop.name));
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await expect(page.getByRole('button', { name: `${String(shop.name)}: more` })).toBeVisible();
});

test('a shop with nothing in it leads on from every station, and a page that is not there says so', async ({
  page,
}) => {
  await page.route('**/api/v1/saws', (r) => r.fulfill({ json: { items: [] } }));
  await page.route('**/api/v1/bench', (r) => r.fulfill({ json: { items: [] } }));
  await page.route('**/api/v1/log?*', (r) => r.fulfill({ json: { items: [] } }));
  for (const at of ['/', '/groove', '/run', '/saws', '/align', '/diagnose', '/log']) {
    await page.goto(at);
    await expect(page.getByRole('link', { name: 'Add saw' })).toHaveAttribute('href', '/saws/new');
    await expect(page.getByRole('link', { name: 'Import a file' })).toBeVisible();
  }
  const gone = await page.goto('/no/such/page');
  expect(gone?.status()).toBe(404);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
});

test('a new shop is asked once where it is', async ({ page }) => {
  const shop = await (await page.request.get('/api/v1/shop')).json();
  const asked: unknown[] = [];
  await page.route('**/api/v1/shop', async (r) => {
    if (r.request().method() === 'PUT') asked.push(r.request().postDataJSON());
    const zone = asked.length > 0 ? { time_zone: 'Europe/Vienna' } : {};
    await r.fulfill({ json: { ...shop, time_zone: undefined, ...zone } });
  });
  await page.goto('/saws');
  const offer = page.getByRole('region', { name: 'The shop’s time zone' });
  await offer.getByRole('button', { name: 'Keep' }).click();
  await expect(offer).toBeHidden();
  expect(asked).toEqual([
    expect.objectContaining({ name: shop.name, time_zone: expect.stringMatching(/\w/) as unknown }),
  ]);
});

test('a saw from its plate, blades from the tray, and the first answer, in seven taps', async ({
  page,
  request,
}) => {
  await page.goto('/start');
  await page.getByRole('button', { name: 'Another saw' }).click();
  await page.getByRole('button', { name: 'Circular saw' }).click();
  const diameter = page.getByRole('textbox', { name: 'Blade diameter' });
  await diameter.fill('7 1/4"');
  await diameter.press('Enter');
  await expect(page.getByText('Assumed for now: arbor 15.88 mm, blade up to 62')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Add saw' }).click();
  const tray = page.getByRole('list', { name: 'Usual blades of Circular saw' });
  await expect(tray.getByRole('button')).toHaveCount(3);
  const framing = tray.getByRole('button', { name: /Framing 24/ });
  for (const pressed of ['true', 'false', 'true']) {
    await framing.click();
    await expect(framing).toHaveAttribute('aria-pressed', pressed);
  }
  await accessible(page);
  await page.getByRole('link', { name: 'Choose a cut on Circular saw' }).click();
  await expect(page.getByRole('region', { name: 'Blades for this cut' })).toContainText('Framing 24');
  // It leaves the shop as it found it.
  const all = async (what: string) =>
    ((await (await request.get(`/api/v1/${what}`)).json()) as { items: { id: string; name: string }[] })
      .items;
  for (const [what, name] of [
    ['saws', 'Circular saw'],
    ['blades', 'Framing 24'],
  ] as const) {
    const { id } = (await all(what)).find((x) => x.name === name)!;
    const gone = await request.put(`/api/v1/${what}/${id}/retirement`, { data: { reason: 'other' } });
    expect(gone.ok()).toBe(true);
  }
});

test('what would be lost is asked about first', async ({ page, request }) => {
  const id = await own(request, 'Keepsake');
  await page.goto(`/blades/${id}/edit`);
  const name = page.getByRole('textbox', { name: 'Name' });
  const back = page.getByRole('link', { name: '‹ Keepsake' });
  const asked = page.getByRole('dialog', { name: 'Leave without saving?' });
  await name.fill('Heirloom');
  await back.click();
  await accessible(page);
  await asked.getByRole('button', { name: 'Stay here' }).click();
  await expect(name).toHaveValue('Heirloom');
  // What the contract bounds is said before anybody is asked.
  await page.route('**/api/v1/blade-drafts', () => undefined);
  await page.getByRole('textbox', { name: 'Teeth', exact: true }).fill('401');
  await expect(page.getByText('At most 400.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Teeth', exact: true }).fill('24.4');
  await expect(page.getByText('At most 400.')).toHaveCount(0);
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await page.getByRole('textbox', { name: 'Teeth', exact: true }).fill('80');
  // What is as it was is left without a word, and so is what was saved.
  await name.fill('Keepsake');
  await back.click();
  await expect(page).toHaveURL(`/blades/${id}`);
  await page.goto(`/blades/${id}/edit`);
  await name.fill('Heirloom');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Heirloom' })).toBeVisible();
  await expect(page).toHaveURL(`/blades/${id}`);
  await page.goto(`/blades/${id}/edit`);
  await name.fill('Nobody');
  await page.getByRole('link', { name: '‹ Heirloom' }).click();
  await asked.getByRole('button', { name: 'Leave' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Heirloom' })).toBeVisible();
  // A wash that is given up by a slip goes on.
  const begun = await request.post('/api/v1/washes', {
    data: { blade_ids: [id], cleaner: 'detergent', brush: 'nylon' },
    headers: { 'Idempotency-Key': crypto.randomUUID() },
  });
  const wash = ((await begun.json()) as { id: string }).id;
  await page.goto(`/care/wash/${wash}`);
  const give = page.getByRole('button', { name: 'Stop cleaning' });
  const sure = page.getByRole('dialog', { name: 'Stop cleaning?' });
  await give.click();
  await sure.getByRole('button', { name: 'Cancel' }).click();
  await expect(sure).toHaveCount(0);
  expect((await request.get(`/api/v1/washes/${wash}`)).status()).toBe(200);
  await give.click();
  await sure.getByRole('button', { name: 'Stop cleaning' }).click();
  await expect(page).toHaveURL('/care');
  expect((await request.get(`/api/v1/washes/${wash}`)).status()).toBe(404);
});
