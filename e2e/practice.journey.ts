/** Learning: a board is fed on a saw that cannot hurt anybody, and the wall tells how it was. */
import { accessible, expect, test } from './test';

interface Wall {
  whole: boolean;
  scorch: number[];
  feed_m_min: number[];
  seconds: number;
  says: string[];
}

test('a board is fed by a key, then let go by hand, and the wall says where it went wrong', async ({
  page,
  request,
}) => {
  const board = (await (await request.get('/api/v1/practice-boards/7?units=mm')).json()) as {
    text: string;
    length_mm: number;
  };
  await page.goto('/learn?board=7');
  await expect(page.getByText(board.text)).toBeVisible();
  await accessible(page);
  const hand = page.getByRole('slider');
  await hand.focus();
  const answer = page.waitForResponse((r) => r.url().endsWith('/practice-cuts'));
  await page.keyboard.down('ArrowRight');
  const wall = (await (await answer).json()) as Wall;
  await page.keyboard.up('ArrowRight');
  expect(wall.whole).toBe(true);
  expect(wall.seconds).toBeGreaterThan((60 * board.length_mm) / 3000); // a held key never comes to more than 3 m/min
  // By then a held key pushes at 3 m/min, whatever frames the browser drops.
  expect(wall.feed_m_min.filter((f) => f < 2.9 || f > 3.1)).toEqual([]);
  expect(wall.scorch.length).toBe(Math.ceil(board.length_mm));
  for (const said of wall.says) await expect(page.getByText(said).first()).toBeVisible();
  await accessible(page);

  await page.getByRole('button', { name: 'Once more' }).click();
  await page.getByLabel('Blind: no numbers').check();
  await expect(page.getByText(/^The range is/)).toHaveCount(0);
  const box = (await hand.boundingBox())!;
  await page.mouse.move(box.x + 80, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + 80 + box.width / 3, box.y + 60, { steps: 12 });
  await page.mouse.up();
  await expect(hand).toHaveAttribute('aria-valuetext', /mm cut/);
  const half = page.waitForResponse((r) => r.url().endsWith('/practice-cuts'));
  await page.getByRole('button', { name: 'Let it go' }).click();
  expect(((await (await half).json()) as Wall).whole).toBe(false);
  await expect(page.getByText('It was let go at')).toBeVisible();
});
