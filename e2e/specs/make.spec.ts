// The Make stage: steps ticked off by keyboard and by hand, taken back, printed, and notes that are kept.
import { accessible, expect, go, test } from '../server';

test('a bag is sewn step by step, by the keyboard alone', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/make`);
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveText(/^Step 1 of \d+$/);
  await accessible(page);
  const steps = Number((await heading.textContent())?.split(' ').at(-1));
  const hand = page.getByRole('region', { name: 'This step' });
  // A look ahead changes nothing.
  await page.locator('body').press('ArrowDown');
  await expect(heading).toHaveText(`Step 2 of ${steps}`);
  await page.locator('body').press('ArrowUp');
  for (let n = 2; n <= steps; n++) {
    await page.locator('body').press('Space');
    await expect(heading).toHaveText(`Step ${n} of ${steps}`);
    if ((await hand.textContent())?.startsWith('Join the outer')) {
      await expect(hand.getByRole('list', { name: 'Seams of this step' })).toContainText('½ in');
      await accessible(page);
    }
  }
  await page.locator('body').press('Space');
  await expect(heading).toHaveText('Made');
  await expect(page.getByRole('link', { name: new RegExp(`^Make ${steps} of ${steps}`) })).toBeVisible();
  await accessible(page);
  await page.locator('body').press('Backspace');
  await expect(heading).toHaveText(`Step ${steps} of ${steps}`);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(heading).toHaveText('Made');
  // Another is sewn by the same steps; one undo brings every tick back.
  await page.getByRole('button', { name: 'Sew another one' }).click();
  await expect(heading).toHaveText(`Step 1 of ${steps}`);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(heading).toHaveText('Made');
  // A tick by hand, and the way back.
  const first = page.getByRole('checkbox').first();
  await first.click();
  await expect(first).not.toBeChecked();
  await expect(heading).toHaveText(`Step 1 of ${steps}`);
  const sheet = await page.getByRole('link', { name: 'Print the steps' }).getAttribute('href');
  const pdf = await page.request.get(demo.address + sheet);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
});

test('notes are kept when they are left, come back, are undone, and too long ones stay typed', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/harvest-tote/make`);
  const notes = page.getByRole('textbox', { name: 'Notes' });
  await notes.fill('Walk the foot over the corners.\nNeedle 90');
  // Keys of the stage are letters here.
  await notes.press('Space');
  await go(page, 'Cut');
  await go(page, 'Make');
  await expect(notes).toHaveValue('Walk the foot over the corners.\nNeedle 90');
  await notes.fill('x'.repeat(4001));
  await notes.blur();
  await expect(page.getByRole('alert')).toContainText('At most 4000 are allowed');
  await expect(notes).toHaveValue('x'.repeat(4001));
  await page.reload();
  await expect(notes).toHaveValue('Walk the foot over the corners.\nNeedle 90');
  await page.getByRole('button', { name: /^Undo Notes/ }).click();
  await expect(notes).toHaveValue('');
});

test('a cut list of one’s own says why it has no steps, and takes those one writes', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  const response = await page.request.post(`${demo.address}/api/projects`, {
    data: { name: 'Own list', system: 'in', family: 'cut-list' },
  });
  const { id } = await response.json();
  await page.goto(`${demo.address}/projects/${id}/make`);
  await expect(page.getByText('says what to cut, not how to sew it')).toBeVisible();
  await accessible(page);
  const own = page.getByRole('textbox', { name: 'Steps of your own' });
  await own.fill('Hem  the flap.\n\nSew on the ties.');
  await own.blur();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Step 1 of 2');
  await expect(own).toHaveValue('Hem the flap.\nSew on the ties.');
  // The tick stands once it is kept.
  const second = page.getByRole('checkbox', { name: '2. Sew on the ties.' });
  await second.click();
  await expect(second).toBeChecked();
  await expect(page.getByRole('link', { name: /^Make 1 of 2/ })).toBeVisible();
});
