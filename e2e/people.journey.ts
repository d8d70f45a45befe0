/** A shop that people sign in to: its first owner, a learner, a tablet, a passkey, and a saw doctor who reads along. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Browser, Page } from '@playwright/test';
import { startDemo, type Server } from './server';
import { accessible, expect, test } from './test';

const PASSWORD = 'six words are easy to keep';

let server: Server;
let at: string; // its address
let first: string; // the address that the console shows

test.describe.configure({ mode: 'serial' });

test.beforeAll(async () => {
  server = await startDemo({ signIn: true });
  [at, first] = [server.at, server.join];
});

test.afterAll(() => server.stop());

/** Somebody else's browser. */
async function elsewhere(browser: Browser) {
  const page = await (
    await browser.newContext({ serviceWorkers: 'block', reducedMotion: 'reduce' })
  ).newPage();
  return page;
}

async function signIn(page: Page, name: string) {
  await page.goto(at);
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Blades for this cut' })).toContainText('Plough');
}

test('the first owner comes in by the console’s address, once, and keeps recovery codes', async ({
  page,
  browser,
}) => {
  await page.goto(at);
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await expect(page.getByText('Plough')).toHaveCount(0);
  await accessible(page);
  await page.getByLabel('Name', { exact: true }).fill('Maren');
  await page.getByLabel('Password', { exact: true }).fill('a guess of mine');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText("don't match");

  await page.goto(first);
  await expect(page.getByText('You are invited to manage the shop.')).toBeVisible();
  await accessible(page);
  await expect(page.getByRole('button', { name: 'Join' })).toBeDisabled();
  await page.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await page.getByRole('button', { name: 'Join' }).click();
  await expect(page.getByRole('heading', { name: 'People', exact: true })).toBeVisible();
  await expect(page.getByRole('rowheader', { name: /Maren owner/ })).toBeVisible();
  // She is the only owner: she is reminded here, and asked once beside the first answer.
  await expect(page.getByText('You are the only owner, with a password alone.')).toBeVisible();
  await accessible(page);
  await page.goto(at);
  const asked = page.getByRole('region', { name: 'Recovery codes' });
  await expect(asked).toContainText('If you forget your password');
  await accessible(page);
  await asked.getByRole('button', { name: 'Not now' }).click();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Blades for this cut' })).toContainText('Plough');
  await expect(asked).toHaveCount(0);

  const late = await elsewhere(browser);
  await late.goto(first);
  await expect(late.getByRole('alert')).toContainText('no longer works');
  await late.context().close();

  await page.goto(`${at}/me`);
  const codes = page.getByRole('region', { name: 'Recovery codes' });
  await codes.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await codes.getByRole('button', { name: 'Create ten new codes' }).click();
  const code = (await codes.getByLabel('Pass this on').innerText()).split('\n')[0]!;
  await accessible(page);
  await codes.getByRole('button', { name: /^Done/ }).click();
  await expect(codes).toContainText('10 codes left.');
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.getByRole('button', { name: "I can't sign in" }).click();
  await page.getByLabel('Name', { exact: true }).fill('maren');
  await page.getByLabel('Recovery code').fill(code);
  await page.getByLabel('New password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Set password and sign in' }).click();
  await expect(page.getByRole('region', { name: 'Recovery codes' })).toContainText('9 codes left.');
});

test('a learner is invited, and is stopped at a cut until somebody stands by or signs her off', async ({
  page,
  browser,
}) => {
  await signIn(page, 'Maren');
  await page.goto(`${at}/people`);
  await page.getByRole('button', { name: 'Add person' }).click();
  await page.getByLabel('Name').fill('Rosa');
  await page.getByRole('button', { name: 'Add and invite' }).click();
  const address = await page.getByLabel('Pass this on').innerText();
  await page.getByRole('button', { name: /^Done/ }).click();
  await page.getByRole('button', { name: 'are stopped unless a trained person stands by' }).click();
  await expect(
    page.getByRole('button', { name: 'are stopped unless a trained person stands by' }),
  ).toHaveAttribute('aria-pressed', 'true');

  const hers = await elsewhere(browser);
  await hers.goto(address);
  await hers.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await hers.getByRole('button', { name: 'Join' }).click();
  const against = hers.getByRole('list', { name: 'What speaks against this cut' });
  await expect(against).toContainText('You are not signed off for rips on Long Table.');
  await expect(hers.getByRole('region', { name: 'Blades for this cut' })).toContainText('Plough');
  await hers.goto(`${at}/run`);
  await expect(against).toContainText('stop');
  await hers.getByRole('button', { name: 'Cut made' }).click();
  await expect(hers.getByRole('alert').filter({ hasText: 'not signed off' })).toContainText('say so');
  await hers.getByRole('button', { name: 'Yes' }).click();
  await expect(against).toHaveCount(0);
  await hers.getByRole('button', { name: 'Cut made' }).click();
  await expect(hers.getByText('Cut logged.')).toBeVisible();
  await hers.goto(`${at}/log`);
  await expect(hers.getByText('A person who is signed off stood by.').first()).toBeVisible();
  // What is an owner's is not hers.
  await hers.goto(`${at}/settings`);
  await expect(hers.getByText('Only an owner can change this.')).toBeVisible();
  await hers.goto(`${at}/people`);
  await expect(hers.getByRole('button', { name: 'Add person' })).toHaveCount(0);

  // A drill is asked for first: she hears of it, and nobody signs her off before.
  await page.reload();
  const ask = page.getByRole('checkbox', { name: 'Require Feed the board' });
  await ask.click();
  await expect(ask).toBeChecked();
  await hers.goto(`${at}/people`);
  const can = hers.getByRole('region', { name: 'Practice results' });
  await expect(can.getByRole('rowheader', { name: 'Rosa' })).toBeVisible();
  await expect(can.getByRole('rowheader', { name: 'Maren' })).toHaveCount(0);
  await hers.goto(`${at}/practice`);
  await expect(hers.getByText('Required before sign-off: Feed the board.')).toBeVisible();
  await page.getByRole('button', { name: 'Rosa on Long Table: nothing alone' }).click();
  const off = page.getByRole('dialog', { name: 'Signed off' });
  await off.getByRole('checkbox', { name: 'Rips' }).click();
  await expect(off.getByRole('alert')).toContainText("Rosa hasn't passed Feed the board yet");
  await expect(async () => {
    await page.keyboard.press('Escape'); // while it asks, the focus may be nowhere
    await expect(off).toBeHidden({ timeout: 1000 });
  }).toPass();
  await ask.click();
  await expect(ask).not.toBeChecked();
  await page.getByRole('button', { name: 'Rosa on Long Table: nothing alone' }).click();
  await off.getByRole('checkbox', { name: 'Rips' }).click();
  await expect(off).toContainText('Signed off by Maren');
  await accessible(page);
  await hers.goto(at);
  await expect(hers.getByRole('region', { name: 'Blades for this cut' })).toContainText('Plough');
  await expect(against).toHaveCount(0);
  await hers.context().close();
});

test('at a tablet a name is tapped, with its PIN, and what is logged is by it', async ({ page }) => {
  await signIn(page, 'Maren');
  await page.goto(`${at}/people`);
  await page.getByRole('button', { name: 'Make this a shop tablet…' }).click();
  await page.getByLabel('Location').fill('By the long table');
  await page.getByRole('button', { name: 'Make this a shop tablet' }).click();
  const hands = page.getByRole('region', { name: "Who's working?" });
  await expect(hands).toContainText("Who's working?");
  await page.goto(`${at}/run`);
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Tap your name first' })).toBeVisible();
  await hands.getByRole('button', { name: 'Ilse' }).click();
  const pad = page.getByRole('dialog', { name: 'PIN' });
  for (const d of '2580') await pad.getByRole('button', { name: d, exact: true }).click();
  await accessible(page);
  await pad.getByRole('button', { name: 'Confirm' }).click();
  await expect(hands).toContainText('Back to the names');
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByText('Cut logged.')).toBeVisible();
  const log = (await (await page.request.get(`${at}/api/v1/log?limit=1`)).json()) as {
    items: { by: string }[];
  };
  expect(log.items[0]!.by).toBe('Ilse');
  await hands.getByRole('button', { name: 'Back to the names' }).click();
  await hands.getByRole('button', { name: 'Ilse' }).click();
  await page.keyboard.type('1111');
  await page.keyboard.press('Enter');
  await expect(pad.getByRole('alert')).toContainText('rong PIN');
});

test('a passkey opens the shop without a password', async ({ page, context }) => {
  const devtools = await context.newCDPSession(page);
  await devtools.send('WebAuthn.enable');
  await devtools.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      ...{ protocol: 'ctap2', transport: 'internal', hasResidentKey: true, hasUserVerification: true },
      ...{ isUserVerified: true, automaticPresenceSimulation: true },
    },
  });
  await signIn(page, 'Maren');
  await page.goto(`${at}/me`);
  const keys = page.getByRole('region', { name: 'Passkeys' });
  await keys.getByLabel('Device name').fill('This laptop');
  await keys.getByLabel('Password', { exact: true }).fill(PASSWORD);
  await keys.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(keys.getByRole('listitem')).toContainText('This laptop');
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(keys.getByRole('listitem')).toContainText('used');
  await keys.getByRole('button', { name: 'Remove' }).click();
  await expect(keys.getByRole('listitem')).toHaveCount(0);
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByRole('alert')).toContainText("doesn't belong to this shop");
});

test('a saw doctor reads one blade’s report, and is asked to sign in for the rest', async ({
  page,
  browser,
}) => {
  await signIn(page, 'Maren');
  const blades = (await (await page.request.get(`${at}/api/v1/blades`)).json()) as {
    items: { id: string; name: string }[];
  };
  const quill = blades.items.find((b) => b.name === 'Quill')!;
  const made = await page.request.post(`${at}/api/v1/blades/${quill.id}/guests`, {
    data: { name: 'Sharpening service', days: 7 },
  });
  const { path: guest } = (await made.json()) as { path: string };
  const doctor = await elsewhere(browser);
  await doctor.goto(at + guest);
  await expect(doctor.getByRole('heading', { level: 1 })).toContainText('Quill');
  await accessible(doctor);
  await doctor.goto(`${at}/blades/${quill.id}`);
  await expect(doctor.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await doctor.context().close();
});

test('an owner founds another shop, and goes over and back', async ({ page }) => {
  await signIn(page, 'Maren');
  await page.goto(`${at}/me`);
  await page.getByLabel('Name of the new shop').fill('The loft');
  await page.getByRole('button', { name: 'Create shop and switch to it' }).click();
  await expect(page.getByText('The loft (you are here)')).toBeVisible();
  await accessible(page);
  await page.goto(`${at}/blades`);
  await expect(page.getByText('Plough')).toHaveCount(0);
  await page.goto(`${at}/me`);
  await page.getByRole('button', { name: /^Switch to Lanterngate/ }).click();
  await expect(page.getByText(/^Lanterngate.* \(you are here\)$/)).toBeVisible();
  await page.goto(`${at}/blades`);
  await expect(page.getByText('Plough').first()).toBeVisible();
});

/** The newest rows of the log, by the time they were made. */
const rows = async (page: Page, limit = 1) =>
  (
    (await (await page.request.get(`${at}/api/v1/log?limit=${limit}`)).json()) as {
      items: { id: number; by?: string }[];
    }
  ).items;
const newest = async (page: Page) => (await rows(page))[0];

const waits = (page: Page) => page.getByRole('button', { name: '1 cut waiting to send' });

/** Logs a cut whose answer is lost, so that it waits. */
async function cutThatWaits(page: Page) {
  await page.route('**/api/v1/cuts', (r) => r.abort('connectionreset'));
  await page.goto(`${at}/run`);
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(waits(page)).toBeVisible();
}

test('at a tablet a cut that waits is sent in the name of whoever made it, and seen by nobody else', async ({
  page,
}) => {
  await signIn(page, 'Maren');
  await page.goto(`${at}/people`);
  await page.getByRole('button', { name: 'Make this a shop tablet…' }).click();
  await page.getByLabel('Location').fill('By the miter saw');
  await page.getByRole('button', { name: 'Make this a shop tablet' }).click();
  const hands = page.getByRole('region', { name: "Who's working?" });
  const tap = async (name: string, pin: string) => {
    await hands.getByRole('button', { name }).click();
    await page.getByRole('dialog', { name: 'PIN' }).waitFor();
    await page.keyboard.type(pin);
    await page.keyboard.press('Enter');
    await expect(hands).toContainText('Back to the names');
  };
  await tap('Ilse', '2580');
  const before = await newest(page);
  await cutThatWaits(page);
  // She puts her name down; somebody else takes the tablet, and the network is back.
  await hands.getByRole('button', { name: 'Back to the names' }).click();
  await expect(waits(page)).toHaveCount(0);
  await page.unroute('**/api/v1/cuts');
  await tap('Rosa', '1470');
  await page.getByRole('button', { name: 'Cut made' }).click();
  await expect(page.getByText(/Cut logged/).first()).toBeVisible();
  await expect(waits(page)).toHaveCount(0);
  const rosas = (await newest(page))!;
  expect(rosas.by).toBe('Rosa');
  await page.reload();
  await expect(waits(page)).toHaveCount(0);
  expect((await newest(page))!.id).toBe(rosas.id);
  await hands.getByRole('button', { name: 'Back to the names' }).click();
  await tap('Ilse', '2580');
  // Hers was made before Rosa's, and stands before it.
  await expect.poll(async () => (await rows(page, 2))[1]!.id).toBeGreaterThan(before!.id);
  expect((await rows(page, 2)).map((e) => e.by)).toEqual(['Rosa', 'Ilse']);
  await expect(waits(page)).toHaveCount(0);
});

test('a cut waits through a sign-out, and goes to no other person and no other shop', async ({ page }) => {
  await signIn(page, 'Maren');
  const before = await newest(page);
  await cutThatWaits(page);
  const out = async () => {
    await page.goto(`${at}/me`);
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    await expect(waits(page)).toHaveCount(0);
  };
  await out();
  await page.unroute('**/api/v1/cuts');
  await signIn(page, 'Rosa');
  await expect(waits(page)).toHaveCount(0);
  await page.waitForTimeout(4500); // it would have been tried again by now
  expect((await newest(page))!.id).toBe(before!.id);
  await out();
  await page.route('**/api/v1/cuts', (r) => r.abort('connectionreset'));
  await signIn(page, 'Maren');
  await expect(waits(page)).toBeVisible();
  // In her other shop it is not there either.
  await page.goto(`${at}/me`);
  await page.getByRole('button', { name: 'Switch to The loft' }).click();
  await expect(page.getByText('The loft (you are here)')).toBeVisible();
  await expect(waits(page)).toHaveCount(0);
  await page.unroute('**/api/v1/cuts');
  await page.waitForTimeout(4500);
  expect(await newest(page)).toBeUndefined();
  await page.getByRole('button', { name: /^Switch to Lanterngate/ }).click();
  await expect.poll(async () => (await newest(page))?.id ?? 0).toBeGreaterThan(before!.id);
  expect((await newest(page))!.by).toBe('Maren');
  await expect(waits(page)).toHaveCount(0);
});

test('a blade that cannot be read is left out, named, and repaired by the owner', async ({ page }) => {
  const port = readFileSync(path.join(server.data, 'cluster/postmaster.pid'), 'utf8').split('\n')[3]!;
  execFileSync('psql', ['-qh', '127.0.0.1', '-p', port, '-U', 'corte', 'corte'], {
    env: { ...process.env, PGPASSWORD: readFileSync(path.join(server.data, 'password'), 'utf8').trim() },
    input: "UPDATE blades SET grind = 'XX' WHERE name = 'Chorus'",
  });
  await signIn(page, 'Maren');
  await page.goto(`${at}/blades`);
  await expect(page.getByText(/can't be read and are left out: Chorus/)).toBeVisible();
  await expect(page.getByText('Needle').first()).toBeVisible();
  await accessible(page);
  await page.getByRole('link', { name: 'Repair records' }).click();
  const row = page.getByRole('listitem', { name: 'Chorus' });
  await expect(row).toContainText('unknown grind "XX"');
  await row.getByRole('button', { name: 'Repair record' }).click();
  const json = row.getByLabel('Record as JSON');
  await row.getByRole('button', { name: 'Save record' }).click();
  await expect(row.getByRole('alert')).toContainText("still can't be read");
  await json.fill((await json.inputValue()).replace('"XX"', 'ATB'));
  await row.getByRole('button', { name: 'Save record' }).click();
  await expect(row.getByText("This isn't JSON.")).toBeVisible();
  await json.fill((await json.inputValue()).replace('ATB', '"ATB"'));
  await accessible(page);
  await row.getByRole('button', { name: 'Save record' }).click();
  await expect(page.getByRole('heading', { name: 'Damaged records' })).toHaveCount(0);
  await page.goto(`${at}/blades`);
  await expect(page.getByText('Chorus').first()).toBeVisible();
});
