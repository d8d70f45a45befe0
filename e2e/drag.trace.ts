/**
 * How smoothly the blade follows a dragging hand: `make drag`. A figure to read,
 * not a test: frames depend on the machine.
 */
import { test } from './test';

test('drag', async ({ page }) => {
  await page.goto('/');
  await page.waitForLoadState('networkidle');
  const grip = (await page.getByRole('slider').locator('circle').boundingBox())!;
  const [x, y] = [grip.x + grip.width / 2, grip.y + grip.height / 2];
  await page.evaluate(() => {
    const seen = { frames: [] as number[], long: 0, steps: 0 };
    (window as unknown as { seen: typeof seen }).seen = seen;
    new PerformanceObserver((l) => (seen.long += l.getEntries().length)).observe({ type: 'longtask' });
    new MutationObserver((l) => (seen.steps += l.length)).observe(document.querySelector('[role=slider]')!, {
      attributeFilter: ['aria-valuenow'],
    });
    const frame = (t: number) => {
      seen.frames.push(t);
      requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
  await page.mouse.move(x, y);
  await page.mouse.down();
  const end = Date.now() + 3000;
  for (let i = 0; Date.now() < end; i++) await page.mouse.move(x, y + 40 * Math.sin(i / 9));
  await page.mouse.up();
  const { frames, long, steps } = await page.evaluate(
    () => (window as unknown as { seen: { frames: number[]; long: number; steps: number } }).seen,
  );
  const gaps = frames.slice(1).map((t, i) => t - frames[i]!);
  const seconds = (frames.at(-1)! - frames[0]!) / 1000;
  const late = gaps.filter((g) => g > 20).length;
  console.log(
    `${((frames.length - 1) / seconds).toFixed(1)} frames a second, ${late} of ${gaps.length} over 20 ms, ` +
      `longest ${Math.max(...gaps).toFixed(0)} ms, ${long} long tasks, ${(steps / seconds).toFixed(0)} heights a second`,
  );
});
