// The whole path, from an empty shelf to the printed sheet, in both systems, with axe on each stage.
import { accessible, expect, go, test, type } from '../server';

for (const system of ['inches', 'centimetres'] as const) {
  const inches = system === 'inches';
  test(`from an empty shelf to the sheet in ${system}`, async ({ page, serve }) => {
    await page.goto(serve.address);
    await expect(page.getByRole('heading', { name: 'Begin with a bag' })).toBeVisible();
    await accessible(page);
    await page.getByLabel('What will it be?').fill('Own tote');
    await page.getByRole('radio', { name: system }).click();
    await page.getByRole('button', { name: 'Begin' }).click();

    // Bag
    await expect(page.getByRole('heading', { name: 'Boxed tote' })).toBeVisible();
    await type(page, 'wide, finished', inches ? '15' : '38');
    await type(page, 'tall, finished', inches ? '13' : '33');
    await type(page, 'deep, finished', inches ? '5' : '12');
    const why = page.getByRole('region', { name: 'Why a piece has its size' });
    await expect(why).toContainText(inches ? '= 16½ in' : '= 41 cm');
    await expect(page.getByLabel('Tally')).toContainText('no layout yet');
    await accessible(page);

    // Pieces
    await go(page, 'Pieces');
    await expect(page.getByRole('heading', { name: /^Outer panel/ })).toBeVisible();
    await page.getByRole('button', { name: /^Outer panel, wide/ }).click();
    await expect(page.getByRole('dialog')).toContainText(inches ? '2 × ½ side seams' : '2 × 1 side seams');
    await page.keyboard.press('Escape');
    await accessible(page);
    await page.getByRole('radio', { name: 'As a table' }).click();
    await expect(page.getByRole('rowheader', { name: 'Strap' })).toBeVisible();
    await accessible(page);

    // Lay says what is missing and leads there.
    await go(page, 'Lay');
    await page.getByRole('link', { name: 'Choose the cloth' }).click();

    // Cloth
    await page.getByLabel('Name of the new cloth').fill('Pea canvas');
    // What it is made of is asked, not assumed.
    await page.getByRole('button', { name: 'Add cloth' }).click();
    await expect(page.getByText('Choose what the cloth is made of.')).toBeVisible();
    await page.getByLabel('Material', { exact: true }).selectOption('canvas');
    await page.getByRole('button', { name: 'Add cloth' }).click();
    const cloth = page.getByRole('region', { name: 'Pea canvas' });
    await expect(cloth).toContainText('Outer, Lining, Pocket, Straps');
    await cloth.getByRole('radio', { name: 'one way up' }).click();
    await type(page, 'Wide', inches ? '54' : '140');
    await type(page, inches ? 'Price a yard' : 'Price a metre', '12.40');
    await accessible(page);

    // Lay
    await go(page, 'Lay');
    await expect(page.getByRole('img', { name: /^Pea canvas: bought/ })).toBeVisible();
    await expect(page.getByRole('region', { name: 'Other layouts' }).getByRole('button')).not.toHaveCount(0);
    await accessible(page);

    // Buy
    await go(page, 'Buy');
    await expect(page.getByText(inches ? /× ⅛ yd/ : /× 10 cm/).first()).toBeVisible();
    await expect(page.getByTestId('buy-total')).toHaveText(/^\d+\.\d\d$/);
    await accessible(page);

    // Cut
    await go(page, 'Cut');
    await expect(page.getByRole('heading', { name: /^Cut 1 of/ })).toBeVisible();
    await accessible(page);
    await page.locator('body').press('Space');
    await expect(page.getByRole('heading', { name: /^Cut 2 of/ })).toBeVisible();
    await page.locator('body').press('Backspace');
    await expect(page.getByRole('heading', { name: /^Cut 1 of/ })).toBeVisible();
    const sheet = await page.getByRole('link', { name: 'Print the sheets' }).getAttribute('href');
    const pdf = await page.request.get(serve.address + sheet);
    expect(pdf.headers()['content-type']).toBe('application/pdf');
    expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  });
}

test('the demo is cut to the end with the space bar, and the plan stays as it is meanwhile', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/bulb-sack/cut`);
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveText(/^Cut 1 of \d+$/);
  const steps = Number((await heading.textContent())?.split(' ').at(-1));
  for (let n = 2; n <= steps; n++) {
    await page.locator('body').press('Space');
    await expect(heading).toHaveText(`Cut ${n} of ${steps}`);
  }
  await page.locator('body').press('Space');
  await expect(heading).toHaveText('All cut');
  await go(page, 'Bag');
  await expect(page.getByLabel('wide, finished', { exact: true })).toBeDisabled();
  await page.getByRole('button', { name: 'Begin again' }).click();
  await type(page, 'wide, finished', '12');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByRole('link', { name: /^Bag 12 ×/ })).toBeVisible();
});
