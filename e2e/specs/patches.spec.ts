// Patches: arranged by dragging, by taps and by keys, of the cloths one names; and the bag sized by them.
import { accessible, expect, test } from '../server';

test('patches change places, take another cloth, and size the bag', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/raffle-cross-body/pieces`);
  await page.getByRole('button', { name: 'The patches of Upper' }).click();
  const sheet = page.getByRole('dialog', { name: 'The patches of Upper' });
  const patch = (n: number) => sheet.getByRole('button', { name: new RegExp(`^row 1, patch ${n}:`) });
  const [first, second] = [
    await patch(1).getAttribute('aria-label'),
    await patch(2).getAttribute('aria-label'),
  ];
  const cloth = (label: string | null) => label?.split(': ')[1] ?? '';
  expect(cloth(first)).not.toBe(cloth(second));
  await accessible(page);

  // Dragged.
  await patch(1).dragTo(patch(2));
  await expect(patch(1)).toHaveAttribute('aria-label', `row 1, patch 1: ${cloth(second)}`);
  await expect(patch(2)).toHaveAttribute('aria-label', `row 1, patch 2: ${cloth(first)}`);

  // By keys: taken up, carried one to the right, put down; Escape lets go.
  await patch(1).focus();
  await page.keyboard.press('Enter');
  await expect(patch(1)).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Escape');
  await expect(patch(1)).toHaveAttribute('aria-pressed', 'false');
  await page.keyboard.press('Enter');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(patch(1)).toHaveAttribute('aria-label', first ?? '');

  // Of another cloth, and back to turns.
  await sheet.getByRole('radio', { name: 'Chestnut faux leather (base)' }).click();
  await patch(3).click();
  await expect(patch(3)).toHaveAttribute('aria-label', 'row 1, patch 3: Chestnut faux leather (base)');
  await expect(sheet.getByText('1 Chestnut faux leather (base)')).toBeVisible();
  await sheet.getByRole('button', { name: 'alternate two cloths again' }).click();
  await expect(patch(3)).not.toHaveAttribute('aria-label', /faux leather/);

  // How big is it of these?
  await sheet.getByLabel('shows, wide').fill('3');
  await sheet.getByLabel('tall').fill('nothing');
  await sheet.getByRole('button', { name: 'Use this size' }).click();
  await expect(sheet.getByRole('alert')).toContainText('“nothing” is not a size');
  await sheet.getByLabel('tall').fill('2');
  await sheet.getByRole('button', { name: 'Use this size' }).click();
  await expect(page.getByRole('button', { name: 'The patches of Upper' })).toHaveText(
    '4 × 2 patches, each showing 3 × 2',
  );
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Undo Sized by the patches/ })).toBeVisible();
});
