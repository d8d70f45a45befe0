/** The pages under a thumb: nothing scrolls sideways, nothing is too small to hit or to read, nothing is cut off. */
import { expect, moveTo, test } from './test';

const phone = { width: 390, height: 844 };
const desk = { width: 1280, height: 800 };
const doubled = { width: 640, height: 400 }; // a desk at 200 %

/** What is wrong with the page as it stands, in words. */
function faults({ thumb }: { thumb: boolean }) {
  const found: string[] = [];
  const sheet = document.querySelector('#sheet')!;
  if (sheet.scrollWidth > sheet.clientWidth)
    found.push(`scrolls sideways by ${sheet.scrollWidth - sheet.clientWidth}`);
  const shown = (e: Element) => e.checkVisibility({ visibilityProperty: true, opacityProperty: true });
  const name = (e: Element) => (e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 40);
  if (thumb) {
    for (const e of document.querySelectorAll('button, a[href], [role=button], summary, input')) {
      const s = getComputedStyle(e);
      // A link in the middle of a sentence is as high as its line.
      if (!shown(e) || s.display === 'inline' || s.position === 'absolute') continue;
      const r = e.getBoundingClientRect();
      if (r.width < 40 || r.height < 40)
        found.push(`too small to hit: ${name(e)}, ${Math.round(r.width)} by ${Math.round(r.height)}`);
    }
    for (const e of document.querySelectorAll<SVGTextElement>('svg text')) {
      if (!shown(e) || !e.textContent?.trim()) continue;
      const m = e.getScreenCTM();
      const px = parseFloat(getComputedStyle(e).fontSize) * (m ? Math.hypot(m.a, m.b) : 1);
      if (px < 12) found.push(`too small to read: ${name(e)}, ${px.toFixed(1)} px`);
    }
  }
  for (const e of document.querySelectorAll<HTMLElement>('h1, h2, h3, button, label, dd, dt')) {
    const s = getComputedStyle(e);
    if (
      shown(e) &&
      s.overflow === 'hidden' &&
      s.textOverflow !== 'ellipsis' &&
      e.scrollWidth > e.clientWidth + 1
    )
      found.push(`cut off: ${name(e)}`);
  }
  return found;
}

for (const [name, viewports, thumb] of [
  ['a phone', [phone], true],
  ['a desk, at 200 % as well', [desk, doubled], false],
] as const)
  test(`the pages fit ${name}, in both units`, async ({ browser, request, baseURL }) => {
    const blades = (await (await request.get('/api/v1/blades?limit=500')).json()) as {
      items: { id: string; name: string }[];
    };
    const plough = blades.items.find((b) => b.name === 'Plough')!.id;
    const { items: jobs } = (await (await request.get('/api/v1/jobs')).json()) as {
      items: { id: string; name: string }[];
    };
    const balcony = jobs.find((j) => j.name.startsWith('Balcony'))!.id;
    const wrong: string[] = [];
    for (const units of ['mm', 'in']) {
      const page = await browser.newPage({
        viewport: viewports[0],
        hasTouch: thumb,
        reducedMotion: 'reduce',
        baseURL,
      });
      await page.addInitScript((u) => localStorage.setItem('corte.units', u), units);
      await page.goto('/');
      for (const address of [
        '/',
        '/?cut=crosscut&of=walnut&t=19.05&w=140&l=900&for=show&form=rabbet&d=8',
        '/?of=aluminium&t=3',
        `/run?blade=${plough}`,
        `/jobs/${balcony}`,
        `/jobs/${balcony}/next`,
        `/jobs/${balcony}/stock`,
        '/buy',
        '/buy/first',
        '/diagnose',
        `/care/money/${plough}`,
        '/groove',
        '/settings',
        '/saws',
        '/blades',
        '/log',
      ]) {
        await moveTo(page, address);
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        await page.waitForLoadState('networkidle');
        for (const viewport of viewports) {
          await page.setViewportSize(viewport);
          await page.evaluate(
            () => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))),
          );
          wrong.push(
            ...(await page.evaluate(faults, { thumb })).map(
              (f) => `${address} in ${units}, ${viewport.width} wide: ${f}`,
            ),
          );
        }
      }
      await page.close();
    }
    expect(wrong).toEqual([]);
  });
