// Zips, rings and webbing: put in, counted, taken back, found; laid with a bag from its list to buy, put back and sewn in.
import { accessible, expect, test } from '../server';

test('rings are put in by the keyboard, thrown away, and a mistake is taken back', async ({ page, demo }) => {
  await page.goto(`${demo.address}/cupboard`);
  const shelf = page.getByRole('region', { name: 'Zips, rings, webbing' });
  await shelf.getByRole('button', { name: /^Add a zip/ }).press('Enter');
  await page.getByLabel('Name', { exact: true }).fill('D-ring');
  await page.getByLabel('Size (opening or teeth), optional').fill('3/4');
  await page.getByLabel('How many').fill('a few');
  await page.getByLabel('How many').press('Enter');
  await expect(page.getByText('Enter a number from 1 to 10000 instead of “a few”.')).toBeVisible();
  await accessible(page);
  await page.getByLabel('How many').fill('6');
  await page.getByLabel('How many').press('Enter');
  await expect(page.getByText('D-ring is in the cupboard.')).toBeVisible();
  await page.keyboard.press('Escape');
  // The form is gone and has given its focus back before anything else is opened.
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(shelf.getByRole('button', { name: /^Add a zip/ })).toBeFocused();
  const rings = shelf.getByRole('button', { name: /^D-ring, ¾ in/ });
  await expect(rings).toContainText('6 here');
  await rings.press('Enter');
  const inside = page.getByRole('dialog', { name: 'D-ring, ¾ in' });
  await inside.getByLabel('Remove: thrown away, broken or given away').fill('9');
  await inside.getByLabel('Remove: thrown away, broken or given away').press('Enter');
  await expect(inside).toContainText('You have D-ring, ¾ in: 6. You can’t remove more than that.');
  await inside.getByLabel('Remove: thrown away, broken or given away').fill('2');
  await inside.getByLabel('Remove: thrown away, broken or given away').press('Enter');
  await expect(rings).toContainText('4 here');
  await accessible(page);
  await inside.getByRole('button', { name: 'Undo: 2 thrown away' }).press('Enter');
  await expect(rings).toContainText('6 here');
  await expect(inside.getByRole('listitem').first()).toContainText('undone: 2 thrown away');
  await page.keyboard.press('Escape');
  await page.getByLabel('Search the cupboard').fill('zip jar');
  await expect(rings).toBeHidden();
  await expect(shelf.getByRole('button', { name: /^Zip, 8 in/ })).toBeVisible();
});

test('what a bag needs is taken from the cupboard, returned, and sewn in', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/kneeler-duffel/buy`);
  const list = page.getByRole('region', { name: 'By the length and by the piece' });
  const webbing = list.getByRole('listitem').filter({ hasText: 'buy webbing' });
  const before = await webbing.first().textContent();
  await list.getByRole('button', { name: 'Take 300 cm' }).click();
  await expect(list).toContainText('300 cm of Webbing, 4 cm wide lie with this bag');
  await expect(list).toContainText('from 300:');
  expect(await webbing.first().textContent()).not.toBe(before);
  await accessible(page);
  await list.getByRole('button', { name: 'Put back' }).click();
  await expect(list.getByRole('button', { name: 'Take 300 cm' })).toBeVisible();
  // Two rings of the size are there; the line is done with.
  const rings = list.getByRole('listitem').filter({ hasText: 'D-ring, 4 cm' });
  await rings.first().getByRole('button', { name: 'Take 2' }).click();
  await expect(list).toContainText('2 of D-ring, 4 cm lie with this bag');
  await expect(
    list
      .getByRole('listitem')
      .filter({ hasText: /^D-ring/ })
      .first(),
  ).toContainText('you have');
  await list.getByRole('button', { name: 'Sewn in' }).click();
  await expect(list).not.toContainText('D-ring, 4 cm lie');
  await page.goto(`${demo.address}/cupboard?`);
  await page.getByRole('button', { name: /^D-ring, 4 cm/ }).click();
  await expect(page.getByRole('dialog', { name: 'D-ring, 4 cm' })).toContainText(
    '2 sewn into Kneeler duffel',
  );
});

for (const width of [800, 400])
  test(`notions on a screen ${width} wide`, async ({ page, demo }) => {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(`${demo.address}/cupboard`);
    const shelf = page.getByRole('region', { name: 'Zips, rings, webbing' });
    await shelf.getByRole('button', { name: /^Webbing, 4 cm wide/ }).click();
    await expect(page.getByRole('dialog', { name: 'Webbing, 4 cm wide' })).toBeVisible();
    const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(over).toBeLessThanOrEqual(0);
    await page.goto(`${demo.address}/projects/kneeler-duffel/buy`);
    await expect(page.getByRole('button', { name: 'Take 300 cm' })).toBeVisible();
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
    ).toBeLessThanOrEqual(0);
  });
