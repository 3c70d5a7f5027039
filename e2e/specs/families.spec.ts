// Other kinds of bag, one's own cut list, and both ways to box a corner side by side.
import { accessible, expect, go, test, type } from '../server';

test('a pouch, a caddy and a duffel are chosen by their drawings and laid', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  for (const [name, piece] of [
    ['Zip pouch', 'Zip tab'],
    ['Box or caddy', 'Lining side'],
    ['Duffel', 'Body'],
  ] as const) {
    await page.getByRole('button', { name: 'Another kind of bag' }).click();
    await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
    await expect(page.getByRole('heading', { name, exact: true })).toBeVisible();
    await type(page, 'wide, finished', '13');
    await expect(page.getByRole('link', { name: /^Bag 13 ×/ })).toBeVisible();
    await accessible(page);
    await go(page, 'Pieces');
    await expect(page.getByRole('heading', { name: new RegExp(`^${piece}`) })).toBeVisible();
    await go(page, 'Bag');
  }
  await go(page, 'Buy');
  await expect(page.getByRole('region', { name: 'By the length and by the piece' })).toContainText('Webbing');
  await accessible(page);
  await page.getByRole('button', { name: 'Undo Duffel' }).click();
  await go(page, 'Bag');
  await expect(page.getByRole('heading', { name: 'Box or caddy' })).toBeVisible();
});

test('a list copied from a page is pasted, looked over and taken', async ({ page, serve }) => {
  await page.goto(serve.address);
  await page.getByLabel('What will it be?').fill('From a page');
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('button', { name: 'Another kind of bag' }).click();
  await page.getByRole('button', { name: /^Own cut list/ }).click();
  const list = [
    'From the outer fabric:',
    '• 2 panels 15" x 16 1/2"',
    '• Base – 12" x 5"',
    '• 2 straps, 4" x 26"',
    'From the lining:',
    '• 2 panels 15" x 16"',
    '• one magnetic snap, 3/4 inch',
    '• webbing 24',
  ];
  await page.getByLabel('Cut list', { exact: true }).fill(list.join('\n'));
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('4 rows read, 1 to buy, 1 not')).toBeVisible();
  await expect(page.getByRole('list', { name: 'To buy' })).toContainText('1 × Magnetic snap, ¾ in');
  await expect(page.getByText(/^Line 8, “• webbing 24/)).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Use these rows' }).click();
  await expect(page.getByRole('link', { name: /^Bag 4 rows/ })).toBeVisible();
  // What was not read stays to be mended.
  await expect(page.getByLabel('Cut list', { exact: true })).toHaveValue(/webbing 24/);
  const toBuy = page.getByRole('region', { name: 'To buy, not cut' });
  await expect(toBuy).toContainText('Magnetic snap');
  await type(page, 'Height of row 4', '16 1/2');
  await page.getByLabel('Shape of row 4').selectOption('notched');
  await expect(page.getByLabel('Corner of row 4')).toBeVisible();
  await type(page, 'Height of row 4', 'tall');
  await expect(page.getByText('“tall” is not a size')).toBeVisible();
  await accessible(page);
  await go(page, 'Pieces');
  await expect(page.getByRole('heading', { name: /^Straps/ })).toBeVisible();
});

test('a line that can be read in two ways is asked about before it is taken', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/tool-roll-list/bag`);
  await page
    .getByLabel('Cut list', { exact: true })
    .fill('outer 15 x 16 x 2\nwebbing 2 x 24\n2 @ 4 x 26 straps');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('2 rows read, 1 not')).toBeVisible();
  await expect(page.getByText(/“webbing” is bought: say how many, how wide and how long/)).toBeVisible();
  const rows = page.getByRole('list', { name: 'Rows read' });
  await expect(rows.getByText(/There are three numbers/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add them to the list' })).toBeDisabled();
  await accessible(page);
  await rows.getByRole('button', { name: '15 × Outer, 16 × 2 in' }).click();
  await expect(rows.getByText(/three numbers/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Add them to the list' }).click();
  // What is no row stays where it was typed.
  await expect(page.getByLabel('Cut list', { exact: true })).toHaveValue('webbing 2 x 24');
});

test('a file is read, and one without a unit asks for it', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/tool-roll-list/bag`);
  const input = page.locator('input[type=file]');
  await input.setInputFiles({
    name: 'rows.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('piece,count,width,height\nTab,3,2,4\nTab,x,2,4\n'),
  });
  await expect(page.getByText('1 row read, 1 not')).toBeVisible();
  await input.setInputFiles({
    name: 'rows.pages',
    mimeType: 'text/plain',
    buffer: Buffer.from([0xff, 0xfe, 0]),
  });
  await expect(page.getByText('it is not a kind of file Bofta reads')).toBeVisible();
  const dxf = [
    0,
    'SECTION',
    2,
    'ENTITIES',
    0,
    'CIRCLE',
    8,
    'base',
    10,
    0,
    20,
    0,
    40,
    2,
    0,
    'ENDSEC',
    0,
    'EOF',
  ].join('\n');
  await input.setInputFiles({ name: 'base.dxf', mimeType: 'image/vnd.dxf', buffer: Buffer.from(dxf) });
  await page.getByRole('button', { name: 'inches', exact: true }).click();
  await expect(page.getByText('1 × base, 4 × 4 in')).toBeVisible();
  await page.getByRole('button', { name: 'Add them to the list' }).click();
  await expect(page.getByRole('link', { name: /^Bag 7 rows/ })).toBeVisible();
});

test('both ways to box a corner stand side by side', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await page.getByRole('button', { name: /^Base/ }).click();
  await page.getByRole('button', { name: 'Compare' }).click();
  const dialog = page.getByRole('dialog', { name: 'The same bag, boxed in each way' });
  await expect(dialog.getByRole('listitem').filter({ hasText: 'corners not cut out' })).toHaveCount(2);
  await expect(dialog.getByText('5½ in', { exact: true })).toHaveCount(3);
  await accessible(page);
  await dialog.getByRole('button', { name: 'Use this boxing' }).nth(2).click();
  await expect(page.getByRole('button', { name: /^Undo How the corners are boxed/ })).toBeVisible();
});

test('a bag is fitted to a thing and scaled', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await page.getByRole('button', { name: 'Fit or scale' }).click();
  await page.getByRole('button', { name: 'Compare 80, 100 and 125 %' }).click();
  // 15½ × 13¼ × 5½ at 80 and 125 %, brought to the ruler.
  await expect(page.getByRole('row', { name: /^80 12⅜ × 10⅝ × 4⅜/ })).toContainText('yd');
  await expect(page.getByRole('row', { name: /^125 19⅜ × 16⅝ × 6⅞/ })).toContainText('yd');
  await accessible(page);
  await page.getByLabel('Width of the thing').fill('10');
  await page.getByLabel('tall', { exact: true }).fill('12');
  await page.getByLabel('thick').fill('4');
  await page.getByRole('button', { name: 'Fit the bag' }).click();
  await expect(page.getByRole('link', { name: /^Bag 10½ × 13 × 4½/ })).toBeVisible();
});

test('what is at hand is not bought, what is made is measured, a seam is added', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/kneeler-duffel/buy`);
  const lengths = page.getByRole('region', { name: 'By the length and by the piece' });
  await expect(lengths).toContainText('buy webbing');
  await expect(lengths).toContainText('buy 50 cm, shorten by 4 cm');
  await type(page, 'Webbing you have', '300, 200');
  await expect(lengths).toContainText('nothing to buy');
  await expect(lengths).toContainText('from 300: 254.7 + 10 + 10, 25.3 left');
  await type(page, 'Webbing you have', '300, plenty');
  await expect(page.getByText('“plenty” is not a size')).toBeVisible();
  await accessible(page);
  // A trouser leg's lining is cut to the leg.
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await page.getByRole('button', { name: 'Another kind of bag' }).click();
  await page.getByRole('button', { name: /^Found tube/ }).click();
  await go(page, 'Pieces');
  await expect(page.getByText('cut to what is made: measure first')).toBeVisible();
  await type(page, 'Wide', '12 7/8');
  await expect(page.getByText('measured, seams included')).toBeVisible();
  await expect(page.getByText('cut to what is made: measure first')).toBeHidden();
  await page.getByRole('button', { name: 'Delete the measurement' }).click();
  await expect(page.getByText('cut to what is made: measure first')).toBeVisible();
  await page.goto(`${demo.address}/projects/tool-roll-list/bag`);
  await type(page, 'Seam to add to row 1', '3/8');
  await page.getByLabel('Shape of row 1').selectOption('free');
  await type(page, /^Corners of row 1/, '0 × 0; 16 × 0; 14 × 9 1/2; 2 × 9 1/2');
  await expect(page.getByLabel('Width of row 1')).toHaveValue('16');
  await type(page, /^Corners of row 1/, '0 × 0; 16 × 0');
  await expect(page.getByText('The outline does not hold')).toBeVisible();
  await accessible(page);
});

test('a pocket is made for a phone, and a tote has no wrong side', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/raffle-cross-body/bag`);
  await page.getByRole('button', { name: /^Pocket/ }).click();
  await page.getByRole('radio', { name: /^Slip pocket/ }).click();
  await page.getByRole('radio', { name: /^A phone/ }).click();
  await expect(page.getByLabel('Wide, finished', { exact: true })).toHaveValue('4¼');
  await accessible(page);
  // A size that is typed stays, and it is made for nothing any more.
  await type(page, 'Wide, finished', '4 1/2');
  await expect(page.getByRole('radio', { name: /^As sized/ })).toBeChecked();
  await go(page, 'Pieces');
  await expect(page.getByRole('heading', { name: /^Slip pocket/ })).toBeVisible();
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await page.getByRole('button', { name: /^Lining like/ }).click();
  await page.getByRole('radio', { name: /^Reversible/ }).click();
  await go(page, 'Pieces');
  await expect(page.getByText(/turning gap, .* long, left open in the mouth/)).toBeVisible();
});

test('a panel is pieced and quilted, measured, and the lining follows', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/pieces`);
  await page.getByRole('button', { name: 'Construction of Slip pocket: in one piece' }).click();
  const dialog = page.getByRole('dialog', { name: 'Construction of Slip pocket' });
  await dialog.getByRole('radio', { name: /^Strips/ }).click();
  await expect(page.getByText('made up: 4 strips')).toBeVisible();
  await type(page, 'Patches across', '30');
  await expect(dialog.getByText('a whole number from 1 to 20')).toBeVisible();
  await accessible(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(page.getByText('pieced from patches, then trimmed to this size')).toBeVisible();
  await expect(page.getByRole('heading', { name: /^Strip, slip pocket/ })).toHaveCount(2);
  await page.getByRole('button', { name: 'Construction of Outer panel: in one piece' }).click();
  await page.getByRole('dialog').getByText('Yes', { exact: true }).click();
  await page.keyboard.press('Escape');
  const outer = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('heading', { name: /^Outer panel/ }) });
  await expect(outer).toContainText('cut 1 over, then trimmed');
  const lining = page
    .getByRole('listitem')
    .filter({ has: page.getByRole('heading', { name: /^Lining panel/ }) });
  await expect(lining).toContainText('22 × 17');
  await outer.getByRole('textbox', { name: 'Wide' }).fill('21 3/4');
  await outer.getByRole('textbox', { name: 'Wide' }).press('Enter');
  await expect(outer).toContainText('measured, seams included');
  await expect(lining).toContainText('21¾ × 17');
  await accessible(page);
  await page.getByRole('button', { name: /^Undo Outer panel, measured/ }).click();
  await expect(lining).toContainText('22 × 17');
});

test('a banded mouth, a key loop, and a block that is fused and cut', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  await page.getByRole('button', { name: /^Mouth/ }).click();
  await page.getByRole('radio', { name: /^Band/ }).click();
  await type(page, 'Band, finished', '1 1/2');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Extras/ }).click();
  await page.getByRole('radiogroup', { name: 'A loop for keys' }).getByText('Yes').click();
  await accessible(page);
  await go(page, 'Pieces');
  await expect(page.getByRole('heading', { name: /^Band/ })).toBeVisible();
  await expect(page.getByRole('heading', { name: /^Key loop/ })).toBeVisible();
  // Its binding is longer than the cloth is wide: joined as the maker joins.
  await page.goto(`${demo.address}/projects/bottle-caddy/pieces`);
  await page.getByRole('radiogroup', { name: 'Joined' }).getByText('straight across').click();
  await expect(page.getByText(/strips joined straight across/)).toBeVisible();
  await accessible(page);
  await go(page, 'Bag');
  await page.getByRole('button', { name: /^Backing/ }).click();
  await page.getByRole('radio', { name: /^One block/ }).click();
  await go(page, 'Cut');
  // Every cut of the cloths is done: what is left is the block, fused and then cut.
  const done = page.getByRole('button', { name: 'Done, next cut' });
  await expect(page.getByRole('heading', { name: /^Cut 1 of/ })).toBeVisible();
  for (let n = 2; n < 60; n += 1) {
    if (await page.getByText(/^Block of outer. Fuse it/).isVisible()) break;
    await done.click();
    await expect(page.getByRole('heading', { name: new RegExp(`^Cut ${n} of`) })).toBeVisible();
  }
  await expect(page.getByText(/^Block of outer. Fuse it/)).toBeVisible();
  await accessible(page);
  await done.click();
  await expect(page.getByText('Cloth up, backing below. You cut both at once.')).toBeVisible();
});

test('a strap of a list says how it is folded', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/tool-roll-list/bag`);
  await page.getByLabel('Fold of row 4').selectOption('');
  await expect(page.getByText('How is it folded?')).toBeVisible();
  await expect(page.getByText(/which does not say how wide it finishes/)).toBeVisible();
  await page.getByLabel('Fold of row 4').selectOption({ label: 'Two layers: 1¼ wide when finished' });
  await expect(page.getByText('How is it folded?')).toBeHidden();
  await accessible(page);
});

test('a tote slants, is gathered and pleated, and what cannot go together says why', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/kneeler-tote/bag`);
  await page.getByRole('button', { name: /^Mouth/ }).click();
  await page.getByRole('radio', { name: /^Slanting/ }).click();
  // Nobody typed how wide the mouth is: it is a little wider than the base, and can be typed.
  await type(page, 'Wide at the mouth, laid flat', '30');
  await expect(page.getByText('Laid flat the mouth is 6½ in wider than the base.')).toBeVisible();
  await accessible(page);
  await type(page, 'Wide at the mouth, laid flat', '80');
  await expect(page.getByText(/The mouth, laid flat, is 80 in: between/)).toBeVisible();
  await type(page, 'Wide at the mouth, laid flat', '28');
  // Gathered: less than the base, or there is nothing to gather; the width that goes with it comes along.
  await page.getByRole('radio', { name: /^Gathered/ }).click();
  await expect(page.getByText(/of cloth are gathered into/)).toBeVisible();
  await page.getByRole('radio', { name: /^Inverted pleats/ }).click();
  await type(page, 'Pleats in each panel', '2');
  await expect(page.getByText(/The pleats take 8 in of each panel/)).toBeVisible();
  // A hem is as wide as the bag: it says what would do.
  await page.getByRole('radio', { name: /^Hem/ }).click();
  await expect(page.getByText(/a mouth that is finished with “Hem” is as wide as the bag/)).toBeVisible();
  await go(page, 'Pieces');
  await expect(page.getByText(/inverted pleat, a fold/).first()).toBeVisible();
  await accessible(page);
});
