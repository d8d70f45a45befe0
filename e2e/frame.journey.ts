/** The frame: few places, where the focus is, and a phone that answers before anything is scrolled. */
import type { Page } from '@playwright/test';
import { accessible, choose, expect, own, test } from './test';

const bar = (page: Page) => page.getByRole('navigation', { name: 'Pages and settings' });

test('every place greets by its title, and what is narrow is found under More', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveTitle('Plough · Corte');
  for (const [place, title] of [
    ['Saws', 'Saws'],
    ['Blades', 'Blades'],
    ['Diagnose', 'Diagnose'],
  ] as const) {
    await bar(page).getByRole('link', { name: place, exact: true }).click();
    const h1 = page.getByRole('heading', { level: 1 });
    await expect(h1).toHaveText(title);
    await expect(h1, 'has the focus on arrival').toBeFocused();
    await expect(page).toHaveTitle(`${title} · Corte`);
    await expect(bar(page).getByRole('link', { name: place, exact: true })).toHaveAttribute(
      'aria-current',
      'page',
    );
  }
  await bar(page).getByRole('link', { name: 'Blades', exact: true }).click();
  await bar(page).getByRole('link', { name: 'Care' }).click();
  await expect(page).toHaveTitle('Care · Corte');

  await page.setViewportSize({ width: 820, height: 1180 });
  await bar(page).getByRole('button', { name: /more$/i }).click();
  const more = page.getByRole('dialog', { name: 'More pages' });
  await accessible(page);
  await more.getByRole('radio', { name: 'Inches' }).click();
  await more.getByRole('link', { name: 'Align' }).click();
  await expect(more).toBeHidden();
  await expect(page).toHaveTitle('Align · Corte');
  // Nothing of the bar is pushed out.
  expect(await bar(page).evaluate((n) => n.scrollWidth - n.clientWidth)).toBe(0);
});

test('whoever has no mouse passes the frame by', async ({ page }) => {
  await page.goto('/saws');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Skip to content' })).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  expect(await page.evaluate(() => document.querySelector('#sheet')!.contains(document.activeElement))).toBe(
    true,
  );
  // What a page was called once leads on, as printed labels have it.
  await page.goto('/rack/saws/new?t=20');
  await expect(page).toHaveURL('/saws/new?t=20');
  await page.goto('/shop#copies');
  await expect(page).toHaveURL('/settings#copies');
  await page.goto('/no/such/station');
  await expect(page).toHaveTitle('Page not found · Corte');
  await bar(page).getByRole('link', { name: 'Diagnose' }).click();
  await expect(page).toHaveTitle('Diagnose · Corte');
});

test('a term says what it means where it stands, and all of them stand on one page', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'feed range', exact: true }).click();
  const meaning = page.getByRole('dialog', { name: 'Meaning' });
  await expect(meaning).toContainText('Too slow and it burns');
  await accessible(page);
  await page.keyboard.press('Escape');
  await expect(
    page.getByRole('button', { name: 'feed range', exact: true }),
    'the focus comes back',
  ).toBeFocused();
  // Also out of a sentence that the server says, by the keyboard, once in each.
  await page.goto('/?cut=crosscut&of=aluminium&t=6');
  const raker = page
    .getByRole('listitem')
    .filter({ hasText: 'grab aluminium' })
    .getByRole('button', { name: 'raker', exact: true });
  await expect(raker).toHaveCount(1);
  await raker.focus();
  await page.keyboard.press('Enter');
  await expect(meaning).toContainText('A flat tooth after each group of beveled ones');
  await accessible(page);
  await page.keyboard.press('Escape');
  await expect(raker).toBeFocused();
  await page.getByRole('button', { name: /: more$/ }).click();
  await page.getByRole('link', { name: 'Glossary' }).click();
  await expect(page).toHaveTitle('Glossary · Corte');
  await expect(page.getByRole('listitem').filter({ has: page.getByRole('heading') })).toHaveCount(14);
  await expect(page.getByRole('heading', { name: 'Toe-in or toe-out' })).toBeVisible();
  await accessible(page);
});

test('a page that cannot be fetched leaves the frame standing', async ({ browser }) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto('/saws');
  await page.route('**/assets/*Trace*.js', (route) => route.abort());
  await bar(page).getByRole('link', { name: 'Diagnose' }).click();
  await expect(page.getByRole('heading', { name: 'This page crashed' })).toBeVisible();
  await expect(bar(page)).toBeVisible();
  await page.unrouteAll();
  await page.getByRole('button', { name: 'Reload' }).click();
  await expect(page).toHaveTitle('Diagnose · Corte');
  await context.close();
});

for (const [address, colorScheme, forcedColors] of [
  ['/', 'light', 'none'],
  ['/blades', 'dark', 'none'],
  ['/saws', 'light', 'none'],
  ['/', 'dark', 'active'],
] as const)
  test(`the focus can be seen on every control of ${address}, ${colorScheme}, colours ${forcedColors === 'active' ? 'forced' : 'ours'}`, async ({
    browser,
  }) => {
    const context = await browser.newContext({ colorScheme, forcedColors, reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.goto(address);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.waitForLoadState('networkidle');
    const blind: string[] = [];
    for (let i = 0; i < 24; i++) {
      await page.keyboard.press('Tab');
      const at = await page.evaluate(() => {
        const e = document.activeElement!;
        const r = e.getBoundingClientRect();
        return {
          name: e.getAttribute('aria-label') ?? e.textContent?.slice(0, 40) ?? e.tagName,
          x: Math.max(0, r.x - 6),
          y: Math.max(0, r.y - 6),
          width: Math.min(r.width + 12, innerWidth - Math.max(0, r.x - 6)),
          height: Math.min(r.height + 12, innerHeight - Math.max(0, r.y - 6)),
        };
      });
      if (at.width <= 0 || at.height <= 0) continue;
      const clip = { x: at.x, y: at.y, width: at.width, height: at.height };
      const seen = await page.screenshot({ clip, caret: 'hide' });
      await page.evaluate(() => (document.activeElement as HTMLElement).blur());
      if (seen.equals(await page.screenshot({ clip, caret: 'hide' }))) blind.push(at.name);
    }
    expect(blind, 'controls whose focus nobody can see').toEqual([]);
    await context.close();
  });

test('on a phone the first screen answers, and a thumb changes what it answers', async ({ browser }) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    reducedMotion: 'reduce',
  });
  const page = await context.newPage();
  await page.goto('/');
  const setting = page.getByRole('region', { name: /at its setting/ });
  const high = page.getByRole('button', { name: /^39 mm high/ });
  const all = [
    page.getByRole('heading', { level: 1 }),
    setting.getByText('clear').first(),
    high,
    setting.getByText(/^\d+(\.\d)? s$/).first(),
    setting.getByRole('img', { name: /^Feed range/ }),
    setting.getByRole('slider'),
    page.getByRole('link', { name: 'Run this cut' }),
  ];
  const foot = (await bar(page).boundingBox())!.y;
  for (const one of all) {
    const box = (await one.boundingBox())!;
    expect(box.y, String(one)).toBeGreaterThanOrEqual(0);
    expect(box.y + box.height, String(one)).toBeLessThanOrEqual(foot);
  }
  await accessible(page);

  await high.click();
  await page.getByRole('button', { name: 'just above' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^31 mm high/ })).toBeVisible();

  const next = page.getByRole('button', { name: /^Next: / });
  const second = (await next.getAttribute('aria-label'))!.replace('Next: ', '');
  await next.click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(second);
  await page.getByRole('button', { name: /^Blade 2 of / }).click();
  const others = page.getByRole('dialog');
  await expect(others).toBeVisible();
  await accessible(page);
  await others.getByRole('button', { name: 'Mortise' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Mortise');

  await page.getByRole('button', { name: /^Change the cut/ }).click();
  const sheet = page.getByRole('dialog', { name: 'The cut' });
  await page.getByRole('button', { name: /^Material: / }).click();
  await page.getByRole('textbox', { name: 'Find a material' }).fill('wal');
  await accessible(page);
  await page.keyboard.press('Enter');
  await expect(sheet.getByRole('status')).toContainText(/s, (clear|caution)/);
  await sheet.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('button', { name: /^Change the cut: Rip 25 mm walnut/ })).toBeVisible();
  // A length is typed with keys of its own, which a glove finds; what cannot be read is said.
  await page.getByRole('button', { name: /^Change the cut/ }).click();
  await page.getByRole('button', { name: /^Thickness: / }).click();
  const keys = page.getByRole('region', { name: 'Keys for Thickness' });
  await accessible(page);
  const tap = async (...names: string[]) => {
    for (const name of names) await keys.getByRole('button', { name, exact: true }).tap();
  };
  await tap('1', '/', '/', 'Done');
  await expect(page.getByRole('textbox', { name: 'Thickness' })).toHaveAccessibleDescription(
    /cannot be read|is not/,
  );
  await tap('Delete last digit', 'Delete last digit', 'in', 'mm', '9', 'Delete last digit', 'in', 'Done');
  await expect(page.getByRole('button', { name: 'Thickness: 25.4 mm' })).toBeVisible();
  await sheet.getByRole('button', { name: 'Done' }).click();
  // What was cut last is offered first.
  await page.getByRole('button', { name: /^Change the cut/ }).click();
  await page.getByRole('button', { name: /^Material: / }).click();
  await expect(page.getByRole('group', { name: 'Cut last' }).getByRole('button')).toHaveText([
    /walnut/,
    'hard maple',
  ]);
  await page.keyboard.press('Escape');
  await choose(page, 'Finish', /^show/);
  await sheet.getByRole('button', { name: 'Done' }).click();
  for (const view of ['Heights', 'End', 'Guide']) {
    await page.getByRole('button', { name: view, exact: true }).click();
    await accessible(page);
    await page.getByRole('button', { name: 'Done' }).click();
  }
  await context.close();
});

test('on a phone a cut is fed and logged with one thumb, and the bar says what it did to the blade', async ({
  browser,
  request,
}) => {
  const id = await own(request, 'Thumbling');
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    reducedMotion: 'reduce',
  });
  const page = await context.newPage();
  await page.clock.install();
  // Long enough to be seen in the figures of the blade.
  await page.goto(`/run?of=mdf&t=18&l=2400&n=40&blade=${id}`);
  const made = page.getByRole('button', { name: 'Cut made' });
  const foot = (await bar(page).boundingBox())!.y;
  await expect(made).toBeVisible();
  for (const y of [0, 400, 4000]) {
    await page.locator('#sheet').evaluate((n, to) => n.scrollTo(0, to), y);
    const box = (await made.boundingBox())!;
    expect(box.y + box.height, `after scrolling to ${y}`).toBeLessThanOrEqual(foot);
    expect(box.height).toBeGreaterThanOrEqual(48);
  }
  await page.getByRole('button', { name: 'Start feed beat' }).click();
  await page.clock.runFor(30_000);
  await page.getByRole('button', { name: 'Through' }).click();
  // What came out comes up by itself.
  const sheet = page.getByRole('dialog', { name: 'How did it come out?' });
  await sheet.getByRole('button', { name: 'brown' }).click();
  await accessible(page);
  await sheet.getByRole('button', { name: 'Cut made' }).click();
  await expect(sheet).toBeHidden();
  const said = page.getByRole('status').filter({ hasText: 'Cut logged.' });
  await expect(said).toHaveText(/^Cut logged\. Thumbling: edge \d+ % → \d+ % used up, resin /);
  expect((await said.boundingBox())!.y).toBeLessThan(foot);
  await context.close();
});
