// What is kept and closed: a plan that is being cut, two tabs, the drawer, and how a new bag begins.
import { accessible, expect, go, test, type } from '../server';

test('once cutting has begun the plan is closed before one types', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cut`);
  await page.getByRole('button', { name: 'Done, next cut' }).click();
  await expect(page.getByRole('heading', { name: /^Cut 2 of/ })).toBeVisible();
  await go(page, 'Cloth');
  await expect(page.getByRole('region', { name: 'Cutting has begun' })).toContainText('1 of');
  const canvas = page.getByRole('region', { name: 'Bean-flower canvas' });
  await expect(canvas.getByLabel('Wide', { exact: true })).toBeDisabled();
  await expect(canvas.getByRole('radio', { name: 'one way up' })).toBeDisabled();
  await expect(page.getByRole('button', { name: /^Outer, / })).toBeDisabled();
  await accessible(page);
  const before = (await page.getByTestId('tally-cloth').textContent()) ?? '';
  await canvas.getByLabel('Price a yard').fill('€ 20');
  await canvas.getByLabel('Price a yard').press('Enter');
  await expect(page.getByText('€', { exact: false }).first()).toBeVisible();
  await expect(page.getByTestId('tally-cloth')).toHaveText(before);
  await go(page, 'Bag');
  await expect(page.getByLabel('wide, finished', { exact: true })).toBeDisabled();
  await expect(page.getByRole('button', { name: 'Another kind of bag' })).toBeDisabled();
  await page.getByRole('button', { name: 'Begin again' }).click();
  await expect(page.getByLabel('wide, finished', { exact: true })).toBeEnabled();
  await type(page, 'wide, finished', '16');
  await expect(page.getByRole('link', { name: /^Bag 16 ×/ })).toBeVisible();
});

test('what another tab changes is seen without a reload', async ({ page, context, demo }) => {
  const address = `${demo.address}/projects/bulb-sack/bag`;
  await page.goto(address);
  const other = await context.newPage();
  await other.goto(address);
  await type(page, 'wide, finished', '12');
  await expect(other.getByLabel('wide, finished', { exact: true })).toHaveValue('12');
});

test('a change made in two places is told with both, and nothing overwrites', async ({
  page,
  browser,
  demo,
}) => {
  const address = `${demo.address}/projects/bulb-sack/bag`;
  await page.goto(address);
  await expect(page.getByLabel('wide, finished', { exact: true })).toHaveValue('11');
  // Another program on the same project: its tabs do not hear of each other.
  const other = await (await browser.newContext()).newPage();
  await other.goto(address);
  await type(other, 'wide, finished', '12');
  await expect(other.getByRole('link', { name: /^Bag 12 ×/ })).toBeVisible();
  await type(page, 'tall, finished', '14');
  const dialog = page.getByRole('alertdialog');
  await expect(dialog).toContainText('changed last there');
  await expect(dialog).toContainText('Wide, at the base: 12 in');
  await expect(dialog).toContainText('Tall: 14 in');
  await accessible(page);
  await page.getByRole('button', { name: 'Make my change on top' }).click();
  await expect(page.getByRole('link', { name: /^Bag 12 × 14/ })).toBeVisible();
});

test('what was put away is in the drawer, to be restored or deleted', async ({ page, demo }) => {
  await page.goto(demo.address);
  await page.getByRole('button', { name: 'Put Onion sack away' }).click();
  await page.getByRole('button', { name: 'Put Bottle caddy away' }).click();
  await page.getByRole('link', { name: 'The drawer' }).click();
  await expect(page.getByText('Onion sack')).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Restore Onion sack' }).click();
  await expect(page.getByRole('status')).toContainText('“Onion sack” is on the shelf again.');
  await page.getByRole('button', { name: 'Delete Bottle caddy' }).click();
  await page.getByRole('button', { name: 'Keep it in the drawer' }).click();
  await page.getByRole('button', { name: 'Delete Bottle caddy' }).click();
  await accessible(page);
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText('The drawer is empty.')).toBeVisible();
  await page.getByRole('link', { name: 'To the shelf' }).click();
  await expect(page.getByRole('link', { name: /Onion sack/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Bottle caddy/ })).toHaveCount(0);
});

test('a new bag begins with its kind, and a cut list with a row', async ({ page, serve }) => {
  await page.goto(serve.address);
  await page.getByRole('button', { name: 'Own cut list' }).click();
  await page.getByLabel('What will it be?').fill('Peg bag');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: 'Own cut list' })).toBeVisible();
  await accessible(page);
  await page.getByLabel('Piece', { exact: true }).fill('Front');
  await page.getByLabel('Wide', { exact: true }).fill('broad');
  await page.getByLabel('Tall', { exact: true }).fill('9');
  await page.getByRole('button', { name: 'Add the row' }).click();
  await expect(page.getByText('“broad” is not a size')).toBeVisible();
  // Nothing typed is lost by it.
  await expect(page.getByLabel('Piece', { exact: true })).toHaveValue('Front');
  await page.getByLabel('Wide', { exact: true }).fill('12');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: /^Bag 1 row/ })).toBeVisible();
  await expect(page.getByLabel('How many', { exact: true })).toBeFocused();
});

test('sizes nobody typed go along and say so; a drag stops where the size would not stand', async ({
  page,
  serve,
}) => {
  await page.goto(serve.address);
  await page.getByLabel('What will it be?').fill('Small tote');
  await page.getByRole('button', { name: 'Begin' }).click();
  await type(page, 'wide, finished', '6');
  await expect(page.getByText('Pocket, wide, finished: 3 in, it was 7 in.')).toBeVisible();
  await accessible(page);
  await type(page, 'wide, finished', '14');
  // Deeper than wide is refused: the drag ends at the last depth that stood, and Escape takes a drag back.
  const handle = page.getByRole('slider', { name: 'Drag the depth' });
  // Where it is once the drawing has followed the sizes.
  const grasp = async () => {
    await expect(page.getByRole('link', { name: /^Bag 14 × 13 × 4/ })).toBeVisible();
    const box = await handle.boundingBox();
    if (!box) throw new Error('the depth has a handle');
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    return [x, y] as const;
  };
  let [x, y] = await grasp();
  await page.mouse.move(x + 40, y - 22, { steps: 4 });
  await expect(page.getByLabel('deep, finished', { exact: true })).not.toHaveValue('4');
  await page.keyboard.press('Escape');
  await expect(page.getByLabel('deep, finished', { exact: true })).toHaveValue('4');
  await page.mouse.up();
  [x, y] = await grasp();
  await page.mouse.move(x + 500, y - 280, { steps: 12 });
  await expect(page.getByText('Stops here.')).toBeVisible();
  await page.mouse.up();
  await expect(page.getByText('Stops here.')).toBeHidden();
  const depth = Number.parseFloat(await page.getByLabel('deep, finished', { exact: true }).inputValue());
  expect(depth).toBeGreaterThan(4);
  expect(depth).toBeLessThanOrEqual(14);
});
