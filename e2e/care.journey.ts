/** Run and Care: the cut made and logged, settings compared, blades washed, sent out and back, the calendar. */
import ICAL from 'ical.js';
import type { APIRequestContext, Page } from '@playwright/test';
import { accessible, expect, own, sheets, test } from './test';
import { edgePhoto, wallPhoto } from './photos';

const named = async (request: APIRequestContext, name: string) => {
  const page = (await (await request.get('/api/v1/blades?limit=500')).json()) as {
    items: { id: string; name: string }[];
  };
  return page.items.find((b) => b.name === name)!.id;
};

const rows = (page: Page) => page.getByRole('region', { name: 'Rows' }).getByRole('listitem');

test('a cut is fed by the beat, logged with what came out, and struck out', async ({ page, request }) => {
  const id = await own(request, 'Metronome');
  await page.clock.install();
  await page.goto(`/run?of=red-oak&t=20&l=900&blade=${id}`);
  await expect(page.getByRole('list', { name: 'Cautions' })).toContainText('Riving knife');
  await page.getByRole('button', { name: 'Start feed beat' }).click();
  await expect(page.getByRole('button', { name: 'Hands in position…' })).toBeVisible();
  for (let i = 0; i < 4; i++) await page.clock.runFor(1000);
  const through = page.getByRole('button', { name: 'Through' });
  await expect(through).toBeVisible();
  await page.clock.runFor(9000);
  await through.click();
  const took = page.getByRole('textbox', { name: 'Time per piece, s' });
  expect(Number(await took.inputValue())).toBeGreaterThan(8);
  await page.getByRole('group', { name: 'Cut edge' }).getByRole('button', { name: 'brown' }).click();
  await page.getByRole('group', { name: 'Effort' }).getByRole('button', { name: 'hard' }).click();
  await page.getByRole('button', { name: 'One piece more' }).click();
  await accessible(page);
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByText('Cut logged.')).toBeVisible();
  await page.goto(`/blades/${id}`);
  const row = page.getByRole('listitem').filter({ hasText: 'red oak' });
  await expect(row).toContainText('1.8 m, 2 pieces');
  await expect(row).toContainText(/cut edge brown, no tear-out, fed hard, [\d.]+ s per piece/);
  // It was counted wrong: it is put right, struck out by mistake, and put back.
  await row.getByRole('button', { name: /red oak/ }).click();
  await row.getByRole('button', { name: 'Correct it' }).click();
  const right = page.getByRole('dialog', { name: 'Correct it' });
  await right.getByRole('textbox', { name: 'Pieces' }).fill('20');
  await right.getByRole('button', { name: 'clean' }).click();
  await accessible(page);
  await right.getByRole('button', { name: 'Correct it' }).click();
  await expect(right).toBeHidden();
  const stands = row.filter({ hasNotText: 'Corrected.' });
  await expect(stands).toContainText(/18 m, 20 pieces.*cut edge clean/);
  await expect(page.getByText('18 m in 1 log line', { exact: true })).toBeVisible();
  await stands.getByRole('button', { name: /20 pieces/ }).click();
  await stands.getByRole('button', { name: /^Delete the entry/ }).click();
  await expect(page.getByText('0 m in 0 log lines')).toBeVisible();
  await page.getByRole('button', { name: /^Restore the entry/ }).click();
  await expect(page.getByText('18 m in 1 log line', { exact: true })).toBeVisible();
});

test('cuts that are made while the server is away wait, are seen to wait, and are sent once in order', async ({
  page,
  request,
}) => {
  const id = await own(request, 'Castaway');
  await page.goto(`/run?of=ash&t=20&l=700&blade=${id}`);
  await expect(page.getByRole('button', { name: 'Cut made' })).toBeVisible();
  let away = true;
  await page.route('**/api/v1/cuts', async (route) => {
    if (!away) return route.continue();
    // One of them gets through, and its answer is lost.
    if (route.request().postData()!.includes('"brown"')) await route.fetch();
    await route.abort('connectionreset');
  });
  for (const wall of ['brown', 'black', 'clean']) {
    await page.getByRole('group', { name: 'Cut edge' }).getByRole('button', { name: wall }).click();
    await page.getByRole('button', { name: 'Cut made' }).click();
    await expect(page.getByText('The cut is saved on this device')).toBeVisible();
  }
  const waiting = page.getByRole('button', { name: '3 cuts waiting to send' });
  await waiting.click();
  await expect(page.getByText('They are saved on this device')).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Escape');
  away = false;
  await expect(page.getByRole('button', { name: /cuts? waiting to send$/ })).toHaveCount(0);
  const log = (await (await request.get(`/api/v1/log?blade_id=${id}`)).json()) as {
    items: { cut: { wall: string } }[];
  };
  expect(log.items.map((e) => e.cut.wall)).toEqual(['clean', 'black', 'brown']);
});

test('two settings are compared on one board, graded blind, and the result says how sure it is', async ({
  page,
  request,
}) => {
  const id = await own(request, 'Umpire');
  let answer!: () => void;
  const typed = new Promise<void>((resolve) => (answer = resolve));
  await page.route('**/api/v1/comparisons', (route) => typed.then(() => route.continue()), { times: 1 });
  await page.goto(`/trial/new?blade=${id}&of=hard-maple`);
  await expect(page.getByRole('textbox', { name: 'Height' })).toHaveCount(2);
  const heightOf = (setting: string) =>
    page.getByRole('region', { name: `Setting ${setting}` }).getByRole('textbox', { name: 'Height' });
  const second = heightOf('B');
  // What is typed while the suggestion is on its way stands.
  await second.fill('60');
  answer();
  await expect(heightOf('A')).toHaveValue('31 mm');
  await expect(second).toHaveValue('60');
  await second.press('Escape');
  await page.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByText('settings A and B are the same: change one thing')).toBeVisible();
  await second.fill('60');
  await second.press('Enter');
  await accessible(page);
  await page.getByRole('button', { name: 'Start' }).click();
  const of: Record<string, string> = {};
  for (let piece = 1; piece <= 8; piece++) {
    await expect(page.getByText(`Cut piece ${piece} of 8`)).toBeVisible();
    of[piece] = (await page.getByText(/^[AB]: Umpire/).textContent())!.charAt(0);
    await page.getByRole('button', { name: `Piece ${piece} is cut` }).click();
  }
  expect(Object.values(of).sort().join('')).toBe('AAAABBBB');
  for (let i = 1; i <= 8; i++) {
    await expect(page.getByText(`Grade ${i} of 8, settings hidden`)).toBeVisible();
    const piece = /\d+/.exec((await page.getByText(/^Piece \d+$/).textContent())!)![0];
    if (i === 1) {
      // The first piece is graded off photos, which know nothing of the setting either.
      const brown = of[piece] === 'A';
      await page.getByRole('button', { name: 'Cut edge: from a photo' }).click();
      const wall = await wallPhoto(page, { brown: brown ? [0.2, 0.6] : [0, 0] });
      await page.getByLabel('Photo of the cut edge', { exact: true }).setInputFiles(wall);
      await page.getByRole('button', { name: brown ? 'Yes, brown' : 'Yes, clean' }).click();
      await page.getByRole('button', { name: 'The edge: from a photo' }).click();
      await page.getByLabel('Photo of the edge', { exact: true }).setInputFiles(await edgePhoto(page, []));
      await expect(page.getByRole('link', { name: 'Diagnose this' })).toHaveCount(0);
      await page.getByRole('button', { name: 'Yes, none' }).click();
    } else {
      await page.getByRole('button', { name: of[piece] === 'A' ? 'brown' : 'clean' }).click();
      await page.getByRole('button', { name: 'none' }).click();
    }
    await page.getByRole('button', { name: `That is piece ${piece}` }).click();
  }
  await page.getByRole('button', { name: 'Show result' }).click();
  await expect(page.getByText(/^B burns less than A; sure: luck alone does this in one of 35/)).toBeVisible();
  await accessible(page);
  await page.goto(`/blades/${id}`);
  await expect(page.getByRole('listitem').filter({ hasText: 'comparison, piece' })).toHaveCount(8);
  await page.getByRole('button', { name: /Compared/ }).click();
  await page.getByRole('link', { name: 'See the comparison' }).click();
  await expect(page.getByRole('heading', { name: 'Result' })).toBeVisible();
});

test('two blades are washed in one bath, by timers that a closed tablet does not stop', async ({
  page,
  request,
}) => {
  const ids = [await own(request, 'Ladle'), await own(request, 'Spoon', { coating: 'slick' })];
  await page.clock.install();
  await page.goto(`/care/wash?${ids.map((id) => `b=${id}`).join('&')}`);
  await page.getByRole('combobox', { name: 'Cleaner' }).click();
  await page.getByRole('option', { name: 'oven cleaner' }).click();
  await expect(page.getByText('Spoon has a coating: caustic strips the coating')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Start/ })).toBeDisabled();
  await page.getByRole('combobox', { name: 'Cleaner' }).click();
  await page.getByRole('option', { name: 'made for blades' }).click();
  await accessible(page);
  await page.getByRole('button', { name: /^Start/ }).click();
  await expect(page.getByRole('heading', { name: 'Soak' })).toBeVisible();
  await expect(page.getByRole('timer')).toHaveText(/^[45]:\d\d$/);
  const wash = page.url();
  // The tablet is closed for six minutes: nothing of the page is left, the soak goes on.
  await page.goto('about:blank');
  await page.clock.runFor(6 * 60_000);
  await page.goto(wash);
  // The server's clock did not jump; its answer is moved back as if it had.
  await page.route('**/api/v1/washes/*', async (route) => {
    const answer = await route.fetch();
    const body = (await answer.json()) as { step_at: string };
    if (route.request().method() === 'GET')
      body.step_at = new Date(Date.parse(body.step_at) - 6 * 60_000).toISOString();
    await route.fulfill({ response: answer, json: body });
  });
  await page.clock.runFor(6000);
  await expect(page.getByRole('timer')).toHaveText('done');
  await expect(page.getByText('Long enough.')).toBeVisible();
  await accessible(page);
  await page.unrouteAll({ behavior: 'wait' }); // an answer on its way is still handed on
  for (const next of ['Scrub', 'Flip', 'Rinse', 'Dry', 'Film']) {
    await page.getByRole('button', { name: new RegExp(`^(Next: )?${next}`) }).click();
    await expect(page.getByRole('heading', { name: next })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Done. Put them back' }).click();
  await expect(page.getByRole('heading', { name: 'Care' })).toBeVisible();
  await page.goto(`/blades/${ids[0]}`);
  await expect(
    page.getByRole('listitem').filter({ hasText: 'Cleaned in made for blades, 2 blades in one bath.' }),
  ).toBeVisible();
});

test('a blade is sent out, is offered for nothing, and comes back with its numbers', async ({
  page,
  request,
}) => {
  const id = await own(request, 'Rover');
  await page.goto('/care');
  await expect(page.getByRole('button', { name: 'More for Rover' })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'More for Rover' }).click();
  await page.getByRole('menuitem', { name: 'Send to be sharpened…' }).click();
  await page.getByRole('textbox', { name: 'Sharpening service' }).fill('the saw doctor on Quay Street');
  await page.getByRole('textbox', { name: 'Price quoted' }).fill('21.50');
  await page.getByRole('button', { name: 'Send out and print slip' }).click();
  await expect(page.getByRole('region', { name: 'Rover' })).toContainText('the saw doctor on Quay Street');
  await accessible(page);
  expect(await sheets(page), 'the packing slip').toBe(1);
  await page.goto('/');
  await expect(page.getByRole('region', { name: 'Blades for this cut' })).toContainText(
    'It is away for sharpening',
  );
  await page.goto('/care');
  await page.getByRole('button', { name: "It's back: Rover" }).click();
  await page.getByRole('textbox', { name: 'Price' }).fill('21.5');
  await page.getByRole('textbox', { name: 'Sharpenings left' }).fill('6');
  const diameter = page.getByRole('textbox', { name: 'Measured diameter' });
  await diameter.fill('253.4');
  await diameter.press('Enter');
  await page.getByRole('button', { name: 'Put back in the rack' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.goto(`/blades/${id}`);
  await expect(page.getByText('253.4 mm', { exact: true })).toBeVisible();
  await expect(
    page.getByRole('listitem').filter({ hasText: 'Back, sharpened: paid 21.50, 6 sharpenings left' }),
  ).toBeVisible();
  await page.goto(`/care/money/${id}`);
  await expect(page.getByText('101.5', { exact: true })).toBeVisible();
  await expect(page.getByRole('img', { name: /^Cost by length cut/ })).toBeVisible();
  await accessible(page);
});

test('the calendar is read by a parser that is not ours, until it is withdrawn', async ({
  page,
  request,
}) => {
  await page.goto('/care');
  await page.getByRole('button', { name: 'Create address' }).click();
  const address = await page.getByRole('link', { name: /calendars/ }).getAttribute('href');
  const feed = await request.get(address!);
  expect(feed.headers()['content-type']).toContain('text/calendar');
  const calendar = new ICAL.Component(ICAL.parse(await feed.text()) as unknown[]);
  const events = calendar.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  const rook = events.find((e) => e.summary === 'Sharpen Rook')!;
  expect(rook.startDate.isDate).toBe(true);
  const shop = (await (await request.get('/api/v1/shop')).json()) as { time_zone: string };
  const today = new Date().toLocaleDateString('sv', { timeZone: shop.time_zone }); // as an ISO date
  expect(rook.startDate.toString()).toBe(today);
  const back = events.find((e) => e.summary === 'Lace is due back')!;
  expect(back.startDate.toJSDate().getTime()).toBeGreaterThan(Date.now());
  expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
  await page.getByRole('button', { name: 'Revoke' }).click();
  const sure = page.getByRole('dialog', { name: 'Revoke this address?' });
  await accessible(page);
  await sure.getByRole('button', { name: 'Revoke' }).click();
  await expect(page.getByRole('button', { name: 'Create address' })).toBeVisible();
  expect((await request.get(address!)).status()).toBe(404);
});

test('the log is filtered, goes out as a file and takes in an old list', async ({ page, request }) => {
  const id = await own(request, 'Veteran');
  await page.goto('/log');
  await page.getByRole('combobox', { name: 'Show' }).click();
  await page.getByRole('option', { name: 'cleaned, sharpened, sent out' }).click();
  await expect(rows(page).filter({ hasText: 'Ripped' })).toHaveCount(0);
  await expect(rows(page).filter({ hasText: 'Cleaned in mild detergent' }).first()).toBeVisible();
  await accessible(page);
  // The season filters the rows under it: by a blade, by weeks that are drawn over; the address keeps it.
  await page.getByRole('combobox', { name: 'Show' }).click();
  await page.getByRole('option', { name: 'everything' }).click();
  await page.getByRole('button', { name: 'Rook', exact: true }).click();
  const chart = page.getByRole('img', { name: /^Length cut by week and blade/ });
  const box = (await chart.boundingBox())!;
  await page.mouse.move(box.x + box.width * 0.3, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.4, box.y + 20, { steps: 4 });
  await page.mouse.up();
  await expect(page).toHaveURL(/blade=.*from=\d{4}-\d\d-\d\d&until=/);
  await expect(rows(page).filter({ hasText: 'Rook' }).first()).toBeVisible();
  await expect(rows(page).filter({ hasText: 'Chorus' })).toHaveCount(0);
  const days = new URL(page.url()).searchParams;
  // The rows of before stand until those of the weeks have come.
  await expect
    .poll(async () => {
      const all = await rows(page)
        .locator('time')
        .evaluateAll((times) => times.map((t) => t.getAttribute('datetime')!));
      return all.filter(
        (at) =>
          at.slice(0, 10) < days.get('from')! ||
          Date.parse(at) >= Date.parse(days.get('until')!) + 2 * 86_400_000,
      );
    })
    .toEqual([]);
  const narrowed = await rows(page).count();
  await page.reload();
  await expect(rows(page)).toHaveCount(narrowed);
  await page.getByRole('button', { name: /Remove filter$/ }).click();
  await expect(page).not.toHaveURL(/from=/);
  const file = (text: string) => ({ name: 'old.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await page
    .getByLabel('Import records', { exact: true })
    .setInputFiles(
      file(
        'at;kind;blade;saw;material;thickness_mm;width_mm;length_mm;pieces\n' +
          '2025-02-03;cut;Veteran;Long Table;cherry;3/4";80;900;10\n' +
          '2025-02-04;cut;Nobody;Long Table;cherry;20;80;900;1\n',
      ),
    );
  await expect(page.getByText('1 to add, 0 already there, 1 rejected.')).toBeVisible();
  await expect(page.getByText('there is no blade called "Nobody"')).toBeVisible();
  await page.getByRole('button', { name: 'Add 1' }).click();
  await expect(page.getByText('1 row added,')).toBeVisible();
  const blade = (await (await request.get(`/api/v1/blades/${id}`)).json()) as {
    condition: { metres: number };
  };
  expect(blade.condition.metres).toBeCloseTo(9, 6);
  expect(await named(request, 'Veteran')).toBe(id);
});
