// Cloth: what is there as people say it, parts put on it, ways out when it runs short, how large the bag can be.
import { accessible, expect, test } from '../server';

test('a part is cut from another cloth, by keys, by taps and by dropping', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/cloth`);
  const on = (cloth: string) => page.getByRole('listitem', { name: `${cloth} on the table` });
  const tag = (part: string) => page.getByRole('button', { name: new RegExp(`^${part}, `) });
  // By keys: taken up, put back, taken up again and put down.
  await tag('Straps').press('Enter');
  await expect(page.getByText('Straps in hand')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText('Straps in hand')).toHaveCount(0);
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
  await expect(on('Seed-dot lawn')).toContainText('nothing is cut from it');
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
  const there = page.getByLabel('What is there');
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
  const short = page.getByRole('alert', { name: 'Not the whole bag' });
  await expect(short).toContainText('2 of 7 pieces lie nowhere');
  await expect(short.getByRole('button', { name: /^Buy the rest of Plum lawn .*4\.80/ })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'How large can it be from this?' }).click();
  await expect(page.getByText(/% of what it is/)).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText('Larger, there is no place for Lining panel.')).toBeVisible();
  await short.getByRole('button', { name: /^Lining from Orchard canvas too/ }).click();
  await expect(short).toHaveCount(0);
  await expect(page.getByTestId('tally-cloth')).toHaveText('nothing to buy');
  // The answer was for the cloth as it was.
  await expect(page.getByText(/% of what it is/)).toHaveCount(0);
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
  await left.getByRole('button', { name: 'Put it in the cupboard' }).press('Enter');
  await expect(left).toContainText('It is in the cupboard.');
  await page.goto(`${demo.address}/cupboard`);
  const dot = page.getByRole('listitem').filter({ hasText: 'Radish dot' });
  await expect(dot).toContainText(/fat quarter, .* in here/);
  await dot.getByText('What was cut of it').click();
  await expect(dot).toContainText('Swap-table pouch took fat quarter, left');
  await page.goto(`${demo.address}/projects/swap-table-pouch/cut`);
  await left.getByRole('button', { name: 'Take it out again' }).click();
  await expect(left.getByRole('button', { name: 'Put it in the cupboard' })).toBeVisible();
  await page.goto(`${demo.address}/cupboard`);
  await expect(dot).toContainText('2 fat quarters here');
});
