/** The server goes away: what was seen is shown with its age, a cut is run and waits, and all is sent once. */
import { accessible, expect, own, test } from './test';

test('without the server the pages open, say how old they are, and a cut is run from the last plan', async ({
  browser,
  request,
}) => {
  const id = await own(request, 'Lodestar');
  const context = await browser.newContext({ serviceWorkers: 'allow', reducedMotion: 'reduce' });
  const page = await context.newPage();
  const run = `/run?of=ash&t=20&l=700&blade=${id}`;
  await page.goto('/saws');
  await expect(page.getByRole('region', { name: 'Long Table' })).toBeVisible();
  await page.waitForLoadState('networkidle'); // it is kept a moment after it is shown
  for (const address of ['/', run]) {
    await page.goto(address);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.waitForLoadState('networkidle');
  }
  const h1 = page.getByRole('heading', { level: 1 });
  const away = page.getByRole('status').filter({ hasText: "You're offline." });
  await page.waitForFunction(async () => (await navigator.serviceWorker.ready).active?.state === 'activated');
  await expect(away).toHaveCount(0);

  await context.setOffline(true);
  await page.goto('/');
  await expect(h1).toHaveText('Plough');
  await expect(away).toContainText(/Showing data from \d{1,2} \w+ \d{4}/);
  await accessible(page);
  await page.getByRole('link', { name: 'Saws' }).click();
  await expect(page.getByRole('region', { name: 'Long Table' })).toBeVisible();
  // What nobody has looked at here cannot be shown, and says so.
  await page.getByRole('link', { name: 'Blades', exact: true }).click();
  await page.getByRole('link', { name: 'Care' }).click();
  await expect(page.getByRole('alert')).toHaveText(/You're offline, and this page/);

  await page.goto(run);
  await page.getByRole('group', { name: 'Cut edge' }).getByRole('button', { name: 'brown' }).click();
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByRole('button', { name: '1 cut waiting to send' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: '1 cut waiting to send' })).toBeVisible();

  await context.setOffline(false);
  await expect(page.getByRole('button', { name: '1 cut waiting to send' })).toHaveCount(0);
  await expect(away).toHaveCount(0);
  const log = (await (await request.get(`/api/v1/log?blade_id=${id}`)).json()) as {
    items: { cut: { wall: string } }[];
  };
  expect(log.items.map((e) => e.cut.wall)).toEqual(['brown']);
  await context.close();
});

test('a cut that nobody looked at is weighed in the browser, as the server weighs it', async ({
  browser,
  request,
}) => {
  await own(request, 'Hermit'); // other journeys change the rest of the rack meanwhile
  const context = await browser.newContext({ serviceWorkers: 'allow', reducedMotion: 'reduce' });
  const page = await context.newPage();
  const shelf = page.waitForResponse('**/api/v1/shelf');
  await page.goto('/?of=beech&t=20');
  await shelf;
  await page.waitForFunction(async () => (await navigator.serviceWorker.ready).active?.state === 'activated');
  await page.waitForLoadState('networkidle');
  await context.setOffline(true);
  const away = page.getByRole('status').filter({ hasText: "You're offline." });
  const worked = away.filter({ hasText: 'Worked out on this device' });
  await page.reload();
  await expect(away).toContainText('Showing data from');
  await expect(worked).toHaveCount(0);
  // What the server said a day before the rack was last seen counts for less than the core here.
  await page.evaluate(
    () =>
      new Promise<void>((done) => {
        const open = indexedDB.open('keyval-store');
        open.onsuccess = () => {
          const store = open.result.transaction('keyval', 'readwrite').objectStore('keyval');
          store.openCursor().onsuccess = ({ target }) => {
            const at = (target as IDBRequest<IDBCursorWithValue | null>).result;
            if (!at) return done();
            const kept = at.value as { at: number };
            if (/^corte\.said\.(?!.*"shelf")/.test(String(at.key)))
              at.update({ ...kept, at: kept.at - 24 * 3600_000 });
            at.continue();
          };
        };
      }),
  );
  await page.reload();
  await expect(worked).toBeVisible();
  await page.getByRole('button', { name: /^Thickness: / }).click();
  await page.getByRole('textbox', { name: 'Thickness' }).fill('1 3/8');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Thickness: 34.92 mm' })).toBeVisible();
  await expect(worked).toBeVisible();
  const setting = page.getByRole('region', { name: 'Hermit at its setting' });
  const told = async () => {
    await page
      .getByRole('region', { name: 'Blades for this cut' })
      .getByRole('button', { name: /^Hermit/ })
      .click();
    return Promise.all([
      setting.getByRole('img', { name: /^Feed range/ }).getAttribute('aria-label'),
      setting.getByRole('slider').getAttribute('aria-valuetext'),
      setting.getByText(/^\d+\.\d s$/).innerText(),
    ]);
  };
  const here = await told();
  await accessible(page);
  await context.setOffline(false);
  await expect(away).toHaveCount(0);
  await page.reload();
  expect(await told()).toEqual(here);
  await context.close();
});

test('a blade that is in the wash is washed to its end while the server is away', async ({
  browser,
  request,
}) => {
  const id = await own(request, 'Kelpie');
  const begun = await request.post('/api/v1/washes', {
    data: { blade_ids: [id], cleaner: 'detergent', brush: 'nylon' },
    headers: { 'Idempotency-Key': crypto.randomUUID() },
  });
  const wash = ((await begun.json()) as { id: string }).id;
  const context = await browser.newContext({ serviceWorkers: 'allow', reducedMotion: 'reduce' });
  const page = await context.newPage();
  for (const address of ['/care', `/care/wash/${wash}`]) {
    await page.goto(address);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    await page.waitForLoadState('networkidle');
  }
  await page.waitForFunction(async () => (await navigator.serviceWorker.ready).active?.state === 'activated');
  await context.setOffline(true);
  const begins = async (step: string) => {
    await page.getByRole('button', { name: new RegExp(`^(Next: )?${step}`) }).click();
    await expect(page.getByRole('heading', { name: step, level: 1 })).toBeVisible();
  };
  await begins('Scrub');
  await begins('Flip');
  await begins('Rinse');
  await expect(page.getByRole('button', { name: '3 steps waiting to send' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Rinse', level: 1 })).toBeVisible();
  await begins('Dry');
  await begins('Film');
  const done = Date.now();
  await page.getByRole('button', { name: 'Done. Put it back' }).click();
  await expect(page.getByRole('heading', { name: 'Care' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'In progress' }).getByText('Kelpie')).toHaveCount(0);
  await expect(page.getByRole('button', { name: '6 steps waiting to send' })).toBeVisible();
  await page.waitForTimeout(3000); // what passes before it is sent is no part of the wash
  await context.setOffline(false);
  await expect(page.getByRole('button', { name: /steps? waiting to send$/ })).toHaveCount(0);
  const log = (await (await request.get(`/api/v1/log?blade_id=${id}&kind=washed`)).json()) as {
    items: { at: string }[];
  };
  expect(log.items.map((e) => Math.abs(Date.parse(e.at) - done) < 2500)).toEqual([true]);
  await context.close();
});

test('what is kept for later has a bound, in age and in number', async ({ page }) => {
  await page.goto('/saws');
  // Its store is the page's to make: whoever opens it before finds it empty for good.
  await expect
    .poll(() => page.evaluate(async () => (await indexedDB.databases()).map((d) => d.name)))
    .toContain('keyval-store');
  /** Puts so many answers of some days ago beside what is kept, and says what is. */
  const kept = (many: number, days: number) =>
    page.evaluate(
      ([many, days]) =>
        new Promise<string[]>((done) => {
          const open = indexedDB.open('keyval-store');
          open.onsuccess = () => {
            const store = open.result.transaction('keyval', 'readwrite').objectStore('keyval');
            for (let i = 0; i < many; i++)
              store.put({ at: Date.now() - days * 24 * 3600_000, data: i }, `corte.said.${days}.${i}`);
            const all = store.getAllKeys();
            all.onsuccess = () => done(all.result as string[]);
          };
        }),
      [many, days] as const,
    );
  const of = async (days: number) =>
    (await kept(0, 0)).filter((k) => k.startsWith(`corte.said.${days}.`)).length;
  await kept(10, 61);
  await kept(10, 59);
  await page.reload();
  await expect.poll(() => of(61)).toBe(0);
  expect(await of(59)).toBe(10);
  await kept(230, 1);
  await page.reload();
  await expect.poll(async () => (await kept(0, 0)).length).toBeLessThan(215); // 200, and what was asked since
  expect(await of(59), 'the oldest go first').toBe(0);
  expect(await of(1)).toBeGreaterThan(180);
});

test('two tabs that keep cuts at once lose none of them, nor what an earlier version kept', async ({
  page,
}) => {
  const other = await page.context().newPage();
  await page.context().route('**/api/v1/cuts', (route) => route.abort('connectionreset'));
  const kept = () =>
    page.evaluate(
      () =>
        new Promise<number>((done) => {
          const open = indexedDB.open('keyval-store');
          open.onsuccess = () => {
            const all = open.result.transaction('keyval').objectStore('keyval').get('corte.waiting');
            all.onsuccess = () => done((all.result as unknown[] | undefined)?.length ?? 0);
          };
        }),
    );
  for (const tab of [page, other]) await tab.goto('/run?of=beech&t=20');
  for (const n of [2, 4, 6]) {
    await Promise.all([page, other].map((tab) => tab.getByRole('button', { name: 'Cut made' }).click()));
    await expect.poll(kept).toBe(n);
  }
  // As an earlier version kept them: they are taken over.
  await page.evaluate(
    () =>
      new Promise<void>((done) => {
        const open = indexedDB.open('keyval-store');
        open.onsuccess = () => {
          const store = open.result.transaction('keyval', 'readwrite').objectStore('keyval');
          const all = store.get('corte.waiting');
          all.onsuccess = () => {
            localStorage.setItem('corte.waiting', JSON.stringify(all.result));
            store.delete('corte.waiting').onsuccess = () => done();
          };
        };
      }),
  );
  await page.reload();
  await expect.poll(kept).toBe(6);
  await page.context().unroute('**/api/v1/cuts');
  await expect.poll(kept).toBe(0); // whichever tab sends them
});
