/** The test that every journey extends: a page that must not complain, and the words for finding things. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type axe from 'axe-core';
import {
  expect,
  test as base,
  type APIRequestContext,
  type Locator,
  type Page,
  type Request,
} from '@playwright/test';
import { startDemo, type Server } from './server';

/** The server of the file whose journeys a worker runs. */
class Servers {
  private file = '';
  private server: Server | undefined;

  async of(file: string) {
    if (file !== this.file) {
      await this.stop();
      this.server = await startDemo();
      this.file = file;
    }
    return this.server!.at;
  }

  async stop() {
    await this.server?.stop();
    this.server = undefined;
  }
}

export const test = base.extend<{ quiet: void }, { servers: Servers }>({
  servers: [
    async ({}, use) => {
      const servers = new Servers();
      await use(servers);
      await servers.stop();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ servers }, use, info) => use(await servers.of(info.file)),
  quiet: [
    async ({ page }, use) => {
      const said: string[] = [];
      page.on('console', (m) => {
        // A refused or lost request is shown by the page; it is no fault of the page.
        if (
          ['error', 'warning'].includes(m.type()) &&
          !/status of (4|507)|ERR_CONNECTION_RESET|Service Worker registration blocked/.test(m.text())
        )
          said.push(m.text());
      });
      page.on('pageerror', (e) => said.push(e.message));
      await use();
      expect(said, 'what the browser complained of').toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** No fault that axe can see, on the page or a part of it, once what was fading or loading has settled. */
export async function accessible(page: Page, part = 'html') {
  await expect(async () => {
    if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axeSource);
    // Nothing here has frames, and what passes is not read: so it takes half of the time.
    const faults = await page.evaluate(async (part) => {
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(part, {
        resultTypes: ['violations'],
        iframes: false,
      });
      return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`);
    }, part);
    expect(faults).toEqual([]);
  }).toPass({ timeout: 10_000 });
}

/** Goes to an address without loading the application anew, as its own links do, and waits until it has asked all it asks. */
export async function moveTo(page: Page, address: string) {
  const open = new Set<Request>();
  let last = Date.now();
  const begun = (r: Request) => r.resourceType() !== 'eventsource' && open.add(r);
  const ended = (r: Request) => {
    open.delete(r);
    last = Date.now();
  };
  page.on('request', begun).on('requestfinished', ended).on('requestfailed', ended);
  await page.evaluate((to) => {
    const { idx = 0 } = (history.state ?? {}) as { idx?: number }; // the router counts its steps
    const state = { usr: null, key: to, idx: idx + 1 };
    history.pushState(state, '', to);
    dispatchEvent(new PopStateEvent('popstate', { state }));
  }, address);
  await expect.poll(() => open.size === 0 && Date.now() - last > 300, { intervals: [50] }).toBe(true);
  page.off('request', begun).off('requestfinished', ended).off('requestfailed', ended);
}

/** How many sheets of paper a page is printed on, A4 or Letter, whichever takes more. */
export async function sheets(page: Page) {
  await page.emulateMedia({ media: 'print' });
  const counts: number[] = [];
  for (const format of ['A4', 'Letter'] as const)
    counts.push((await page.pdf({ format })).toString('latin1').match(/\/Type\s*\/Page[^s]/g)?.length ?? 0);
  await page.emulateMedia({ media: 'screen' });
  return Math.max(...counts);
}

/** Opens a word. One that moves as its sentence settles is taken hold of again. */
async function open(page: Page, word: string, shown: Locator) {
  await expect(async () => {
    if (!(await shown.isVisible()))
      await page.getByRole('button', { name: new RegExp(`^${word}: `) }).click({ timeout: 5000 });
    await expect(shown).toBeVisible({ timeout: 3000 });
  }).toPass({ timeout: 40_000 });
}

/** Says one word of the sentence by choosing from its list. */
export async function choose(page: Page, word: string, choice: string | RegExp) {
  const one =
    word === 'Material'
      ? page
          .getByRole('group', { name: 'Materials' })
          .getByRole('button', { name: choice, exact: true })
          .first()
      : page.getByRole('menuitem', { name: choice });
  await open(page, word, one);
  await one.click();
}

/** Says a length of the sentence by typing it. */
export async function type(page: Page, word: string, text: string) {
  const field = page.getByRole('textbox', { name: word });
  await open(page, word, field);
  await field.fill(text);
  await field.press('Enter');
}

/** Reads in inches from here on, wherever the unit stands at this width. */
export async function inches(page: Page) {
  const unit = page.getByRole('radio', { name: 'Inches' });
  if (await unit.isVisible()) return unit.click();
  await page.getByRole('button', { name: /more$/i }).click();
  await unit.click();
  await page.keyboard.press('Escape');
  await expect(unit).toBeHidden();
}

export const cut = (page: Page) => page.getByRole('region', { name: 'The cut' });
export const rack = (page: Page) => page.getByRole('region', { name: 'Blades for this cut' });
export const first = (page: Page) => rack(page).getByRole('listitem').first();
export const height = (page: Page) => page.getByRole('slider');

/** A blade that this journey has to itself, so that no other moves it. */
export async function own(request: APIRequestContext, name: string, more: object = {}) {
  const answer = await request.post('/api/v1/blades', {
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    data: {
      ...{ name, make: 'toothed', diameter_mm: 254, bore_mm: 15.875, kerf_mm: 3.2, plate_mm: 2.2, teeth: 80 },
      // Many teeth for a rip, and kept for joints: other journeys' cuts never put it first.
      ...{ grind: 'ATB', bevel_deg: 15, hook_deg: 5, max_rpm: 7000, kept_for: 'joints', price: 80, ...more },
    },
  });
  return ((await answer.json()) as { id: string }).id;
}

/** A table saw of a journey's own, in nobody's way: its name stands after the Long Table's, which other journeys open on. */
export async function ownSaw(request: APIRequestContext, name: string, more: object = {}) {
  const made = await request.post('/api/v1/saws', {
    headers: { 'Idempotency-Key': crypto.randomUUID() },
    data: {
      ...{ name, kind: 'table', diameter_mm: 254, arbor_mm: 15.875, rpm: 4000, motor_w: 1300 },
      ...{ volts: 120, breaker_a: 15, reach_mm: 79, knife_mm: 2.3, dado_sets: true, wheel_lead_mm: 8 },
      ...{ arbor_length_mm: 44, washer_mm: 5, nut_mm: 12, ...more },
    },
  });
  return ((await made.json()) as { id: string }).id;
}

/** Opens Cut, and waits until the browser keeps the shelf that the core in it works from. */
export async function shelfKept(page: Page) {
  const shelf = page.waitForResponse('**/api/v1/shelf');
  await page.goto('/?of=beech&t=20');
  await shelf;
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(2000); // it is kept a moment after it came, later on a busy machine
}
