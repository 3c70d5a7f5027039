// On a phone: nothing leaves the screen at the right, every stage is read without scrolling sideways, and what is pressed is
// large enough for a thumb.
import { accessible, expect, test } from '../server';

const STAGES = ['bag', 'pieces', 'cloth', 'lay', 'buy', 'cut', 'make'];
const PROJECTS = ['harvest-tote', 'crate-pouch', 'kneeler-duffel', 'tool-roll-list', 'flower-show-tote'];

test.use({ viewport: { width: 400, height: 800 } });

/** What reaches beyond the right edge of the screen and cannot be scrolled to within a box of its own. */
const beyond = () => {
  const wide = document.documentElement.clientWidth;
  const scrolls = (el: Element | null): boolean => {
    for (let at = el; at && at !== document.body; at = at.parentElement) {
      if (['auto', 'scroll', 'hidden'].includes(getComputedStyle(at).overflowX)) return true;
    }
    return false;
  };
  const found: string[] = [];
  if (document.documentElement.scrollWidth > wide + 1)
    found.push(`the page is ${document.documentElement.scrollWidth} wide`);
  for (const el of document.querySelectorAll('button, a, input, select, h1, h2, h3, p')) {
    const box = el.getBoundingClientRect();
    if (box.width > 0 && box.right > wide + 1 && !scrolls(el)) {
      found.push(`${el.tagName} ${(el.textContent ?? '').slice(0, 40)} ends at ${Math.round(box.right)}`);
    }
  }
  return found;
};

/** Buttons that stand by themselves and are smaller than 24 px either way (WCAG 2.2, 2.5.8). */
const small = () =>
  [...document.querySelectorAll('button')]
    .map((el) => ({ el, box: el.getBoundingClientRect() }))
    .filter(
      ({ el, box }) =>
        box.width > 0 && (box.width < 24 || box.height < 24) && !el.closest('p, li, summary, label'),
    )
    .map(
      ({ el, box }) =>
        `${el.textContent ?? el.ariaLabel} ${Math.round(box.width)} × ${Math.round(box.height)}`,
    );

for (const project of PROJECTS) {
  test(`every stage of ${project} fits a narrow screen`, async ({ page, demo }) => {
    for (const stage of STAGES) {
      await page.goto(`${demo.address}/projects/${project}/${stage}`);
      await expect(page.getByRole('main')).toBeVisible();
      await page.waitForLoadState('networkidle');
      expect(await page.evaluate(beyond), `${project}, ${stage}`).toEqual([]);
      expect(await page.evaluate(small), `${project}, ${stage}`).toEqual([]);
    }
  });
}

test('every sheet of options lies on the screen, from its heading on', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  const cards = page.getByRole('button', { expanded: false }).filter({ has: page.locator('svg') });
  for (const name of ['Base', 'Mouth', 'Straps', 'Lining', 'Backing', 'Seams', 'Extras']) {
    await cards.filter({ hasText: new RegExp(`^${name}`) }).click();
    const sheet = page.getByRole('dialog', { name });
    await expect(sheet).toBeVisible();
    const box = await sheet.boundingBox();
    expect(box && box.y >= 0 && box.y + box.height <= 800, `${name}: ${JSON.stringify(box)}`).toBe(true);
    await page.keyboard.press('Escape');
    await expect(sheet).toHaveCount(0);
  }
});

test.describe('on a tablet', () => {
  test.use({ viewport: { width: 800, height: 1000 } });

  test('every stage fits it', async ({ page, demo }) => {
    for (const stage of STAGES) {
      await page.goto(`${demo.address}/projects/harvest-tote/${stage}`);
      await expect(page.getByRole('main')).toBeVisible();
      await page.waitForLoadState('networkidle');
      expect(await page.evaluate(beyond), stage).toEqual([]);
    }
  });
});

test('shelf, cupboard and drawer fit a narrow screen', async ({ page, demo }) => {
  for (const path of ['/', '/cupboard', '/drawer']) {
    await page.goto(demo.address + path);
    await expect(page.getByRole('main')).toBeVisible();
    await page.waitForLoadState('networkidle');
    expect(await page.evaluate(beyond), path).toEqual([]);
    expect(await page.evaluate(small), path).toEqual([]);
    await accessible(page);
  }
});
