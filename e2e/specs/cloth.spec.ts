// Cloth: what is there as people say it, parts put on it, ways out when it runs short, how large the bag can be.
import { accessible, expect, test } from '../server';

test('a part is cut from another cloth, by keys, by taps and by dropping', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  const on = (cloth: string) => page.getByRole('listitem', { name: `${cloth} on the table` });
  const tag = (part: string) => page.getByRole('button', { name: new RegExp(`^${part}, `) });
  // By keys: taken up, put back, taken up again and put down.
  await tag('Straps').press('Enter');
  await expect(page.getByText('Straps picked up')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('Straps picked up')).toHaveCount(0);
  await tag('Straps').press('Enter');
  await page.getByRole('button', { name: 'Cut straps from Oat ticking' }).press('Enter');
  await expect(on('Oat ticking').getByRole('button', { name: /^Straps, / })).toBeVisible();
  // By dropping.
  await tag('Pocket').dragTo(on('Bean-flower canvas'));
  await expect(on('Bean-flower canvas').getByRole('button', { name: /^Pocket, / })).toBeVisible();
  await expect(on('Oat ticking').getByRole('button', { name: /^Pocket, / })).toHaveCount(0);
  // By taps, as a second choice, and off the first.
  await tag('Lining').click();
  await on('Bean-flower canvas').getByRole('button', { name: 'Also, if it runs short' }).click();
  await expect(
    on('Bean-flower canvas').getByRole('button', { name: 'Lining, if it runs short' }),
  ).toBeVisible();
  await accessible(page);
  await on('Oat ticking')
    .getByRole('button', { name: /^Lining, / })
    .click();
  await on('Oat ticking').getByRole('button', { name: 'Take lining off it' }).click();
  await expect(page.getByRole('button', { name: /^Lining, / })).toHaveCount(1);
  await page.getByRole('button', { name: 'From the cupboard' }).click();
  await page.getByLabel('Find a cloth by its name').fill('seed-dot');
  await page.getByRole('button', { name: /Seed-dot lawn/ }).click();
  await expect(page.getByRole('region', { name: 'Seed-dot lawn' })).toBeVisible();
  await expect(on('Seed-dot lawn')).toContainText('not used');
});

test('what is there is said as people say it, and asked where it has two meanings', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/potting-bench-tote/cloth`);
  const check = page.getByRole('region', { name: 'Seed-tray check' });
  const have = check.getByLabel('I have');
  await have.fill('2 fat quarters and half a yard');
  await have.press('Enter');
  await expect(have).toHaveValue('2 fat quarters, ½ yd');
  const table = page.getByRole('listitem', { name: 'Seed-tray check on the table' });
  await expect(table).toContainText('2 fat quarters');
  await expect(table).toContainText('½ yd');
  await have.fill('a quarter, 18 x 22');
  await have.press('Enter');
  await expect(check).toContainText('A quarter: long, or fat?');
  await accessible(page);
  await check.getByRole('button', { name: 'fat, 18 × 21 in' }).click();
  await expect(have).toHaveValue('fat quarter, 18 × 22 in');
  // Said of any cloth, it is laid beside what lies there.
  const there = page.getByLabel('Cloth you have');
  await there.fill('half a yard of ticking, 3 squares of 10 in');
  await there.press('Enter');
  await expect(page.getByText('“3 squares of 10 in”: of which cloth?')).toBeVisible();
  await page
    .getByRole('region', { name: 'The table' })
    .getByRole('button', { name: 'Seed-tray check', exact: true })
    .click();
  await expect(have).toHaveValue('fat quarter, 18 × 22 in, 3 of 10 × 10 in');
  await expect(there).toHaveValue('');
  await expect(page.getByRole('region', { name: 'Twine ticking' }).getByLabel('I have')).toHaveValue('½ yd');
  await page.getByRole('button', { name: /^Undo Lay down/ }).click();
  await expect(have).toHaveValue('fat quarter, 18 × 22 in');
  // What is not understood is named, and stays to be put right.
  await have.fill('a bag of crumbs');
  await have.press('Enter');
  await expect(check).toContainText('“a bag of crumbs” is not understood');
  await expect(have).toHaveValue('a bag of crumbs');
  await have.press('Escape');
  await expect(have).toHaveValue('fat quarter, 18 × 22 in');
});

test('short of cloth: the ways out have their price, and one is taken', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/windfall-tote/cloth`);
  const short = page.getByRole('alert', { name: 'Not enough cloth' });
  await expect(short).toContainText('2 of 7 pieces don’t fit');
  await expect(short.getByRole('button', { name: /^Buy the rest of Plum lawn .*4\.80/ })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'What’s the biggest bag I can make from this?' }).click();
  await expect(page.getByText(/% of its present size/)).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText('Any larger, and Lining panel doesn’t fit.')).toBeVisible();
  await short.getByRole('button', { name: /^Cut (the )?lining from Orchard canvas as well/i }).click();
  await expect(short).toHaveCount(0);
  await expect(page.getByTestId('tally-cloth')).toHaveText('no cloth to buy');
  // The answer was for the cloth as it was.
  await expect(page.getByText(/% of its present size/)).toHaveCount(0);
  const lining = page.getByRole('listitem', { name: 'Orchard canvas on the table' });
  await expect(lining.getByRole('button', { name: 'Lining, if it runs short' })).toBeVisible();
});

test('what is left goes back to the cupboard once all is cut, and can be taken out again', async ({
  page,
  demo,
}) => {
  const project = `${demo.address}/api/projects/swap-table-pouch`;
  const { revision, steps } = await (await page.request.get(project)).json();
  const early = await page.request.post(`${project}/left-over`);
  expect(early.status()).toBe(409);
  await page.request.post(`${project}/edits`, {
    data: { based_on: revision, edits: [{ edit: 'steps-done', count: steps }] },
  });
  await page.goto(`${demo.address}/projects/swap-table-pouch/cut`);
  const left = page.getByRole('region', { name: 'What is left' });
  await expect(left).toContainText('cut into: fat quarter');
  await accessible(page);
  await left.getByRole('button', { name: 'Add it to the cupboard' }).press('Enter');
  await expect(left).toContainText('It is in the cupboard.');
  await page.goto(`${demo.address}/cupboard`);
  const find = () => page.getByLabel('Search the cupboard').fill('radish dot');
  await find();
  const dot = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Radish dot' }) });
  await expect(dot).toContainText(/fat quarter, .* in here/);
  await dot.getByText('History').click();
  await expect(dot).toContainText(/fat quarter cut for Swap-table pouch, .* left/);
  await page.goto(`${demo.address}/projects/swap-table-pouch/cut`);
  await left.getByRole('button', { name: 'Remove again' }).click();
  await expect(left.getByRole('button', { name: 'Add it to the cupboard' })).toBeVisible();
  await page.goto(`${demo.address}/cupboard`);
  await find();
  await expect(dot).toContainText('2 fat quarters here');
});

test('a scrap is drawn by its corners, measured, flawed and laid, by mouse and by keys', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/swap-table-pouch/cloth`);
  await page.getByRole('button', { name: 'Draw a scrap' }).click();
  const editor = page.getByRole('dialog');
  await editor.getByRole('button', { name: 'rectangle', exact: true }).click();
  await expect(editor.getByLabel('C–D')).toHaveAttribute('placeholder', '16');
  // Measured: what is still loose is asked for, and what cannot be is told.
  for (const [side, length] of [
    ['A–B', '14'],
    ['B–C', '11'],
    ['C–D', '14'],
    ['A–D', '11'],
  ] as const) {
    await editor.getByLabel(side).fill(length);
    await editor.getByLabel(side).press('Enter');
  }
  await expect(editor.getByText(/Measure (A–C|B–D) too/)).toBeVisible();
  const across = editor.getByLabel(/^(A–C|B–D)$/);
  await across.fill('40');
  await across.press('Enter');
  await expect(editor.getByText(/cannot all be right/)).toBeVisible();
  await across.fill('17 3/4');
  await across.press('Enter');
  await expect(editor.getByText(/Measure .* too/)).toHaveCount(0);
  await expect(editor.getByText(/11 × 14/).first()).toBeVisible();
  // A stain, moved by keys and made larger by its size.
  await editor.getByRole('button', { name: 'stain', exact: true }).click();
  const stain = editor.getByRole('button', { name: /^stain: move it/ });
  await stain.press('Shift+ArrowRight');
  const size = editor.getByLabel('stain, along × across');
  await size.fill('2 x 1 1/2');
  await size.press('Enter');
  await expect(size).toHaveValue('2 × 1½');
  // A corner dragged away loses what was measured to it, and comes back with the step back.
  const corner = editor.getByRole('button', { name: /^Corner C:/ });
  const box = await corner.boundingBox();
  if (!box) throw new Error('a corner is seen');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 60, box.y + 50, { steps: 4 });
  await page.mouse.up();
  await expect(editor.getByLabel('B–C')).toHaveValue('');
  await editor.getByRole('button', { name: 'Undo a step' }).click();
  await expect(editor.getByLabel('B–C')).not.toHaveValue('');
  await accessible(page);
  await editor.getByRole('button', { name: 'Add the scrap' }).press('Enter');
  await expect(editor).toHaveCount(0);
  const table = page.getByRole('listitem', { name: /Radish dot on the table/ });
  await expect(table).toContainText('scrap A, holds');
  // Changed: a corner more, by keys; then removed and taken back.
  await table.getByRole('button', { name: 'Edit scrap A' }).press('Enter');
  await editor.getByRole('button', { name: 'One more corner between A and B' }).press('Enter');
  await expect(editor.getByRole('button', { name: /^Corner E:/ })).toBeVisible();
  await editor.getByRole('button', { name: /^Corner B:/ }).press('ArrowDown');
  await editor.getByRole('button', { name: 'Save the scrap' }).click();
  await expect(editor).toHaveCount(0);
  await table.getByRole('button', { name: 'Remove scrap A' }).click();
  await expect(table).not.toContainText('scrap A');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(table).toContainText('scrap A');
});

test('scraps are traced from a picture, its marks put right by mouse and by keys', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/swap-table-pouch/cloth`);
  await page.getByRole('button', { name: 'Scraps from a picture' }).press('Enter');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Take a picture' }).click();
  const mark = (name: string) => dialog.getByRole('button', { name: new RegExp(`^Mark ${name}`) });
  await mark('upper left').waitFor();
  // Marks that are off their corners are told, since sizes would be wrong.
  await dialog.getByRole('button', { name: 'Find the scraps' }).click();
  await expect(dialog.getByText(/all four marks in their corners/)).toBeVisible();
  // Each mark begins 6 in a hundred inside the picture, 1091 by 767 pixels; the mat's corners are elsewhere.
  const press = async (name: string, key: string, times: number) => {
    for (let k = 0; k < Math.floor(times / 10); k++) await mark(name).press(`Shift+${key}`);
    for (let k = 0; k < times % 10; k++) await mark(name).press(key);
  };
  await press('upper right', 'ArrowLeft', 6);
  await press('upper right', 'ArrowDown', 12);
  await press('lower right', 'ArrowRight', 8);
  await press('lower right', 'ArrowUp', 12);
  await press('lower left', 'ArrowLeft', 8);
  await press('lower left', 'ArrowUp', 22);
  const at = await mark('upper left').boundingBox();
  const other = await mark('upper right').boundingBox();
  if (!at || !other) throw new Error('the marks are seen');
  const per = (other.x - at.x) / (1019.5 - 65.5);
  const [x, y] = [at.x + at.width / 2, at.y + at.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 7 * per, y + 23.7 * per, { steps: 3 });
  await page.mouse.up();
  await dialog.getByRole('button', { name: 'Find the scraps' }).click();
  await expect(dialog.getByText('2 scraps')).toBeVisible();
  await expect(dialog.getByText(/all four marks in their corners/)).toHaveCount(0);
  await accessible(page);
  // One of the two is taken.
  await dialog.getByRole('checkbox').nth(1).press('Space');
  await dialog.getByRole('button', { name: 'Add the scrap' }).click();
  await expect(dialog).toHaveCount(0);
  const table = page.getByRole('listitem', { name: /Radish dot on the table/ });
  await expect(table).toContainText('scrap A, holds');
  await expect(table).not.toContainText('scrap B');
});

test('a cloth is drawn by a picture of its print, and without it again', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  const card = page.getByRole('region', { name: 'Bean-flower canvas', exact: true });
  await card.getByText('Look, selvedge, washing, shop').press('Enter');
  await card.getByRole('button', { name: 'From a picture' }).press('Enter');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Take a picture' }).press('Enter');
  await dialog.getByRole('textbox', { name: 'Wide' }).fill('11 cm');
  await dialog.getByRole('button', { name: 'Show the result' }).press('Enter');
  // What is not said yet is asked for, and nothing is lost.
  await expect(dialog.locator('.text-madder')).toBeVisible();
  await dialog.getByRole('textbox', { name: 'Tall' }).fill('9.5 cm');
  await dialog.getByRole('button', { name: 'Show the result' }).press('Enter');
  await expect(dialog.getByRole('img', { name: /^The print as Bofta draws it/ })).toBeVisible();
  await accessible(page);
  await dialog.getByRole('button', { name: 'Draw Bean-flower canvas so' }).press('Enter');
  await expect(dialog).toHaveCount(0);
  const picture = card.locator('image[href^="/api/pictures/"]');
  await expect(picture).toHaveCount(1);
  await expect(card.getByRole('textbox', { name: 'Pattern repeat, height' })).toHaveValue(/3¾/);
  await page.goto(`${demo.address}/projects/harvest-tote/lay`);
  await expect(page.locator('image[href^="/api/pictures/"]').first()).toBeAttached();
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  await card.getByText('Look, selvedge, washing, shop').click();
  await card.getByRole('button', { name: 'Remove the picture' }).click();
  await expect(picture).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(picture).toHaveCount(1);
});

test('the cupboard is filled, put right and searched by what a thing holds', async ({ page, demo }) => {
  await page.goto(`${demo.address}/cupboard`);
  await expect(page.getByRole('region', { name: 'Scraps' }).getByRole('listitem').first()).toBeVisible();
  await page.getByRole('button', { name: 'Add a cloth', exact: true }).press('Enter');
  const form = page.getByRole('dialog');
  await form.getByLabel('Name of the cloth').fill('Plum voile');
  await form.getByLabel('Material').selectOption('cotton');
  await form.getByLabel('Cloth you have').fill('a quarter');
  await form.getByLabel('Place').fill('green tin');
  await form.getByRole('button', { name: 'Add to the cupboard' }).press('Enter');
  await form.getByRole('button', { name: /^fat/ }).click();
  await expect(form.getByText('Plum voile is in the cupboard.')).toBeVisible();
  await page.keyboard.press('Escape');
  const find = page.getByLabel('Search the cupboard');
  await find.fill('plum voile');
  const card = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Plum voile' }) });
  await expect(card).toContainText('fat quarter here, green tin');
  await card.getByText('Add, remove, correct, change its place').click();
  const more = card.getByLabel('More of Plum voile');
  for (const piece of ['9 x 14', 'right triangle 10 x 8']) {
    await more.fill(piece);
    await more.press('Enter');
    await expect(more).toHaveValue('');
  }
  const all = card.getByLabel('Counted: what is here now');
  await expect(all).toHaveValue('fat quarter, 9 × 14 in, scrap A');
  await accessible(page);
  // A size says its unit, or is asked.
  await find.fill('holds 12 x 9');
  await page.getByRole('button', { name: '12 x 9 in' }).click();
  await expect(find).toHaveValue('holds 12 x 9 in');
  const sheets = page.getByRole('region', { name: 'Fat quarters, squares, remnants' });
  await expect(sheets.getByRole('link', { name: /Plum voile 9 × 14 in.* holds it/ })).toBeVisible();
  await find.fill('holds 90 x 90 in');
  await expect(page.getByText('Nothing here is “holds 90 x 90 in”.')).toBeVisible();
});

test('what comes and goes of a cloth is on its ledger, and is taken back by keys', async ({ page, demo }) => {
  await page.goto(`${demo.address}/cupboard`);
  await page.getByLabel('Search the cupboard').fill('beetroot plain');
  const card = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('heading', { name: 'Beetroot plain' }) });
  await card.getByText('Add, remove, correct, change its place').press('Enter');
  await card.getByText('History').press('Enter');
  await expect(card.getByText(/^scrap A, holds .* put in$/)).toBeVisible();
  const away = card.getByLabel('Remove: thrown away, used up or given away');
  await away.fill('half a yard');
  await away.press('Enter');
  await expect(
    card.getByText(/You have no ½ yd of Beetroot plain in one piece\. Here: scrap A\./),
  ).toBeVisible();
  await away.fill('scrap A');
  await away.press('Enter');
  await expect(card.getByText(/^scrap A, .* thrown away$/)).toBeVisible();
  await expect(away).toHaveCount(0);
  await accessible(page);
  await card.getByRole('button', { name: /^Undo: scrap A, .* thrown away, / }).press('Enter');
  await expect(card.getByText(/^undone: scrap A, .* thrown away$/)).toBeVisible();
  await expect(card).toContainText(/scrap A, holds .* here, blue crate/);
  // What was put in, and is thrown away since, cannot be taken back: no button offers it.
  await away.fill('all');
  await away.press('Enter');
  await expect(card.getByRole('button', { name: /^Undo: .* put in, / })).toHaveCount(0);
});

test('what a plan is cut from is set aside for its bag, and returned', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/swap-table-pouch/cloth`);
  const card = page.getByRole('region', { name: 'Radish dot', exact: true });
  await card.getByRole('button', { name: /^Set aside for this bag: fat quarter/ }).press('Enter');
  await expect(card).toContainText('Set aside for this bag: fat quarter');
  await accessible(page);
  await page.goto(`${demo.address}/cupboard`);
  await page.getByLabel('Search the cupboard').fill('radish dot');
  const dot = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: 'Radish dot' }) });
  await expect(dot).toContainText('fat quarter with Swap-table pouch');
  await page.goto(`${demo.address}/projects/swap-table-pouch/cloth`);
  await card.getByRole('button', { name: 'Put Radish dot back in the cupboard' }).press('Enter');
  await expect(card.getByRole('button', { name: /^Set aside for this bag: fat quarter/ })).toBeVisible();
});

test("a pre-cut of one's own is kept and read, by keys", async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/swap-table-pouch/cloth`);
  await page.getByText('Pre-cuts of your own').press('Enter');
  await expect(page.getByText(/^None yet/)).toBeVisible();
  await page.getByLabel('Name of the pre-cut').fill('yards');
  await page.getByLabel('Length and width').fill('6 x 6');
  await page.getByRole('button', { name: 'Save' }).press('Enter');
  await expect(page.getByText(/“yards” already means something else/)).toBeVisible();
  await page.getByLabel('Name of the pre-cut').fill('swap square');
  await page.getByLabel('Length and width').press('Enter');
  await expect(page.getByRole('button', { name: 'Delete swap square' })).toBeVisible();
  await accessible(page);
  const there = page.getByLabel('Cloth you have');
  await there.fill('3 swap squares of radish dot');
  await there.press('Enter');
  await expect(
    page.getByRole('region', { name: 'Radish dot', exact: true }).getByLabel('I have'),
  ).toHaveValue('2 fat quarters, 3 of 6 in × 6 in');
  await page.getByRole('button', { name: 'Delete swap square' }).press('Enter');
  await expect(page.getByText(/^None yet/)).toBeVisible();
});

test('what another bag leaves is taken as cloth, by keys', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  await page.getByRole('button', { name: 'From the cupboard' }).press('Enter');
  const popover = page.getByRole('dialog', { name: 'From the cupboard, or what other bags leave' });
  await popover.getByText('What other bags leave').press('Enter');
  const take = popover.getByRole('button', { name: 'Take Orchard canvas, left of Windfall tote' });
  await take.press('Enter');
  await expect(take).toHaveCount(0);
  await accessible(page);
  await page.keyboard.press('Escape');
  const card = page.getByRole('region', { name: 'Orchard canvas', exact: true });
  await expect(card).toContainText('What Windfall tote leaves, as planned when you added it.');
  await expect(card.getByLabel('I have')).toHaveValue(/87 cm/);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(card).toHaveCount(0);
});

test('what could be made of what is in the cupboard is drawn and begun', async ({ page, demo }) => {
  await page.goto(`${demo.address}/cupboard`);
  await page.getByLabel('Search the cupboard').fill('pumpkin');
  await expect(page.getByText('1 of')).toBeVisible();
  // By keyboard: the button opens what was found, and the first of it is begun.
  const ask = page.getByRole('button', { name: 'What could I make of these?' });
  await ask.focus();
  await page.keyboard.press('Enter');
  const made = page.getByRole('region', { name: 'What could be made' });
  await expect(made.getByRole('status').filter({ hasText: 'bags of 1 cloth' })).toBeVisible({
    timeout: 20_000,
  });
  await expect(made.getByText('Not possible from these:')).toContainText('Kneeler duffel');
  const usual = made.getByRole('listitem', { name: 'Zip pouch', exact: true });
  await expect(usual).toContainText('Pumpkin cotton');
  await usual.getByRole('button', { name: 'Begin it' }).click();
  await expect(page).toHaveURL(/\/projects\/zip-pouch-from-the-cupboard.*\/lay/);
  await expect(page.getByText('no cloth to buy').first()).toBeVisible();
});

test('one piece lies apart, a part comes from any cloth or never from one, and what is there is put right', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  const table = page.getByRole('region', { name: 'The table' });
  const canvas = table.getByRole('listitem', { name: 'Bean-flower canvas on the table' });
  const ticking = table.getByRole('listitem', { name: 'Oat ticking on the table' });
  // What is there is put right below its drawing; a question is answered for that thing alone.
  await table
    .getByRole('textbox', { name: 'Cloth you have' })
    .fill('2 fat quarters of oat ticking, 1 yd of oat ticking');
  await table.getByRole('textbox', { name: 'Cloth you have' }).press('Enter');
  await ticking.getByRole('button', { name: /^1 yd of Oat ticking/ }).press('Enter');
  await page.keyboard.type('a quarter');
  await page.keyboard.press('Enter');
  await ticking.getByRole('button', { name: /^fat,/ }).press('Enter');
  await expect(ticking).toContainText('3 fat quarters');
  await expect(ticking).not.toContainText('1 yd');
  // Straps in hand: never from the ticking; then put on it all the same.
  await canvas.getByRole('button', { name: /^Outer/ }).press('Enter');
  await ticking.getByRole('button', { name: 'Never outer from this' }).press('Enter');
  await expect(ticking).toContainText('never outer');
  await canvas.getByRole('button', { name: /^Outer/ }).press('Enter');
  await ticking.getByRole('button', { name: 'Allow it again' }).press('Enter');
  await expect(ticking).not.toContainText('never outer');
  // Also from another cloth, in any order.
  await ticking.getByRole('button', { name: /^Lining/ }).press('Enter');
  await canvas.getByRole('button', { name: 'Also, if it runs short' }).press('Enter');
  await canvas.getByRole('button', { name: /^Lining, if it runs short/ }).press('Enter');
  await table.getByRole('button', { name: /^Use whichever of its cloths/ }).press('Enter');
  await expect(canvas).toContainText('this or others');
  // One piece alone: the fleece behind the panel and what is behind the straps are two.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(canvas).toContainText('if it runs short');
  await accessible(page);
});

test('cloth is cut folded, and tubes as they lie', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  const card = page.getByRole('region', { name: 'Bean-flower canvas', exact: true });
  await card.getByText('Look, selvedge, washing, shop').press('Enter');
  await card.getByRole('radio', { name: 'on the fold, two at once' }).click();
  await page.goto(`${demo.address}/projects/harvest-tote/lay`);
  await expect(page.getByText('27 in in two layers, its fold at the left · 26½ usable')).toBeVisible();
  await page.goto(`${demo.address}/projects/harvest-tote/cut`);
  await expect(page.getByText('Two layers, the fold at the left, edges level, pressed.')).toBeVisible();
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  await page.getByRole('textbox', { name: 'Cloth you have' }).fill('two trouser legs 32 x 18 of oat ticking');
  await page.getByRole('textbox', { name: 'Cloth you have' }).press('Enter');
  await page.getByRole('button', { name: /^a tube, cut as it lies/ }).click();
  const ticking = page.getByRole('listitem', { name: 'Oat ticking on the table' });
  await expect(ticking).toContainText('2 tubes of 32 × 18 in');
});

test('a hem is kept: marked on a scrap, and a piece is laid along it', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/swap-table-pouch/cloth`);
  await page.getByRole('button', { name: 'Draw a scrap' }).press('Enter');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'rectangle' }).press('Enter');
  await dialog.getByRole('button', { name: 'hem', exact: true }).press('Enter');
  await dialog.getByRole('button', { name: 'fringe' }).press('Enter');
  await dialog.getByLabel('The hem is side').selectOption('0');
  await dialog.getByRole('button', { name: /^The fringe .* need not be kept/ }).press('Enter');
  await expect(dialog.getByLabel('The fringe is side')).toHaveCount(0);
  await expect(dialog.getByLabel('The hem is side')).toHaveValue('0');
  await accessible(page);
  await dialog.getByRole('button', { name: 'Add the scrap' }).press('Enter');
  await expect(dialog).toHaveCount(0);
  await page.goto(`${demo.address}/projects/swap-table-pouch/pieces`);
  const card = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('heading', { name: /^Outer panel/ }) });
  const choice = card.getByRole('radiogroup', { name: 'On a kept edge of a scrap' });
  await choice.getByRole('radio', { name: 'its base' }).click();
  await expect(choice.getByRole('radio', { name: 'its base' })).toBeChecked();
  await page.getByRole('button', { name: /^Undo Outer panel, base on a kept edge/ }).click();
  await expect(choice.getByRole('radio', { name: 'no', exact: true })).toBeChecked();
});
