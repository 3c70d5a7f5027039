// Editing: errors beside fields, undo, two tabs, dragging, keys, a killed server.
import { accessible, expect, go, test, type } from '../server';

test('what cannot stand is said beside the field and the last good state stays', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  const depth = page.getByLabel('deep, finished', { exact: true });
  await type(page, 'deep, finished', '16');
  // In a list below the drawing, never across it.
  const wrong = page.getByRole('alert');
  await expect(wrong).toContainText('at most the width, 15½ in, is allowed');
  await expect(depth).toHaveAttribute('aria-invalid', 'true');
  await expect(depth).toHaveValue('16');
  await expect(page.getByRole('link', { name: /^Bag 15½ × 13¼ × 5½/ })).toBeVisible();
  await accessible(page);
  await depth.press('Escape');
  await expect(depth).toHaveValue('5½');
  await type(page, 'deep, finished', 'deep');
  await expect(wrong).toContainText('“deep” is not a size');
  await type(page, 'deep, finished', '12 cm');
  await expect(depth).toHaveValue('about 4¾');
  await expect(wrong).toHaveCount(0);
});

test('undo and redo survive a reload', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await type(page, 'wide, finished', '16');
  await type(page, 'tall, finished', '14');
  await expect(page.getByRole('link', { name: /^Bag 16 × 14/ })).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Undo Tall: 14 in' }).click();
  await expect(page.getByRole('link', { name: /^Bag 16 × 13¼/ })).toBeVisible();
  await page.locator('body').press('Control+z');
  await expect(page.getByRole('link', { name: /^Bag 15½ × 13¼/ })).toBeVisible();
  await page.locator('body').press('Control+Shift+Z');
  await expect(page.getByRole('link', { name: /^Bag 16 × 13¼/ })).toBeVisible();
});

test('a size is dragged on the drawing and by the arrow keys', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  const height = page.getByLabel('tall, finished', { exact: true });
  const handle = page.getByRole('slider', { name: 'Drag the height' });
  const box = await handle.boundingBox();
  if (!box) throw new Error('the handle is not there');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y - 12, { steps: 4 });
  await expect(height).not.toHaveValue('13¼');
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /^Undo Tall/ })).toBeEnabled();
  await page.getByRole('button', { name: /^Undo Tall/ }).click();
  await expect(height).toHaveValue('13¼');
  await handle.focus();
  await handle.press('ArrowUp');
  await expect(height).toHaveValue('13⅜');
});

test('stages by number keys, reasons by the keyboard', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await expect(page.getByRole('heading', { name: 'Boxed tote' })).toBeVisible();
  for (const [key, stage] of [
    ['2', 'pieces'],
    ['3', 'cloth'],
    ['4', 'lay'],
    ['5', 'buy'],
    ['6', 'cut'],
    ['7', 'make'],
    ['1', 'bag'],
  ] as const) {
    await page.locator('body').press(key);
    await expect(page).toHaveURL(new RegExp(`/${stage}`));
  }
  await page.getByRole('button', { name: /^Lining panel width/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Why a piece has its size' })).toContainText('= 22 in');
  await page.getByRole('button', { name: '5½ deep' }).press('Enter');
  await expect(page.getByLabel('deep, finished', { exact: true })).toBeFocused();
});

test('options act where they are: a hem changes outer and lining together', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await page.getByRole('button', { name: /^Mouth/ }).click();
  await page.getByRole('radio', { name: /^Hem/ }).click();
  await expect(
    page.getByRole('button', { name: /^Outer panel height, eighteen and a half inches/ }),
  ).toBeVisible();
  await expect(
    page.getByRole('button', { name: /^Lining panel height, sixteen and a half inches/ }),
  ).toBeVisible();
  await accessible(page);
});

test('the search is seen, stopped, and taken up again', async ({ page, demo }) => {
  // Cloth that is cut at any length leaves something to look for.
  const project = `${demo.address}/api/projects/bottle-caddy`;
  const { revision, cloths } = await (await page.request.get(project)).json();
  const edits = cloths.map((c: { id: string }) => ({
    edit: 'cloth',
    cloth: c.id,
    field: 'step',
    value: 'none',
  }));
  expect((await page.request.post(`${project}/edits`, { data: { based_on: revision, edits } })).ok()).toBe(
    true,
  );
  await page.goto(`${demo.address}/projects/bottle-caddy/lay`);
  await expect(page.getByTestId('search-state')).toContainText('searching for a better layout');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByTestId('search-state')).toContainText('best after');
  await page.getByRole('button', { name: 'Search further' }).click();
  await expect(page.getByTestId('search-state')).toContainText('searching for a better layout');
  await go(page, 'Bag');
  await expect(page.getByRole('heading', { name: 'Box or caddy' })).toBeVisible();
});

test('another way to lay it is one press, and can be undone', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/lay`);
  await expect(page.getByTestId('search-state')).toHaveText('no shorter length is possible');
  const before = await page.getByTestId('tally-cloth').textContent();
  await page.getByRole('button', { name: /^Straps along/ }).click();
  await expect(page.getByTestId('tally-change')).toContainText('+');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('tally-cloth')).toHaveText(before ?? '');
});

test('the last acknowledged edit is there after the server was killed', async ({ page, serve }) => {
  await page.goto(serve.address);
  await page.getByLabel('What will it be?').fill('Own tote');
  await page.getByRole('button', { name: 'Begin' }).click();
  await type(page, 'tall, finished', '17 3/8');
  await expect(page.getByRole('link', { name: /× 17⅜ ×/ })).toBeVisible();
  await serve.kill();
  await type(page, 'wide, finished', '19');
  await expect(page.getByRole('alert')).toContainText('does not answer');
  await serve.start();
  await page.reload();
  await expect(page.getByRole('link', { name: /× 17⅜ ×/ })).toBeVisible();
});

test('a project is put away and restored, a missing one is said', async ({ page, demo }) => {
  await page.goto(demo.address);
  await page.getByRole('button', { name: 'Put Bulb sack, unlined away' }).click();
  await expect(page.getByRole('link', { name: /Bulb sack/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page.getByRole('link', { name: /Bulb sack/ })).toBeVisible();
  await page.goto(`${demo.address}/projects/nobody/lay`);
  await expect(page.getByRole('heading', { name: 'Page not found' })).toBeVisible();
  await page.goto(`${demo.address}/cupboard`);
  await expect(page.getByRole('heading', { name: 'Oat ticking' })).toBeVisible();
  await accessible(page);
});

test('on a phone the tape shows one stage and the tally folds away', async ({ page, demo }) => {
  await page.setViewportSize({ width: 400, height: 800 });
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await page.getByRole('link', { name: 'on to Pieces' }).click();
  await expect(page).toHaveURL(/\/pieces/);
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(400);
  await page.getByText('This bag', { exact: true }).click();
  await expect(page.getByText('strap drop')).toBeVisible();
  await accessible(page);
});
