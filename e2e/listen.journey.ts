/** The saw is listened to: off until it is asked for, cuts counted and timed by their sound, the rest of the log filled in. */
import { withSound } from './sounds';
import { accessible, expect, own, shelfKept, test } from './test';

const twice = {
  teeth: 24,
  idle: 4100,
  seconds: 60,
  // Late enough that a browser that is slow to begin still hears it idle before.
  cuts: [
    { from: 12, to: 14, droop: 0.03 },
    { from: 17, to: 19.4, droop: 0.03 },
  ],
};

test('two cuts are heard, counted and timed, and one tap logs them', async ({ request, baseURL }, info) => {
  test.slow();
  const id = await own(request, 'Cricket', { teeth: 24 });
  await withSound(twice, info.outputPath(), baseURL!, async (page) => {
    await page.goto(`/run?of=ash&t=20&l=1200&blade=${id}`);
    const listening = page.getByRole('region', { name: 'Listening' });
    await expect(listening).toContainText('Nothing is recorded.');
    await expect(listening).not.toContainText('The microphone is on');
    await listening.getByRole('button', { name: 'Listen to the saw' }).click();
    await expect(listening).toContainText('The microphone is on');
    await expect(listening).toContainText('idling');
    await expect(listening).toContainText(/of 41\d\d rpm at idle/);
    await expect(listening).toContainText('cutting', { timeout: 45_000 });
    await expect(listening).toContainText(/1 cut · last cut (1\.[89]|2|2\.1) s/);
    await expect(listening).toContainText(/2 cuts · last cut 2\.[2345] s/);
    await accessible(page);
    const pieces = page.getByRole('group', { name: 'Identical pieces' });
    await expect(pieces).toContainText('2 alike');
    await expect(page.getByLabel('Time per piece')).toHaveValue(/^2(\.[1-3])?$/);
    await page.getByRole('group', { name: 'Cut edge' }).getByRole('button', { name: 'brown' }).click();
    await page.getByRole('button', { name: 'Cut made' }).click();
    await expect(page.getByText('Cut logged.')).toBeVisible();
    // What is logged is not counted again, and it goes on listening.
    await expect(listening).toContainText('no cut yet');
    await expect(listening).toContainText('The microphone is on');
    await listening.getByRole('button', { name: 'Stop listening' }).click();
    await expect(listening).not.toContainText('The microphone is on');
    await page.goto(`/blades/${id}`);
    await page.getByRole('button', { name: /cut edge brown/ }).click();
    await expect(page.getByText(/By sound: 41\d\d rpm idle, 39\d\d rpm in the cut/)).toBeVisible();
  });
  const log = (await (await request.get(`/api/v1/log?blade_id=${id}`)).json()) as {
    items: { cut: { wall: string; pieces: number; effort: string; heard: Record<string, number> } }[];
  };
  expect(log.items).toHaveLength(1);
  const { wall, heard, effort } = log.items[0]!.cut;
  expect([wall, effort]).toEqual(['brown', 'normal']);
  expect(heard['idle_rpm']).toBeGreaterThan(4090);
  expect(heard['idle_rpm']).toBeLessThan(4110);
  expect(heard['mean_rpm']! / heard['idle_rpm']!).toBeCloseTo(0.972, 2);
});

test('a stall is said at once, and without the server the browser listens', async ({
  request,
  baseURL,
}, info) => {
  test.slow();
  const id = await own(request, 'Katydid', { teeth: 24 });
  const stalls = { ...twice, cuts: [{ from: 16, to: 99, droop: 0.04 }], stall: 24 };
  await withSound(stalls, info.outputPath(), baseURL!, async (page) => {
    await shelfKept(page);
    await page.goto(`/run?of=ash&t=20&l=1200&blade=${id}`);
    await page.routeWebSocket('**/listening*', (line) => line.close());
    const listening = page.getByRole('region', { name: 'Listening' });
    await listening.getByRole('button', { name: 'Listen to the saw' }).click();
    await expect(listening).toContainText('measured in this browser');
    await expect(listening).toContainText('cutting', { timeout: 45_000 });
    await expect(listening).toContainText('stalled');
    await expect(listening.getByRole('alert')).toContainText('Switch off, let nothing move until it stops');
  });
});
