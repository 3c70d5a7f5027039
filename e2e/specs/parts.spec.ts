// Parts: added, moved on their wall by pointer and keys, refused beside the field, kept aside, copied and taken off.
import { accessible, expect, test, type } from '../server';

test('a pocket is added to the wall that is looked at, moved there, and undone', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag?wall=back`);
  await page.getByRole('button', { name: /Add a part/ }).click();
  await accessible(page);
  await page.getByRole('button', { name: /^Pocket laid on/ }).click();
  const sheet = page.getByRole('region', { name: 'Back pocket' });
  await expect(sheet).toBeVisible();
  await expect(page).toHaveURL(/part=1/);
  await expect(sheet).toContainText('1 × Back pocket');
  const below = sheet.getByLabel('Below the mouth');
  const before = await below.inputValue();
  const onWall = page.getByRole('button', { name: /^Back pocket: open it/ });
  const box = await onWall.boundingBox();
  if (!box) throw new Error('the pocket is not on its wall');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 8, y + 24, { steps: 4 });
  // It is under the pointer while it is dragged: the wall keeps its scale.
  await expect
    .poll(async () => {
      const now = await onWall.boundingBox();
      return Math.abs((now?.y ?? 0) - box.y - 24) < 6 && Math.abs((now?.x ?? 0) - box.x - 8) < 6;
    })
    .toBe(true);
  await page.mouse.up();
  await expect(below).not.toHaveValue(before);
  await expect(sheet.getByRole('radio', { name: 'So far from the left of the face' })).toBeChecked();
  await page.getByRole('button', { name: /^Undo Back pocket/ }).click();
  await expect(below).toHaveValue(before);
  await onWall.focus();
  await onWall.press('ArrowDown');
  await expect(below).not.toHaveValue(before);
  await accessible(page);
});

test('a part let go before the answer comes is put where it was let go', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/potting-bench-tote/bag?part=1`);
  const below = page.getByRole('region', { name: 'Dibber pocket' }).getByLabel('Below the mouth');
  const before = await below.inputValue();
  const box = await page.getByRole('button', { name: /^Dibber pocket: open it/ }).boundingBox();
  if (!box) throw new Error('the pocket is not on its wall');
  await page.route('**/preview', async (route) => {
    await new Promise((done) => setTimeout(done, 600));
    await route.continue();
  });
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 20, { steps: 3 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /^Undo Dibber pocket/ })).toBeVisible();
  await expect(below).not.toHaveValue(before);
});

test('the straps and the pocket a body has itself are moved and opened on their wall', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag?wall=front`);
  const straps = page.getByRole('button', { name: /^The bag’s own straps: open it/ });
  const before = await straps.boundingBox();
  if (!before) throw new Error('the straps are not on their wall');
  // By its left end: outward there is to the left.
  const [x, y] = [before.x + 8, before.y + before.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x - 12, y, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /^Undo In from the edge of the face/ })).toBeVisible();
  const wider = await straps.boundingBox();
  expect(wider?.width ?? 0).toBeGreaterThan(before.width + 12);
  await straps.press('ArrowLeft');
  await expect.poll(async () => (await straps.boundingBox())?.width ?? 0).toBeLessThan(wider?.width ?? 0);
  await accessible(page);
  await page.getByRole('button', { name: 'Inside, back' }).click();
  const pocket = page.getByRole('button', { name: /^The bag’s own pocket: open it/ });
  const top = (await pocket.boundingBox())?.y ?? 0;
  await pocket.focus();
  await pocket.press('ArrowDown');
  await expect.poll(async () => (await pocket.boundingBox())?.y ?? 0).toBeGreaterThan(top);
  await pocket.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Below the mouth' })).toBeVisible();
});

test('what a part cannot be is said beside it', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/potting-bench-tote/bag?part=1`);
  const sheet = page.getByRole('region', { name: 'Dibber pocket' });
  await type(page, 'Wide, finished', '30');
  await expect(sheet).toContainText('Dibber pocket is 30 in wide: the face on the front is 16 in.');
  await sheet.getByLabel('Wide, finished').press('Escape');
  // A choice that contradicts the bag is told where it is chosen, and stays as it was.
  await page.goto(`${demo.address}/projects/seed-packet-pouch/bag`);
  await page.getByRole('button', { name: /Add a part/ }).click();
  await page.getByRole('button', { name: /^Strap or handles/ }).click();
  await page.getByRole('radio', { name: 'Caught in the mouth' }).click();
  await expect(page.getByRole('alert')).toContainText('no open mouth is there');
  await expect(page.getByRole('radio', { name: 'Lapped over the outside' })).toBeChecked();
});

test('a part is copied to the wall across, taken off, and kept aside when its wall goes', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/potting-bench-tote/bag?part=3`);
  await page.getByRole('button', { name: 'one more' }).click();
  const copy = page.getByRole('region', { name: 'Inside front zip pocket' });
  await expect(copy).toBeVisible();
  await copy.getByRole('button', { name: 'remove' }).click();
  await expect(copy).toHaveCount(0);
  await page.getByRole('button', { name: /^Lining like the outer/ }).click();
  await page.getByRole('radio', { name: 'None' }).click();
  await page.keyboard.press('Escape');
  const parts = page.getByRole('region', { name: 'Parts' });
  await expect(parts.getByRole('button', { name: /^Inside back zip pocket set aside/ })).toBeVisible();
  await expect(page.getByLabel('Tally')).toContainText('Inside back zip pocket is kept aside and not cut');
});

test('a panel is split into bands of chosen cloths, a strap backed by itself', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/pieces`);
  await page.getByRole('button', { name: /^Construction of Outer panel/ }).click();
  await type(page, /Split into bands/, '4');
  await page.getByLabel('band 2', { exact: true }).selectOption('contrast');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: /^Outer panel, band 2/ })).toBeVisible();
  await page.getByRole('button', { name: /^Construction of Strap/ }).click();
  await page.getByRole('radio', { name: 'Woven fusible' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: /^Woven fusible, strap/ })).toBeVisible();
});

for (const width of [800, 400]) {
  test(`parts on a screen ${width} wide`, async ({ page, demo }) => {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(`${demo.address}/projects/potting-bench-tote/bag?part=1`);
    await expect(page.getByRole('region', { name: 'Dibber pocket' })).toBeVisible();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(width);
    await accessible(page);
  });
}
