// Takes the pictures of docs/screenshots from a demo that is being served: node docs/screenshots/take.mjs [ADDRESS].
import { execFileSync } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '../../e2e/node_modules/@playwright/test/index.mjs';

const address = process.argv[2] ?? 'http://127.0.0.1:4747';
const folder = import.meta.dirname;
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});

async function take(name, path, width = 1280, height = 800, before = async () => {}) {
  const page = await browser.newPage({ viewport: { width, height } });
  await page.goto(address + path);
  await page.waitForLoadState('networkidle');
  await before(page);
  await page.waitForTimeout(400);
  await page.screenshot({ path: join(folder, `${name}.png`) });
  await page.close();
}

await take('shelf', '/');
await take('cupboard', '/cupboard', 1280, 1480);
await take('bag', '/projects/harvest-tote/bag');
await take('parts', '/projects/potting-bench-tote/bag?part=1');
await take('bands', '/projects/sowing-day-tote/bag');
await take('families', '/projects/seed-packet-pouch/bag', 1280, 800, async (page) => {
  await page.getByRole('button', { name: 'Another kind of bag' }).click();
  await page.getByText('Own cut list').waitFor();
});
await take('bag-caddy', '/projects/bottle-caddy/bag');
await take('cut-list', '/projects/tool-roll-list/bag');
await take('pieces', '/projects/seed-packet-pouch/pieces');
await take('print', '/projects/flower-show-tote/pieces', 1280, 800, async (page) => {
  await page.getByRole('button', { name: /^Place Outer panel/ }).click();
  await page.getByText(/Cost of this placement/).waitFor();
});
await take('cloth', '/projects/windfall-tote/cloth', 1280, 940, async (page) => {
  await page.getByRole('heading', { name: 'Ways out' }).waitFor();
});
await take('scrap', '/projects/crate-pouch/cloth', 1280, 800, async (page) => {
  await page.getByRole('button', { name: 'Edit scrap A' }).first().click();
  await page.getByText(/over all; it holds/).waitFor();
});
await take('picture', '/projects/crate-pouch/cloth', 1280, 800, async (page) => {
  await page.getByRole('button', { name: 'Scraps from a picture' }).click();
  await page.getByRole('button', { name: 'Take a picture' }).click();
  await page.getByRole('button', { name: /^Mark upper left/ }).waitFor();
  // Where the mat's corners are on the first picture of the stand-in, from where the marks begin.
  const corners = { 'upper left': [7, 24], 'upper right': [-6, 12], 'lower right': [8, -12], 'lower left': [-8, -22] };
  for (const [name, [x, y]] of Object.entries(corners)) {
    const mark = page.getByRole('button', { name: new RegExp(`^Mark ${name}`) });
    for (let k = 0; k < Math.abs(x); k++) await mark.press(x > 0 ? 'ArrowRight' : 'ArrowLeft');
    for (let k = 0; k < Math.abs(y); k++) await mark.press(y > 0 ? 'ArrowDown' : 'ArrowUp');
  }
  await page.getByRole('button', { name: 'Find the scraps' }).click();
  await page.getByText(/outlines to/).waitFor();
});
await take('lay', '/projects/harvest-tote/lay');
await take('buy', '/projects/kneeler-duffel/buy', 1280, 940);
await take('cut', '/projects/harvest-tote/cut', 1280, 800, async (page) => {
  for (let n = 2; n <= 7; n++) {
    await page.locator('body').press('Space');
    await page.getByRole('heading', { name: `Cut ${n} of` }).waitFor();
  }
});
await take('make', '/projects/potting-bench-tote/make');
await take('phone', '/projects/harvest-tote/lay', 400, 800);
await browser.close();

// The sheet's second page, by poppler.
const pdf = join(folder, 'sheet.pdf');
writeFileSync(
  pdf,
  Buffer.from(await (await fetch(`${address}/api/projects/harvest-tote/cut-sheet.pdf`)).arrayBuffer()),
);
execFileSync('pdftoppm', [
  '-r',
  '90',
  '-f',
  '2',
  '-l',
  '2',
  '-singlefile',
  '-png',
  pdf,
  join(folder, 'sheet'),
]);
rmSync(pdf);
