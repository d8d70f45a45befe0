/** Learning: each drill is done on its page, and what is called right is what the page showed. */
import type { APIRequestContext, Page } from '@playwright/test';
import { accessible, expect, test } from './test';

interface Told {
  right: boolean;
  truth?: string;
  value?: number;
  says: string[];
  told: { key: string; slowest_m_min?: number; says: string[] }[];
  wall?: { whole: boolean; scorch: number[]; feed_m_min: number[]; seconds: number };
}
interface Task {
  ask: string;
  choices: {
    key: string;
    text?: string;
    felt?: { seconds: number; note_hz: number };
    blade?: { teeth: number };
    plan?: { stop: string };
  }[];
  blade?: { teeth: number; hook_deg: number };
  odd?: { tooth: number };
  face?: { shows_mm: number; inch: boolean };
  board?: { span_mm: number; line_mm: number; at_mm: number[] };
  fault?: {
    signs: { text: string; asked: boolean }[];
    checks: { id: string; text: string; found: boolean }[];
  };
  feed?: { length_mm: number; reach_mm: number };
}

/** Opens a task on its page, and answers what is asked in it. */
async function open(page: Page, request: APIRequestContext, skill: string, number: number, level = 1) {
  const drill = skill.split('/')[0]!;
  const query = `number=${number}&skill=${skill}&level=${level}`;
  const task = (await (await request.get(`/api/v1/drills/${drill}/task?units=mm&${query}`)).json()) as Task;
  await page.goto(`/practice/${drill}?${query}`);
  await expect(page.getByText(task.ask).first()).toBeVisible();
  return task;
}

/** What comes of what is done. */
async function told(page: Page, act: () => Promise<unknown>) {
  const answer = page.waitForResponse((r) => r.url().endsWith('/drill-answers'));
  await act();
  const verdict = (await (await answer).json()) as Told;
  await expect(page.getByText(verdict.right ? 'Right.' : /^Not (quite|yet)/).first()).toBeVisible();
  for (const said of verdict.says) await expect(page.getByText(said).first()).toBeVisible();
  return verdict;
}

test('a board is fed by two hands at the keys, then let go, and the wall says where it went wrong', async ({
  page,
  request,
}) => {
  let number = 0;
  let task = await open(page, request, 'feed/board', number);
  while (task.feed!.length_mm <= task.feed!.reach_mm + 30)
    task = await open(page, request, 'feed/board', ++number);
  // Where movement is not wanted it is said in steps before; a stretch too slow is brown there alone.
  await accessible(page);
  const stretch = page.getByRole('slider', { name: 'Seconds from 100 mm on' });
  await stretch.focus();
  await page.keyboard.press('End');
  const said = await told(page, () => page.getByRole('button', { name: 'Push' }).click());
  expect(said.wall!.whole).toBe(true);
  const brown = said.wall!.scorch.map((s, i) => (s > 1 ? i : -1)).filter((i) => i >= 0);
  expect(brown.length).toBeGreaterThan(60);
  expect(Math.min(...brown)).toBeGreaterThan(90);
  expect(Math.max(...brown)).toBeLessThan(210);
  await page.getByRole('button', { name: 'Repeat' }).click();

  await page.getByLabel('Step by step, without moving').uncheck();
  const hand = page.getByRole('slider');
  await hand.focus();
  const verdict = await told(page, async () => {
    await page.keyboard.down('ArrowRight');
    await expect(page.getByText('Your arm is fully stretched')).toBeVisible({ timeout: 20_000 });
    const at = Number(await hand.getAttribute('aria-valuenow'));
    expect(at).toBeGreaterThan(task.feed!.reach_mm - 60 - 40); // it began 60 mm before the blade
    expect(at).toBeLessThan(task.feed!.reach_mm);
    await expect(page.locator('.burnt').first(), 'it burns where it stops').toBeAttached();
    await page.keyboard.down('ArrowDown');
  });
  await page.keyboard.up('ArrowRight');
  await page.keyboard.up('ArrowDown');
  expect(verdict.wall!.whole).toBe(true);
  expect(verdict.wall!.scorch.length).toBe(Math.ceil(task.feed!.length_mm));
  expect(verdict.wall!.seconds).toBeGreaterThan((60 * task.feed!.length_mm) / 3000); // a key never comes to more than 3 m/min
  expect(Math.max(...verdict.wall!.feed_m_min)).toBeLessThan(3.1);
  await accessible(page);

  await open(page, request, 'feed/board', 40, 2); // clean at half a key's feed and no faster
  await page.getByLabel('Step by step, without moving').uncheck();
  await hand.focus();
  await page.keyboard.down('ArrowRight');
  await expect(page.locator('.torn').first(), 'it breaks out where it is rushed').toBeAttached();
  await page.keyboard.up('ArrowRight');
  await expect(page.locator('.burnt').first(), 'and burns where it stops').toBeAttached();
  await told(page, () => page.getByRole('button', { name: 'Let go' }).click());

  await page.getByRole('button', { name: 'Repeat' }).click();
  await page.getByLabel('Step by step, without moving').uncheck();
  await page.getByLabel('Hide the numbers').check();
  await expect(page.getByText(/^The range is/)).toHaveCount(0);
  const box = (await hand.boundingBox())!;
  await page.mouse.move(box.x + 80, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + 80 + box.width / 5, box.y + 60, { steps: 12 });
  await page.mouse.up();
  await expect(hand).toHaveAttribute('aria-valuetext', /mm cut/);
  const half = await told(page, () => page.getByRole('button', { name: 'Let go' }).click());
  expect(half.right || half.wall!.whole).toBe(false);
});

test('two cuts under one push, and the one with eighty teeth is the slow and high one', async ({
  page,
  request,
}) => {
  await page.addInitScript(() => {
    const make = AudioContext.prototype.createOscillator;
    const heard = window as unknown as { tones: number };
    heard.tones = 0;
    AudioContext.prototype.createOscillator = function () {
      heard.tones++;
      return make.call(this);
    };
  });
  const tones = () => page.evaluate(() => (window as unknown as { tones: number }).tones);
  const task = await open(page, request, 'feel/teeth', 3);
  for (const c of task.choices) await page.getByRole('button', { name: `Push ${c.key}` }).click(); // motion is reduced: it is there at once
  for (const c of task.choices)
    await expect(page.getByText(`${Math.round(c.felt!.note_hz)} teeth a second`)).toBeVisible();
  await accessible(page);
  expect(await tones()).toBe(0); // silent until somebody asks
  await page.getByLabel('Sound').check();
  expect(await tones()).toBe(2); // the motor and its teeth
  const slow = task.choices.reduce((a, b) => (a.felt!.seconds > b.felt!.seconds ? a : b));
  expect(slow.felt!.note_hz).toBe(Math.max(...task.choices.map((c) => c.felt!.note_hz)));
  expect(
    (await told(page, () => page.getByRole('button', { name: `It is ${slow.key}` }).click())).right,
  ).toBe(true);
});

test('five blades without names, then those of the rack, and all five are told', async ({
  page,
  request,
}) => {
  await open(page, request, 'which/rip', 4);
  await accessible(page);
  const first = await told(page, () => page.getByRole('button', { name: 'A', exact: true }).click());
  expect(first.told.map((o) => o.key)).toEqual(['A', 'B', 'C', 'D', 'E']);
  for (const o of first.told) expect(o.says.length).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Repeat' }).click();
  const again = await told(page, () => page.getByRole('button', { name: first.truth!, exact: true }).click());
  expect(again.right).toBe(true);
  await page.getByRole('button', { name: "This shop's rack" }).click();
  await expect(page.getByRole('button', { name: 'E', exact: true })).toBeEnabled();
  await told(page, () => page.getByRole('button', { name: 'E', exact: true }).click());
});

test('a blade is read by keyboard: teeth, hook, kerf and the odd tooth', async ({ page, request }) => {
  const count = await open(page, request, 'read/count', 5, 2);
  await page.getByLabel('Teeth').fill(String(count.blade!.teeth));
  expect((await told(page, () => page.keyboard.press('Enter'))).right).toBe(true);

  const hook = await open(page, request, 'read/hook', 5);
  const edge = page.getByRole('slider', { name: 'Angle of the straightedge' });
  const drawn = (await page.locator('main svg').first().boundingBox())!;
  await page.mouse.click(drawn.x + drawn.width / 2, drawn.y + drawn.height - 20); // straight down from the tip
  await expect(edge).toHaveAttribute('aria-valuenow', '0');
  await edge.focus();
  for (let i = 0; i < hook.blade!.hook_deg; i++) await page.keyboard.press('ArrowRight');
  await accessible(page);
  expect((await told(page, () => page.getByRole('button', { name: 'Check' }).click())).right).toBe(true);

  const kerf = await open(page, request, 'read/kerf', 5);
  await page.getByLabel('Reading, mm').fill((kerf.face!.shows_mm + 0.2).toFixed(1));
  expect((await told(page, () => page.keyboard.press('Enter'))).right).toBe(false);

  const odd = await open(page, request, 'read/tooth', 5);
  for (let i = 0; i < odd.odd!.tooth; i++)
    await page.getByRole('button', { name: 'Forward one tooth' }).press('Enter');
  await accessible(page);
  expect(
    (await told(page, () => page.getByRole('button', { name: 'The one under the mark' }).click())).right,
  ).toBe(true);
});

test('supports are moved until the board lies still, and a stop traps nothing', async ({ page, request }) => {
  const { board } = await open(page, request, 'set-up/supports', 6);
  await accessible(page);
  expect((await told(page, () => page.getByRole('button', { name: 'Cut', exact: true }).click())).right).toBe(
    false,
  );
  await page.getByRole('button', { name: 'Repeat' }).click();
  const { span_mm: span, line_mm: line } = board!;
  const to = [0.2 * line, line - 40, line + 40, span - 0.2 * (span - line)];
  for (const [i, mm] of to.entries()) {
    const handle = page.getByRole('slider', { name: `Support ${i + 1}` });
    await handle.focus();
    for (;;) {
      const off = mm - Number(await handle.getAttribute('aria-valuenow'));
      if (Math.abs(off) < 6) break;
      const far = Math.abs(off) >= 100;
      await page.keyboard.press(off > 0 ? (far ? 'PageUp' : 'ArrowRight') : far ? 'PageDown' : 'ArrowLeft');
    }
  }
  expect((await told(page, () => page.getByRole('button', { name: 'Cut', exact: true }).click())).right).toBe(
    true,
  );

  const trap = await open(page, request, 'set-up/trap', 6);
  await accessible(page);
  const beside = trap.choices.find((c) => c.plan!.stop === 'beside')!;
  const verdict = await told(page, () => page.getByRole('button', { name: beside.key, exact: true }).click());
  expect(verdict.right).toBe(false);
  expect(['gauge', 'before']).toContain(trap.choices.find((c) => c.key === verdict.truth)!.plan!.stop);
});

test('a wall is read: asked, checked, named, and compared with the way of Trace', async ({
  page,
  request,
}) => {
  const task = await open(page, request, 'wall/reason', 2);
  const seen = task.fault!.signs.find((s) => !s.asked);
  if (seen) await expect(page.getByText(seen.text)).toBeVisible();
  const asked = task.fault!.signs.find((s) => s.asked);
  if (asked) {
    await expect(page.getByText(asked.text)).toHaveCount(0);
    await page.getByRole('button', { name: 'Ask the person who made it' }).click();
    await expect(page.getByText(asked.text)).toBeVisible();
  }
  const check = task.fault!.checks[0]!;
  await page.getByRole('button', { name: check.text }).click();
  await expect(page.getByText(check.found ? 'Found it, or it got better.' : 'Nothing found')).toBeVisible();
  await accessible(page);
  const reason = task.choices[0]!;
  const verdict = await told(page, () =>
    page.getByRole('button', { name: reason.text!, exact: true }).click(),
  );
  expect(verdict.right).toBe(verdict.truth === reason.key);
  await expect(page.getByText(/You took one check, .*\. Diagnose takes/)).toBeVisible();
});

test('what is wrong in a set-up is pointed at in its drawing, and it is remembered', async ({
  page,
  request,
}) => {
  const about = () =>
    request.get('/api/v1/drills').then(async (r) => {
      const shelf = (await r.json()) as { drills: { drill: string; times: number }[] };
      return shelf.drills.find((d) => d.drill === 'before')!.times;
    });
  const task = await open(page, request, 'before/freehand', 9);
  await accessible(page);
  const times = await about();
  const guide = task.choices.findIndex((c) => c.key === 'guide');
  const verdict = await told(page, () =>
    page
      .locator('main svg')
      .getByText(String(guide + 1), { exact: true })
      .click(),
  );
  expect(verdict.right).toBe(verdict.truth === 'guide');
  expect(await about()).toBeGreaterThan(times);
  await page.getByRole('link', { name: 'All drills' }).click();
  await expect(page.getByRole('link', { name: /Spot the danger/ })).toContainText(
    /known|see this again|to repeat/i,
  );
  await accessible(page);
});

test('a reason is tried with its handle, reached from a word and from a blade that was chosen', async ({
  page,
}) => {
  await page.goto('/');
  await page
    .getByRole('link', { name: 'feed', exact: true })
    .or(page.getByRole('link', { name: 'heat', exact: true }))
    .first()
    .click();
  await expect(page).toHaveURL(/practice\/why\/heat/);
  const heat = page.locator('dd').first();
  await expect(heat).toHaveText(/^[\d.]+$/); // what stood there before is what waits
  const slow = Number(await heat.textContent());
  await page.getByRole('slider').press('End');
  await expect.poll(async () => Number(await heat.textContent())).toBeLessThan(slow);
  await accessible(page);
  await page.goto('/glossary');
  for (const [word, why] of [
    ['Arc', 'arc'],
    ['Zero clearance', 'backer'],
    ['Toe-in or toe-out', 'line'],
  ] as const) {
    await page.getByRole('link', { name: `Try it: ${word}`, exact: true }).click();
    await expect(page).toHaveURL(new RegExp(`why/${why}$`));
    await expect(page.getByRole('slider')).toBeVisible();
    await page.goBack();
  }
});
