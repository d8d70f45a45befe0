/**
 * How quickly 200 teeth are drawn, and how a live gauge weighs on the page:
 * `make drag`. Figures to read, not tests: they depend on the machine.
 */
import { test } from './test';

test('teeth and gauge', async ({ page }) => {
  await page.route('**/api/v1/blades?*', async (route) => {
    const answer = (await (await route.fetch()).json()) as { items: { name: string; teeth: number }[] };
    for (const b of answer.items) if (b.name === 'Quill') b.teeth = 200;
    await route.fulfill({ json: answer });
  });
  await page.goto('/align/clearance');
  await page.getByRole('combobox', { name: 'Blade' }).click();
  await page.getByRole('option', { name: 'Quill' }).click();
  await page.evaluate(() => {
    const seen = { long: 0 };
    (window as unknown as { seen: typeof seen }).seen = seen;
    new PerformanceObserver((l) => (seen.long += l.getEntries().length)).observe({ type: 'longtask' });
  });
  await page.getByRole('region', { name: 'Gauge dial' }).waitFor();
  const seconds = 5;
  await page.waitForTimeout(1000 * seconds);
  const long = await page.evaluate(() => (window as unknown as { seen: { long: number } }).seen.long);
  const teeth = Array.from({ length: 200 }, (_, i) => (0.5 + 0.01 * Math.sin(i)).toFixed(4)).join('\n');
  const paste = () =>
    page.evaluate(async (text) => {
      const target = [...document.querySelectorAll('input')].find((i) =>
        i.labels?.[0]?.textContent?.startsWith('Reading'),
      );
      const data = new DataTransfer();
      data.setData('text', text);
      const start = performance.now();
      target!.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
      await new Promise((r) => setTimeout(r, 0));
      const drawn = performance.now() - start;
      // The message comes after the frame in which the teeth were painted.
      await new Promise((r) =>
        requestAnimationFrame(() => {
          const c = new MessageChannel();
          c.port1.onmessage = r;
          c.port2.postMessage(0);
        }),
      );
      return `drawn in ${drawn.toFixed(0)} ms, on the screen after ${(performance.now() - start).toFixed(0)}`;
    }, teeth);
  const cold = await paste();
  await page.getByRole('button', { name: 'Measure again' }).click();
  await page.getByRole('textbox', { name: 'Reading: Left 1', exact: true }).waitFor();
  const warm = await paste();
  console.log(
    `${long} long tasks in ${seconds} s with a gauge at 100 readings a second; 200 teeth ${cold}; the second time ${warm}`,
  );
});
