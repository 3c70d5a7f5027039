// Pages of other origins, what cannot be kept, what cannot be read: as they look in the browser.
import { execFileSync } from 'node:child_process';
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer, type Server as Web } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { accessible, expect, program, test } from '../server';

/** A page of another origin on this machine that tries what a hostile page would. */
async function elsewhere(target: string): Promise<{ address: string; close: () => void }> {
  const script = `
    const tried = {};
    const attempt = async (name, work) => {
      try { tried[name] = String(await work()); } catch (e) { tried[name] = 'failed'; }
    };
    (async () => {
      await attempt('read', async () => (await fetch('${target}/api/projects')).text());
      await attempt('blind post', async () => (await fetch('${target}/api/projects', { method: 'POST', mode: 'no-cors', body: '{"name":"Planted","system":"in"}', headers: { 'content-type': 'text/plain' } })).type);
      await attempt('json post', async () => (await fetch('${target}/api/projects', { method: 'POST', body: '{"name":"Planted","system":"in"}', headers: { 'content-type': 'application/json' } })).status);
      await attempt('file', async () => (await fetch('${target}/api/cut-list/file?name=a&system=in', { method: 'POST', mode: 'no-cors', body: 'x' })).type);
      await attempt('search', () => new Promise((resolve) => { const s = new EventSource('${target}/api/projects/harvest-tote/search'); s.onopen = () => resolve('open'); s.onerror = () => resolve('closed'); }));
      await attempt('frame', () => new Promise((resolve) => { const f = document.createElement('iframe'); f.src = '${target}/'; f.onload = () => { try { resolve(f.contentDocument ? f.contentDocument.body.textContent : 'opaque'); } catch { resolve('opaque'); } }; document.body.append(f); }));
      const form = document.createElement('form');
      form.method = 'post'; form.action = '${target}/api/projects/harvest-tote/restore'; form.target = 'sink';
      const sink = document.createElement('iframe'); sink.name = 'sink'; document.body.append(sink, form); form.submit();
      await new Promise((r) => setTimeout(r, 500));
      document.title = JSON.stringify(tried);
    })();`;
  const web: Web = createServer((_, answer) => {
    answer.setHeader('content-type', 'text/html');
    answer.end(`<!doctype html><body><script>${script}</script>`);
  });
  await new Promise<void>((ready) => web.listen(0, '127.0.0.1', ready));
  const { port } = web.address() as AddressInfo;
  return { address: `http://127.0.0.1:${port}`, close: () => web.close() };
}

test('a page of another origin gets nothing and changes nothing', async ({ page, demo, request }) => {
  const other = await elsewhere(demo.address);
  const answers: number[] = [];
  page.on('response', (r) => {
    if (r.url().startsWith(`${demo.address}/api/`)) answers.push(r.status());
  });
  await page.goto(other.address);
  await expect.poll(() => page.title(), { timeout: 20_000 }).toContain('frame');
  const tried = JSON.parse(await page.title());
  expect(tried).toMatchObject({ read: 'failed', 'json post': 'failed', search: 'closed' });
  expect(tried.frame).not.toContain('Harvest');
  expect(answers.length).toBeGreaterThan(0);
  expect(answers.every((status) => status === 403 || status === 405)).toBe(true);
  const shelf = await (await request.get(`${demo.address}/api/projects`)).json();
  expect(shelf.total).toBe(17);
  expect(JSON.stringify(shelf)).not.toContain('Planted');
  other.close();
});

test('the policy lets every stage of the application work', async ({ page, demo }) => {
  const blocked: string[] = [];
  page.on('console', (m) => {
    if (/Content Security Policy|Refused to/i.test(m.text())) blocked.push(m.text());
  });
  for (const place of [
    '',
    'cupboard',
    ...['bag', 'pieces', 'cloth', 'lay', 'buy', 'cut', 'make'].map((s) => `projects/harvest-tote/${s}`),
  ]) {
    await page.goto(`${demo.address}/${place}`);
    await expect(page.locator('h1').first()).toBeAttached();
    await page.waitForLoadState('networkidle', { timeout: 3_000 }).catch(() => undefined);
  }
  expect(blocked).toEqual([]);
});

test('what was typed is held while the program is away, and kept when it is back', async ({ page, demo }) => {
  await page.goto(`${demo.address}/projects/harvest-tote/bag`);
  const name = page.getByLabel('Name of the project');
  await expect(name).toHaveValue('Harvest tote');
  await demo.kill();
  await name.fill('Harvest tote, the large one');
  await name.press('Enter');
  await expect(page.getByText('Not saved yet.')).toBeVisible();
  await accessible(page);
  await page.screenshot({ path: test.info().outputPath('not-kept-yet.png') });
  // The demo begins anew with its own projects: the edit then finds the project as it was.
  await demo.start();
  await page.getByRole('button', { name: 'Save now' }).click();
  await expect(page.getByText('Not saved yet.')).toBeHidden();
  await page.reload();
  await expect(page.getByLabel('Name of the project')).toHaveValue('Harvest tote, the large one');
});

test('a file that cannot be read leaves nothing of the one before', async ({ page, serve }) => {
  await page.goto(serve.address);
  await page.getByLabel('What will it be?').fill('From a file');
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('button', { name: 'Another kind of bag' }).click();
  await page.getByRole('button', { name: /^Own cut list/ }).click();
  const file = page.locator('input[type=file]');
  await file.setInputFiles({
    name: 'list.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('2 x 15 x 16 outer'),
  });
  await expect(page.getByText('1 row read')).toBeVisible();
  const far = Buffer.from(
    `${'<svg xmlns="http://www.w3.org/2000/svg">'}${'<g>'.repeat(3000)}${'</g>'.repeat(3000)}</svg>`,
  );
  await file.setInputFiles({ name: 'deep.svg', mimeType: 'image/svg+xml', buffer: far });
  await expect(page.getByText('more than 100 elements in each other')).toBeVisible();
  await expect(page.getByText('1 row read')).toBeHidden();
  await accessible(page);
});

test('a long shelf is drawn as it scrolls and found by name', async ({ page, serve, request }) => {
  for (let n = 0; n < 60; n++) {
    const name = `Pouch ${String(n).padStart(2, '0')}`;
    await request.post(`${serve.address}/api/projects`, { data: { name, system: 'in' } });
  }
  await page.goto(serve.address);
  await expect(page.getByText('Pouch 59')).toBeVisible();
  await expect(page.getByText('Pouch 00')).toBeHidden();
  for (let i = 0; i < 8; i++) {
    await page.mouse.wheel(0, 4000);
    await page.waitForTimeout(150);
  }
  await expect(page.getByText('Pouch 00')).toBeVisible();
  await page.getByLabel('Find a project by its name').fill('pouch 17');
  await expect(page.getByRole('link', { name: /Pouch/ })).toHaveCount(1);
  await page.getByLabel('Find a project by its name').fill('no such bag');
  await expect(page.locator('p', { hasText: 'No project is called “no such bag”.' })).toBeVisible();
  await accessible(page);
});

test('a damaged database is told on a page that brings a copy back', async ({ page, serve, request }) => {
  await request.post(`${serve.address}/api/projects`, { data: { name: 'Kept', system: 'in' } });
  const { database } = serve;
  mkdirSync(join(serve.folder, 'backups'));
  execFileSync(program, [
    'backup',
    join(serve.folder, 'backups', 'bofta-2026-11-25T18-00-00.000.db'),
    '--data',
    serve.folder,
  ]);
  // Ended in order, all of it is in the one file; then a disk fails in its middle.
  await serve.end();
  const bytes = readFileSync(database);
  bytes.fill(0x5a, bytes.length / 2, bytes.length / 2 + 8192);
  writeFileSync(database, bytes);
  await serve.start();
  await page.goto(`${serve.address}/projects/x/bag`);
  await expect(page.getByRole('heading', { name: 'Your data is damaged' })).toBeVisible();
  await accessible(page);
  await page.getByRole('button', { name: 'Restore this copy' }).last().click();
  await expect(page.getByRole('heading', { name: 'The copy is restored' })).toBeVisible();
  await expect(page.getByText('Kept')).toBeVisible();
  expect(readdirSync(serve.folder).some((name) => name.includes('set-aside'))).toBe(true);
});
