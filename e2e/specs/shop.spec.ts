// Cloth, buying and printing: prices, widths, what is owned, the cupboard, both systems in one project.
import { accessible, expect, go, test, type } from '../server';

test('a price that is not known is asked for where it is missed', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  const fleece = page.getByRole('region', { name: 'Fusible fleece' });
  await fleece.getByLabel('Price a yard').fill('');
  await fleece.getByLabel('Price a yard').press('Enter');
  await go(page, 'Buy');
  await expect(page.getByTestId('buy-total')).toHaveText(/and more$/);
  await type(page, 'Price a yard', '8');
  await expect(page.getByTestId('buy-total')).toHaveText(/^\d+\.\d\d$/);
  await accessible(page);
});

test('a price that is none is refused beside its field', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  const canvas = page.getByRole('region', { name: 'Bean-flower canvas' });
  await canvas.getByLabel('Price a yard').fill('dear');
  await canvas.getByLabel('Price a yard').press('Enter');
  await expect(canvas.getByText('“dear” is not a price')).toBeVisible();
  await canvas.getByLabel('Wide', { exact: true }).fill('0.75');
  await canvas.getByLabel('Wide', { exact: true }).press('Enter');
  await expect(canvas.getByText('its two selvedges leave nothing to cut from')).toBeVisible();
});

test('what is owned is not bought', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  const ticking = page.getByRole('region', { name: 'Oat ticking' });
  await ticking.getByLabel('I have').fill('2 yd');
  await ticking.getByLabel('I have').press('Enter');
  await go(page, 'Buy');
  const taken = page.getByRole('region', { name: 'From what you have' });
  await expect(taken).toContainText('Oat ticking, 2 yd');
  await taken.getByRole('button', { name: 'Buy it instead' }).click();
  await expect(taken).toHaveCount(0);
});

test('too little owned cloth is said, with the way out', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/bulb-sack/cloth`);
  const check = page.getByRole('region', { name: 'Donated potato-sack check' });
  await check.getByLabel('I have').fill('25');
  await check.getByLabel('I have').press('Enter');
  await go(page, 'Lay');
  const short = page.getByRole('alert', { name: 'Not enough cloth' });
  await expect(short).toContainText(/\d of \d+ pieces do(esn|n)’t fit/);
  await expect(short).toContainText(/yd more of Donated potato-sack check/);
  // The same is said wherever the plan is shown.
  await expect(page.getByTestId('tally-missing')).toContainText('fit');
  await expect(page.getByTestId('tally-cloth')).not.toHaveText('no cloth to buy');
  await go(page, 'Buy');
  await expect(short).toBeVisible();
  await go(page, 'Cut');
  await expect(short).toBeVisible();
  const heading = page.getByRole('heading', { level: 1 });
  for (let text = await heading.textContent(); text?.startsWith('Cut ') && / of /.test(text); ) {
    await page.getByRole('button', { name: 'Done, next cut' }).click();
    await expect(heading).not.toHaveText(text);
    text = await heading.textContent();
  }
  await expect(heading).toHaveText('Cut as far as planned');
  await expect(page.getByText('Every piece of')).toHaveCount(0);
  await short.getByRole('link', { name: 'Choose the cloth' }).click();
  await expect(page).toHaveURL(/\/cloth/);
});

test('why no shorter length is possible is told when asked, with what it holds under', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/harvest-tote/buy`);
  await page.getByRole('button', { name: 'why?' }).nth(1).click();
  const why = page.getByRole('dialog', { name: 'no shorter length is possible' });
  await expect(why).toContainText('no two fit side by side');
  await expect(why).toContainText('“Lining panel” and “Slip pocket” along the selvedge');
  await page.keyboard.press('Escape');
  await expect(why).toHaveCount(0);
});

test('a piece is turned by hand, with what it costs', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/kneeler-tote/pieces`);
  await page.getByRole('button', { name: 'Direction of Outer panel: along the selvedge' }).click();
  await page.getByRole('radio', { name: /across the width \+/ }).click();
  await expect(page.getByTestId('tally-change')).toContainText('+');
  await page.keyboard.press('Escape');
  const turned = page.getByRole('button', {
    name: 'Direction of Outer panel: across the width, turned by hand',
  });
  await turned.click();
  await page.getByRole('radio', { name: /as drafted/ }).click();
  await page.keyboard.press('Escape');
  await expect(
    page.getByRole('button', { name: 'Direction of Outer panel: along the selvedge' }),
  ).toBeVisible();
});

test('other widths are told beside each cloth', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/buy`);
  await expect(page.getByText('in another width')).toHaveCount(3);
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: /^60 in/ })
      .first(),
  ).toContainText('yd');
});

test('the list prints with its name and without the buttons', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/buy`);
  await expect(page.getByTestId('buy-total')).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByText('Harvest tote:')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Print the list' })).toBeHidden();
  await expect(page.getByRole('navigation', { name: 'Stages of the work' })).toBeHidden();
  await expect(page.getByLabel('Tally')).toBeHidden();
});

test('a project changes its system and nothing changes its size', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/seed-swap-tote/bag`);
  await page.getByRole('button', { name: /^Centimetres, to/ }).click();
  await page.getByRole('dialog').getByRole('radio', { name: 'inches' }).click();
  await expect(page.getByLabel('tall, finished', { exact: true })).toHaveValue('about 14⅝');
  await page.getByRole('dialog').getByRole('radio', { name: '¹⁄₁₆ in' }).click();
  await expect(page.getByLabel('tall, finished', { exact: true })).toHaveValue('about 14⁹⁄₁₆');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByLabel('tall, finished', { exact: true })).toHaveValue('37');
});

test('a cloth is named, drawn, kept in the cupboard and taken from there', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/bulb-sack/cloth`);
  await page.getByLabel('Name of the new cloth').fill('Rhubarb drill');
  await page.getByLabel('Material', { exact: true }).selectOption('cotton');
  await page.getByRole('button', { name: 'Add cloth' }).click();
  const drill = page.getByRole('region', { name: 'Rhubarb drill' });
  await drill.getByLabel('Material of Rhubarb drill').selectOption('canvas');
  await drill.getByText('Look, selvedge, washing, shop').click();
  await drill.getByLabel('Pattern', { exact: true }).selectOption({ label: 'watering cans' });
  await expect(drill.getByRole('radio', { name: 'one way up' })).toBeChecked();
  await drill.getByRole('button', { name: 'Keep in the cupboard' }).click();
  await expect(drill.getByRole('button', { name: 'Kept in the cupboard' })).toBeVisible();
  await accessible(page);
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  await page.getByRole('button', { name: 'From the cupboard' }).click();
  await page.getByLabel('Find a cloth by its name').fill('rhubarb drill');
  await page.getByRole('button', { name: /^Rhubarb drill/ }).click();
  await expect(page.getByRole('region', { name: 'Rhubarb drill' })).toContainText('not used');
  await page.getByRole('button', { name: 'Remove Rhubarb drill from this project' }).click();
  await expect(page.getByRole('region', { name: 'Rhubarb drill' })).toHaveCount(0);
  await page.goto(`${demo.address}/cupboard`);
  await page.getByLabel('Search the cupboard').fill('rhubarb drill');
  // Drawings that are still to come move what is below them.
  await page.waitForLoadState('networkidle');
  await page.getByRole('button', { name: 'Put Rhubarb drill away' }).click();
  await expect(page.getByRole('heading', { name: 'Rhubarb drill' })).toHaveCount(0);
});

test('a notice leads to the field it is about', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/bulb-sack/lay`);
  await page.getByRole('link', { name: /^A drop of/ }).click();
  await expect(page.getByLabel('How much shows')).toBeFocused();
});

test('what is there by the piece is taken off the list, and a word that is no number is refused', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/kneeler-duffel/buy`);
  const goods = page.getByRole('region', { name: 'By the length and by the piece' });
  const rings = goods.getByRole('listitem').filter({ hasText: /^D-ring/ });
  const there = rings.getByLabel(/^D-ring you have/);
  await there.fill('a few');
  await there.press('Enter');
  await expect(rings.getByText('Enter a number from 0 to 999 instead of “a few”.')).toBeVisible();
  // What was typed is kept until it is put right.
  await expect(there).toHaveValue('a few');
  await there.fill('1');
  await there.press('Enter');
  await expect(rings).toContainText('1 of yours, 1 to buy');
  await there.fill('4');
  await there.press('Enter');
  await expect(rings).toContainText('you have');
  await accessible(page);
  // It is kept, on the other stage too, and taken back like any other step.
  await page.reload();
  await expect(there).toHaveValue('4');
  await go(page, 'Pieces');
  await expect(page.getByLabel(/^D-ring you have/)).toHaveValue('4');
  await page.getByRole('button', { name: 'Undo D-ring you have' }).click();
  await expect(page.getByLabel(/^D-ring you have/)).toHaveValue('1');
});
