// How soon a change is on the screen: changes the depth by half an inch over and over on the demo's project that has the
// most pieces and measures, in the browser, from Enter to the new piece, lay, purchase and tally being there.
// node bench/screen.mjs [ADDRESS [PROJECT]] with a demo being served; PROJECT has a body with a depth.
import { chromium } from '../e2e/node_modules/@playwright/test/index.mjs';

const address = process.argv[2] ?? 'http://127.0.0.1:4747';
const project = process.argv[3] ?? 'harvest-tote';
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto(`${address}/projects/${project}/bag`);
const field = page.getByLabel('deep, finished', { exact: true });
await field.waitFor();
const times = [];
for (let n = 0; n < 20; n++) {
  const depth = n % 2 === 0 ? '6' : '5 1/2';
  const shown = n % 2 === 0 ? '× 6' : '× 5½';
  await field.fill(depth);
  times.push(
    await page.evaluate(
      ([shown]) =>
        new Promise((resolve) => {
          const tape = document.querySelector('nav[aria-label="Stages of the work"]');
          const tally = document.querySelector('aside[aria-label="Tally"]');
          const before = tape.textContent;
          const input = document.activeElement;
          const start = performance.now();
          // Tape (sizes, pieces, lay, purchase) and tally are drawn from one answer, in one commit.
          const observer = new MutationObserver(() => {
            if (tape.textContent !== before && tape.textContent.includes(shown) && tally.textContent) {
              observer.disconnect();
              requestAnimationFrame(() => resolve(performance.now() - start));
            }
          });
          observer.observe(document.body, { subtree: true, childList: true, characterData: true });
          input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
        }),
      [shown],
    ),
  );
}
times.sort((a, b) => a - b);
const at = (share) => `${times[Math.floor(share * (times.length - 1))].toFixed(0)} ms`;
console.log(`a change of depth on the screen: median ${at(0.5)}, slowest ${at(1)}, of ${times.length}`);
await browser.close();
