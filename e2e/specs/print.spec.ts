// A piece placed on the print it is cut from: by dragging, by keys and by typed sizes.
import { accessible, expect, test } from '../server';

test('a motif is moved to where it shall fall', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/flower-show-tote/pieces`);
  const open = page.getByRole('button', { name: /^Place Outer panel on its print/ });
  await open.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Outer panel on its print' });
  const [left, low] = [dialog.getByLabel('from the left edge'), dialog.getByLabel('from the lower edge')];
  await expect(left).toHaveValue('middle');
  await expect(low).toHaveValue('22');
  await expect(dialog.getByText(/holds 2 of it where the print falls right/)).toBeVisible();
  await accessible(page);
  // By keys: the print moves under the piece, a line of the ruler at a time, or eight.
  const board = dialog.getByRole('img', { name: /arrow keys move it/ });
  await board.press('ArrowUp');
  await expect(low).toHaveValue('22.1');
  await board.press('Shift+ArrowLeft');
  await expect(left).toHaveValue('20.2');
  // By dragging: a whole repeat further it is the same place.
  const box = await board.boundingBox();
  if (!box) throw new Error('no board');
  const view = page.locator('svg[aria-label^="The print under"]');
  const wide = await view.evaluate((svg) => (svg as SVGSVGElement).viewBox.baseVal.width);
  const board_ = await (
    await page.request.get(`${demo.address}/api/projects/flower-show-tote/pieces/outer-panel/print`)
  ).json();
  const repeat = (board_.beyond[0] * box.width) / wide;
  await page.mouse.move(box.x + 200, box.y + 100);
  await page.mouse.down();
  await page.mouse.move(box.x + 200 + repeat, box.y + 100, { steps: 5 });
  await page.mouse.up();
  await expect(left).toHaveValue(/^20\.[123]$/);
  // Escape takes a drag back.
  await page.mouse.move(box.x + 200, box.y + 100);
  await page.mouse.down();
  await page.mouse.move(box.x + 260, box.y + 130, { steps: 3 });
  await board.press('Escape');
  await page.mouse.up();
  await expect(low).toHaveValue('22.1');
  // Typed: what cannot be keeps what was typed, with the reason.
  await low.fill('a hand');
  await low.press('Enter');
  await expect(dialog.getByText(/“a hand”/)).toBeVisible();
  await dialog.getByRole('button', { name: 'In the middle of its face' }).click();
  await expect(left).toHaveValue('21');
  await dialog.getByRole('button', { name: 'Remove the placement' }).click();
  await expect(dialog.getByText(/Not placed on Marigold furnishing yet/)).toBeVisible();
  await expect(dialog.getByText(/With the motif in the middle/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(open).toHaveText('anywhere on the print');
  // The step before brings it back.
  await page.keyboard.press('Control+z');
  await expect(open).toHaveText(/a motif 21 from the left/);
});

test('the cutter is told to find the print first', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/flower-show-tote/cut`);
  await expect(page.getByText(/so that the middle of a motif lies/)).toBeVisible();
  await expect(page.getByText('22 cm', { exact: true })).toBeVisible();
});
