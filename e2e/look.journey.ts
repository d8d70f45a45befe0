/** A blade is read off a photo: counted, compared with the rack, made a blade; by hand where it is not sure, and without the server. */
import { bladePhoto, edgePhoto, wallPhoto } from './photos';
import { accessible, expect, own, shelfKept, test } from './test';

const quill = { teeth: 60, hook: 10, bore: 15.875 / 254 };

test('a photo is read, compared with the rack, and becomes a blade', async ({ page, request }) => {
  await own(request, 'Plover', { teeth: 54, hook_deg: 10 });
  await page.goto('/blades');
  await page.getByRole('button', { name: 'More for blades' }).click();
  await page.getByRole('menuitem', { name: 'Which blade is this?' }).click();
  await expect(page.getByText("The photo isn't saved.")).toBeVisible();
  await expect(page.locator('canvas')).toHaveCount(0);
  await page
    .getByLabel('Photo of a blade', { exact: true })
    .setInputFiles(await bladePhoto(page, { ...quill, teeth: 54, missing: 20, bent: 41 }));
  await expect(page.getByRole('heading', { name: '54 teeth' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'missing: tooth' })).toHaveCount(1);
  await expect(
    page.getByRole('listitem').filter({ hasText: /^out of line, perhaps bent: tooth \d+$/ }),
  ).toHaveCount(1);
  await expect(page.getByRole('alert').filter({ hasText: 'a tooth may be missing' })).toBeVisible();
  await expect(page.getByRole('alert').filter({ hasText: 'a tooth looks out of line' })).toBeVisible();
  const alike = page.getByRole('region', { name: 'Is it one of these?' });
  await expect(alike.getByRole('link', { name: 'Plover' })).toBeVisible();
  await expect(alike).toContainText('matches teeth');
  await page.getByRole('button', { name: 'Bore', exact: true }).click();
  await page.getByLabel('Bore, measured').fill('15.875');
  await page.getByLabel('Bore, measured').press('Tab');
  await expect(page.getByText(/^about 2[45]\d mm diameter, 15\.88 mm bore/)).toBeVisible();
  await accessible(page);

  await page.getByRole('button', { name: 'Add as new blade' }).click();
  await expect(page).toHaveURL(/\/blades\/new$/);
  await expect(page.getByLabel('Teeth', { exact: true })).toHaveValue('54');
  await expect(page.getByLabel('Diameter')).toHaveValue(/^2[45]\d/);
  const name = `Seen ${Date.now()}`;
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByRole('button', { name: 'Add blade' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  const rack = (await (await request.get('/api/v1/blades?limit=500')).json()) as {
    items: { name: string; teeth: number; bore_mm: number; photo_at?: string }[];
  };
  const made = rack.items.find((b) => b.name === name)!;
  expect([made.teeth, made.bore_mm, made.photo_at]).toEqual([54, 15.875, undefined]);
});

test('where nothing is found three marks on the rim show it, by touch or by keyboard', async ({ page }) => {
  await page.goto('/blades/look');
  await page.getByLabel('Photo of a blade', { exact: true }).setInputFiles({
    name: 'text.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from('no photo'),
  });
  await expect(page.getByRole('alert')).toHaveText(/Can't read this photo/);
  await page.getByLabel('Photo of a blade', { exact: true }).setInputFiles(await bladePhoto(page, quill));
  await expect(page.getByRole('heading', { name: '60 teeth' })).toBeVisible();
  const mark = page.getByRole('button', { name: /^Mark 1 on the rim/ });
  const asked = page.waitForRequest('**/blade-looks?taps=**');
  await mark.press('ArrowLeft');
  await mark.press('Enter');
  const taps = new URL((await asked).url()).searchParams.get('taps')!.split(',').map(Number);
  expect(taps).toHaveLength(6);
  await expect(page.getByRole('heading', { name: '60 teeth' })).toBeVisible();
  // Into a corner of the bench: no rim is there.
  const drawing = (await page.locator('canvas').boundingBox())!;
  for (const [k, x, y] of [
    [1, 0.03, 0.1],
    [2, 0.08, 0.05],
    [3, 0.03, 0.2],
  ] as const) {
    const from = (await page.getByRole('button', { name: `Mark ${k} on the rim` }).boundingBox())!;
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
    await page.mouse.down();
    await page.mouse.move(drawing.x + x * drawing.width, drawing.y + y * drawing.height, { steps: 4 });
    const again = page.waitForResponse('**/blade-looks?taps=**');
    await page.mouse.up();
    await again;
  }
  await expect(page.getByRole('alert').filter({ hasText: /no blade found/i })).toBeVisible();
  await page.getByRole('button', { name: 'Measure again', exact: true }).click();
  await expect(page.getByRole('heading', { name: '60 teeth' })).toBeVisible();
});

test('without the server the same photo is read in the browser', async ({ browser, request }) => {
  await own(request, 'Sandpiper', { teeth: 66, hook_deg: 10 });
  const page = await browser.newPage();
  await shelfKept(page);
  await page.goto('/blades/look');
  const photo = await bladePhoto(page, { ...quill, teeth: 66 });
  await page.route('**/blade-looks*', (route) => route.abort());
  await page.getByLabel('Photo of a blade', { exact: true }).setInputFiles(photo);
  await expect(page.getByRole('heading', { name: '66 teeth' })).toBeVisible({ timeout: 30_000 });
  await expect(
    page.getByRole('region', { name: 'Is it one of these?' }).getByRole('link', { name: 'Sandpiper' }),
  ).toBeVisible();
  await page.close();
});

test('the wall of a cut is read off a photo, taken over by a tap, and traced', async ({ page, request }) => {
  const id = await own(request, 'Cooper', { teeth: 24 });
  await page.goto(`/run?of=ash&t=20&l=1200&blade=${id}`);
  await page.getByRole('button', { name: 'Cut edge: from a photo' }).click();
  const dialog = page.getByRole('dialog', { name: 'Cut edge, from a photo' });
  await expect(dialog).toContainText('Its thickness of 20 mm');
  const photo = await wallPhoto(page, { brown: [0.7, 0.9], every: 1.5 });
  await dialog.getByLabel('Photo of the cut edge', { exact: true }).setInputFiles(photo);
  await expect(dialog.getByRole('heading', { name: 'It looks brown.' })).toBeVisible();
  await expect(dialog).toContainText(/(19|2[0-2]) % brown, [01] % black, of about (19|20)\d mm/);
  await expect(dialog).toContainText(/Marks every 1\.(4|5)\d? mm. One per turn would be every/);
  await accessible(page);
  await dialog.getByRole('button', { name: 'Yes, brown' }).click();
  await expect(
    page.getByRole('group', { name: 'Cut edge' }).getByRole('button', { name: 'brown' }),
  ).toHaveAttribute('aria-pressed', 'true');

  await page.getByRole('button', { name: 'Cut edge: from a photo' }).click();
  await dialog.getByLabel('Photo of the cut edge', { exact: true }).setInputFiles(photo);
  await dialog.getByRole('link', { name: 'Diagnose this' }).click();
  const seen = page.getByRole('region', { name: 'Signs' });
  await seen.getByRole('button', { name: 'One burned spot' }).click();
  await expect(page).toHaveURL(/\/diagnose\/[0-9a-f-]{36}/);
  await expect(page.getByRole('main')).toContainText('One burned spot');
});

test('splinters along an edge are counted off a photo by its length, taken over, and traced', async ({
  page,
  request,
}) => {
  const id = await own(request, 'Thatcher', { teeth: 40 });
  await page.goto(`/run?cut=crosscut&of=ash&t=20&w=180&l=900&for=show&blade=${id}`);
  await page.getByRole('button', { name: 'The edge: from a photo' }).click();
  const dialog = page.getByRole('dialog', { name: 'Edge, from a photo' });
  const length = dialog.getByRole('textbox', { name: 'Edge length' });
  await expect(length).toHaveValue(/^180/); // the cut goes across the width
  await length.fill('200');
  await length.press('Enter');
  const splinters = [
    [40, 5, 2.4],
    [110, 4, 1.6],
    [150, 6, 2],
  ] as const;
  const photo = await edgePhoto(page, splinters);
  await dialog.getByLabel('Photo of the edge', { exact: true }).setInputFiles(photo);
  await expect(dialog.getByRole('heading', { name: 'It looks torn out.' })).toBeVisible();
  await expect(dialog).toContainText(
    /Tear-out: 3, on [67] % of the edge\. The worst reaches 2\.[2-5]\d? mm into the face\./,
  );
  await accessible(page);
  // A tablet that is turned loses nothing of it.
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(dialog).toContainText('Tear-out: 3');
  await page.setViewportSize({ width: 1280, height: 800 });
  // Half as long, all that is on it is half as large.
  await length.fill('100');
  await length.press('Enter');
  await expect(dialog).toContainText(/Tear-out: 3, .* The worst reaches 1\.[12]\d? mm into the face\./);
  await dialog.getByRole('button', { name: 'Yes, some' }).click();
  await expect(
    page.getByRole('group', { name: /^Tear-out, bottom face/ }).getByRole('button', { name: 'some' }),
  ).toHaveAttribute('aria-pressed', 'true');

  // From the other side of the bench the face lies below its edge, and that is to be said.
  await page.getByRole('button', { name: 'The edge: from a photo' }).click();
  await dialog
    .getByLabel('Photo of the edge', { exact: true })
    .setInputFiles(await edgePhoto(page, splinters, true));
  await expect(dialog.getByRole('heading', { name: 'It looks clean.' })).toBeVisible();
  await dialog.getByRole('checkbox', { name: 'The face lies below the edge' }).check();
  await expect(dialog).toContainText(/Tear-out: 3, .* The worst reaches 2\.[0-2]\d? mm into the face\./);
  await dialog.getByRole('link', { name: 'Diagnose this' }).click();
  const seen = page.getByRole('region', { name: 'Signs' });
  await expect(seen.getByRole('button', { name: 'Tear-out on both faces' })).toBeVisible();
  await seen.getByRole('button', { name: 'Tear-out on the exit face' }).click();
  await expect(page).toHaveURL(/\/diagnose\/[0-9a-f-]{36}/);
});
