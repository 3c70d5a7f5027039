// Ways of dressing the bag, kept and held beside each other.
import { accessible, expect, test } from '../server';

test('two ways are kept, compared and taken, and two cloths change places with one key', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  await page.getByText('Compare cloths').click();
  const now = page.getByRole('listitem', { name: /in use now$/ });
  await expect(now).toContainText('Bean-flower canvas: outer, straps');
  await page.getByLabel('Save these cloths as').fill('As drawn');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Saved as As drawn' })).toBeDisabled();
  // Not while one types.
  await page.getByLabel('Save these cloths as').press('x');
  await expect(now).toContainText('Bean-flower canvas: outer, straps');
  await page.getByLabel('Save these cloths as').fill('');
  await page.getByRole('heading', { name: 'Cloth', exact: true }).click();
  await page.keyboard.press('x');
  await expect(now).toContainText('Oat ticking: outer');
  const kept = page.getByRole('listitem', { name: 'As drawn', exact: true });
  await expect(kept).toContainText(/yd/);
  await accessible(page);
  // Kept twice is refused, with the reason.
  await page.getByLabel('Save these cloths as').fill('As drawn');
  await page.keyboard.press('Enter');
  await expect(page.getByText('There is a try “As drawn” already')).toBeVisible();
  await kept.getByRole('button', { name: 'Use these cloths' }).press('Enter');
  await expect(now).toContainText('Bean-flower canvas: outer, straps');
  await expect(now).toContainText('As drawn');
  await page.keyboard.press('Control+z');
  await expect(now).toContainText('Oat ticking: outer');
  await kept.getByRole('button', { name: 'Delete As drawn' }).click();
  await expect(kept).toHaveCount(0);
});
