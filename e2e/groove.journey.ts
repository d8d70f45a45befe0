/** Grooves that fit the piece: a stack with a test cut, passes with one blade, saws that may not, joints. */
import type { Page } from '@playwright/test';
import { accessible, choose, expect, inches, ownSaw, test } from './test';

const ply = 'of=birch-ply&cut=sheet&t=18&w=400&l=900&n=12';

async function read(page: Page, label: RegExp, ...values: string[]) {
  const field = page.getByRole('textbox', { name: label });
  for (const v of values) {
    await field.fill(v);
    await field.press('Enter');
    await expect(field).toHaveValue('');
  }
}

const ways = (page: Page) => page.getByRole('list', { name: 'Ways to cut it' }).getByRole('listitem');
const now = (page: Page) => page.getByRole('status', { name: 'Now' });

test('a stack: measured piece, cards, a test groove, shims, the batch, and called up again', async ({
  page,
  request,
}) => {
  const saw = await ownSaw(request, 'Trestle');
  await page.goto(`/groove?${ply}&saw=${saw}`);
  await expect(page.getByText('Measure the piece in three places.')).toBeVisible();
  await accessible(page);
  await read(page, /the piece/, '17.85', '18.9');
  await expect(page.getByRole('alert')).toContainText('to one thickness');
  await page.getByRole('group', { name: 'Readings' }).getByRole('button', { name: 'Undo 18.9 mm' }).click();
  // As quick as a gauge types.
  const entry = page.getByRole('textbox', { name: /the piece/ });
  await entry.pressSequentially('17.9\n17.85\n17.8\n');
  await expect(page.getByRole('group', { name: 'Readings' }).getByRole('button')).toHaveCount(4);
  await expect(page.getByTestId('target')).toHaveText('18 mm');

  await ways(page).filter({ hasText: 'Trapdoor' }).getByRole('button').click();
  await expect(
    page.getByRole('img', { name: /^On the arbor, from the inner flange out: left 3.2 mm/ }),
  ).toBeVisible();
  await expect(page.getByRole('img', { name: /their teeth in the gullets/ })).toBeVisible();
  await expect(page.getByText('The nut has its full thread')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Set up with Trapdoor' }).click();
  await expect(now(page)).toContainText('a little less than the depth');
  const setting = page.url();

  // The cards are of this stack on this saw, and stop where a check is not met.
  await page.getByRole('button', { name: 'Mount step by step' }).click();
  await expect(page.getByRole('heading', { name: 'Power off' })).toBeVisible();
  const seen: string[] = [];
  for (;;) {
    const title = await page.getByRole('heading', { level: 1 }).textContent();
    seen.push(title!);
    const checks = page.getByRole('group').filter({ has: page.getByRole('button', { name: 'Yes' }) });
    for (let k = 0; k < (await checks.count()); k++) {
      const yes = checks.nth(k).getByRole('button', { name: 'Yes' });
      await yes.click();
      await expect(yes).toHaveAttribute('aria-pressed', 'true');
    }
    if (title === 'Order on the arbor') {
      await expect(page.getByText(/^Left outer blade, .*right outer blade\.$/)).toBeVisible();
      await accessible(page);
    }
    const on = page.getByRole('button', { name: "It's mounted" });
    if (await on.isVisible()) {
      await on.click();
      await expect(on).toBeHidden(); // it is said, not only pressed
      break;
    }
    await page.getByRole('button', { name: 'Done, next' }).click();
    await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(title!);
  }
  expect(seen).toEqual(
    expect.arrayContaining([
      'Knife and guard off, for this',
      'Chippers into the gullets',
      'Its own throat plate',
    ]),
  );
  expect(seen).not.toContain('Riving knife');

  await page.goto(setting);
  await expect(page.getByRole('button', { name: 'Mount step by step' })).toHaveCount(0);
  await read(page, /width/, '17.9', '17.92', '17.9');
  await page.getByRole('textbox', { name: 'Depth' }).fill('4.9');
  await page.getByRole('button', { name: 'Save measurement' }).click();
  await expect(now(page)).toContainText('0.09 mm too narrow. Disconnect the power, then put in');
  await expect(now(page)).toContainText('Raise the blade by 1.1 mm, to 6.1 mm: 0.14 turns of the wheel.');
  await accessible(page);
  await read(page, /width/, '17.98', '18', '17.99');
  await page.getByRole('textbox', { name: 'Depth' }).fill('6');
  await page.getByRole('button', { name: 'Save measurement' }).click();
  await expect(now(page)).toHaveText('It fits. Cut them all at this setting.');
  await page.goto('/saws');
  await page
    .getByRole('region', { name: 'In progress' })
    .getByText('on Trestle: Trapdoor, 2 tests')
    .locator('..')
    .getByRole('link', { name: 'Continue' })
    .click();
  await page.getByRole('button', { name: 'Log grooves' }).click();
  await expect(page.getByText('12 made.')).toBeVisible();

  await page.goto('/log');
  await expect(
    page
      .getByRole('region', { name: 'Rows' })
      .getByRole('listitem')
      .filter({ hasText: 'Grooves of 18 mm: 12 made' })
      .first(),
  ).toBeVisible();
  await page.goto('/groove');
  await page
    .getByRole('region', { name: 'Grooves you made' })
    .getByRole('listitem')
    .filter({ hasText: 'Trestle' })
    .first()
    .getByRole('button', { name: 'Reuse these settings' })
    .click();
  await expect(page.getByRole('heading', { name: '18 mm wide with Trapdoor' })).toBeVisible();
  await expect(now(page)).toContainText('Set the blade 6.1 mm high.');
});

test('passes with a flat-top blade: the last one makes the width', async ({ page, request }) => {
  const saw = await ownSaw(request, 'Sawhorse', { dado_sets: false });
  await page.goto(`/groove?of=red-oak&t=25&w=90&l=600&for=show&n=1&edge=30&p=12~12.1~12&saw=${saw}`);
  await expect(ways(page).first()).toContainText('Mortise');
  await expect(ways(page).first()).toContainText('5 passes');
  // The maker of this saw allows no set: it says so, and offers no way to begin.
  await ways(page).filter({ hasText: 'Trapdoor' }).getByRole('button').click();
  await expect(
    page.getByText(/Trapdoor: this saw's manual doesn't allow dado stacks; step a flat-top blade/),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: /^Set up with/ })).toHaveCount(0);
  await ways(page).first().getByRole('button').click();
  const last = page.getByRole('list', { name: 'Passes' }).getByRole('listitem').last();
  await expect(last).toHaveText('last39 mm');
  await page.getByRole('button', { name: 'Set up with Mortise' }).click();
  await read(page, /width/, '12.1', '12.1', '12.1');
  await page.getByRole('button', { name: 'Save measurement' }).click();
  await expect(now(page)).toContainText('0.1 mm too narrow. Set the last pass 0.1 mm further');
  await expect(last).toHaveText('last39.1 mm');
});

test('a rabbet on a phone, in inches: from the cut in Choose to the blade that cuts it', async ({
  browser,
  request,
  baseURL,
}) => {
  const saw = await ownSaw(request, 'Trivet', { dado_sets: false });
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, baseURL });
  const page = await context.newPage();
  await page.goto(`/?of=poplar&t=19&w=90&l=600&form=rabbet&d=8&saw=${saw}`);
  await inches(page);
  await page.getByRole('link', { name: 'Fit it to a piece' }).click();
  await expect(page.getByRole('region', { name: 'The groove' })).not.toContainText('from the edge');
  await read(page, /the piece/, '1/2', '12.6mm', '0.497');
  await expect(page.getByTestId('target')).toHaveText('0.504"');
  await expect(page.getByRole('img', { name: /^The rabbet, seen from its end, 0\.504" wide/ })).toBeVisible();
  await expect(page.getByText('The blade runs into the fence. Put a sacrificial board')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Passes' }).getByRole('listitem').first()).toHaveText(
    '10.000"',
  );
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide, 'it scrolls sideways').toBeLessThanOrEqual(390);
  await accessible(page);
  await page.getByRole('button', { name: /^Set up with/ }).click();
  await expect(now(page)).toContainText('Set the blade');
  // A single blade goes on by its own cards, its riving knife with it.
  await page.getByRole('button', { name: 'Mount step by step' }).click();
  await expect(page.getByRole('heading', { name: 'Power off' })).toBeVisible();
  await page.goBack();
  await read(page, /width/, '0.504', '0.504', '0.505');
  await page.getByRole('button', { name: 'Save measurement' }).click();
  await expect(now(page)).toContainText('Measure the depth as well');
  await context.close();
});

test('a set never goes on a circular saw, and a short arbor stops it', async ({ page, request }) => {
  await page.goto(`/groove?${ply}&p=17.85~17.9~17.85`);
  await choose(page, 'Saw', 'Walker');
  const set = ways(page).filter({ hasText: 'Trapdoor' });
  await expect(set).toContainText('a dado stack never goes on a circular saw');
  await expect(set).toContainText('stop');
  const saw = await ownSaw(request, 'Milestool', { arbor_length_mm: 30 });
  await page.goto(`/groove?${ply}&p=17.85~17.9~17.85&saw=${saw}`);
  await expect(ways(page).filter({ hasText: 'Trapdoor' })).toContainText(
    "The nut doesn't have its full thread",
  );
});

test('joints are worked out, and a test joint moves the key', async ({ page }) => {
  await page.goto('/groove/joints?joint=box');
  const set = page.getByRole('region', { name: 'Settings' });
  await expect(set).toContainText('Set it 6.3 mm from the blade, which gives a spacing of 12.7 mm');
  await accessible(page);
  await page.getByRole('radio', { name: 'Inches' }).click();
  await expect(set).toContainText('Set it 0.248"');
  await page.getByRole('radio', { name: 'Millimetres' }).click();
  await page.getByRole('textbox', { name: 'Gap of a test joint' }).fill('-0.2');
  await expect(set).toContainText('Tight: move the key 0.3 mm toward the blade.');
  await page.getByRole('button', { name: 'Tenon' }).click();
  await expect(set).toContainText('Set the blade 8 mm high for the first cheek.');
  await page.getByRole('textbox', { name: 'Tenon, thickness' }).fill('30');
  await expect(page.getByRole('alert')).toContainText('A tenon of 30 mm cannot come out of stock of 25 mm');
  for (const [joint, says] of [
    ['Dovetails', 'Tilt the blade 8.0°'],
    ['Slope', 'steps of at most 0.56 mm'],
    ['Fold', '6 kerfs, 39.1 mm center to center'],
  ] as const) {
    await page.getByRole('button', { name: joint }).click();
    await expect(set).toContainText(says);
    await accessible(page);
  }
  await page.getByRole('button', { name: 'Save to log' }).click();
  await expect(page.getByText('Saved with the blade.')).toBeVisible();
  await page.goto('/log');
  await expect(
    page
      .getByRole('region', { name: 'Rows' })
      .getByRole('listitem')
      .filter({ hasText: 'Fold. Set the blade 10.5 mm high' }),
  ).toBeVisible();
});

test('the parts of a set: what is known of them, what cannot be, and what is forgotten', async ({
  page,
  request,
}) => {
  const made = await request.post('/api/v1/blades', {
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    data: {
      name: 'Hatch',
      make: 'dado',
      diameter_mm: 203,
      bore_mm: 15.875,
      kerf_mm: 6.4,
      teeth: 24,
      grind: 'FTG',
      hook_deg: 5,
      kept_for: 'joints',
    },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/blades/${id}`);
  await page.getByRole('link', { name: 'Its parts' }).click();
  const shim = page.getByRole('group', { name: 'Part 4' });
  await shim.getByRole('textbox', { name: 'Thickness' }).fill('1.7');
  await shim.getByRole('textbox', { name: 'Thickness' }).press('Tab');
  await expect(shim.getByRole('textbox', { name: 'Thickness' })).toHaveValue('1.7 mm');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('A shim is between');
  // What cannot be read is not saved as what stood there before: the hand is led back to it.
  const left = page.getByRole('textbox', { name: 'Left outer, at the tips' });
  await left.fill('three and a bit');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(left).toBeFocused();
  await expect(page.getByText('Saved.')).toHaveCount(0);
  await left.fill('3.3');
  await shim.getByRole('textbox', { name: 'Thickness' }).fill('0.2');
  await shim.getByRole('textbox', { name: 'Thickness' }).press('Tab');
  await expect(shim.getByRole('textbox', { name: 'Thickness' })).toHaveValue('0.2 mm');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('No test groove yet, so the stamped size is used.')).toBeVisible();
  await accessible(page);
  const renew = page.getByRole('region', { name: 'Changed parts' });
  await renew.getByRole('checkbox', { name: 'shim 0.2 mm' }).check();
  await renew.getByRole('button', { name: 'Log it' }).click();
  await expect(renew.getByRole('checkbox', { name: 'shim 0.2 mm' })).not.toBeChecked();
  await expect(page.getByRole('list', { name: 'Saws' })).toContainText('never goes on a miter saw');
  await page.goto(`/blades/${id}`);
  await expect(
    page.getByRole('listitem').filter({ hasText: 'New parts in the set: replaced, 0.2 mm' }),
  ).toBeVisible();
});
