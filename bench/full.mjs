// Measures a full data folder: 2,000 projects and 20,000 cloths made from the demo's, then the shelf, the cupboard, a
// change, ordinary requests beside searches, and memory over some minutes of use.
//
//   scripts/measure [seconds of steady use]        (needs sqlite3)
import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const program = process.env.BOFTA_PROGRAM ?? 'target/debug/bofta';
const steady = Number(process.argv[2] ?? 60);
const folder = mkdtempSync(join(tmpdir(), 'bofta-full-'));
const pause = (ms) => new Promise((r) => setTimeout(r, ms));

async function start(command) {
  const begun = performance.now();
  const child = spawn(program, [command, '--listen', '127.0.0.1:0', '--data', folder], { stdio: ['ignore', 'pipe', 'ignore'] });
  const address = await new Promise((resolve) => child.stdout.on('data', (t) => resolve(String(t).trim().split(' ').at(-1))));
  await fetch(`${address}/api/projects`);
  return { child, address, ms: performance.now() - begun };
}
const stop = (child) => new Promise((resolve) => { child.on('exit', resolve); child.kill('SIGTERM'); });
const sql = (text) => execFileSync('sqlite3', [join(folder, 'bofta.db')], { input: text, encoding: 'utf8' });

// The demo's projects and lays, over and over under other names.
const demo = await start('demo');
await stop(demo.child);
execFileSync('mv', [join(folder, 'demo.db'), join(folder, 'bofta.db')]);
sql(`
  CREATE TEMP TABLE n AS WITH RECURSIVE c(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM c WHERE i < 199) SELECT i FROM c;
  INSERT INTO projects SELECT id || '-' || i, 1, 0, changed_at - i, 0, name || ' ' || i FROM projects, n;
  INSERT INTO states SELECT project_id || '-' || i, 0, label, json_set(document, '$.document.name', json_extract(document, '$.document.name') || ' ' || i)
    FROM states, n WHERE (project_id, position) IN (SELECT id, position FROM projects);
  INSERT INTO lays SELECT project_id || '-' || i, job_key, document, failed FROM lays, n;
  CREATE TEMP TABLE m AS WITH RECURSIVE c(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM c WHERE i < 20000) SELECT i FROM c;
  INSERT INTO cloths SELECT id || '-' || i, json_set(document, '$.document.id', id || '-' || i), name || ' ' || i
    FROM (SELECT * FROM cloths LIMIT 1), m;`);

const { child, address, ms } = await start('serve');
const get = async (path, init) => {
  const begun = performance.now();
  const answer = await fetch(address + path, init);
  const body = await answer.json();
  return { ms: performance.now() - begun, body };
};
const memory = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))[1]) / 1024;
const line = (name, value) => console.log(`${name.padEnd(52)} ${value}`);
const show = (v) => `${v.toFixed(0)} ms`;
const best = (times) => `${show(times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)])} (slowest ${show(Math.max(...times))})`;
const several = async (n, ask) => {
  const times = [];
  for (let i = 0; i < n; i++) times.push((await ask(i)).ms);
  return times;
};

line('start to first answer', show(ms));
line('memory, idle', `${memory().toFixed(0)} MB`);
line('shelf, 24 cards drawn first', show((await get('/api/projects?from=900')).ms));
line('shelf, 2,000 projects', best(await several(20, () => get('/api/projects'))));
line('found by name', best(await several(20, () => get('/api/projects?find=onion'))));
line('cupboard, 20,000 cloths', best(await several(20, (i) => get(`/api/cupboard?from=${i * 900}`))));
const id = 'harvest-tote-7';
let revision = (await get(`/api/projects/${id}`)).body.revision;
const change = async (i) => {
  const body = JSON.stringify({ based_on: revision, edits: [{ edit: 'bag', field: 'width', value: String(14 + (i % 3)) }] });
  const answer = await get(`/api/projects/${id}/edits`, { method: 'POST', headers: { 'content-type': 'application/json' }, body });
  revision = answer.body.revision ?? revision;
  return answer;
};
line('a change', best(await several(20, change)));
line('the shelf after a change', show((await get('/api/projects')).ms));

async function beside(count) {
  const searches = Array.from({ length: count }, () => new AbortController());
  for (const s of searches) fetch(`${address}/api/projects/bottle-caddy/search?seconds=60`, { signal: s.signal }).then((a) => a.text()).catch(() => 0);
  await pause(300);
  const times = [];
  for (let i = 0; i < 60; i++) {
    times.push((await get(`/api/projects/${id}`)).ms, (await get('/api/projects')).ms, (await change(i)).ms);
  }
  for (const s of searches) s.abort();
  times.sort((a, b) => a - b);
  line(`ordinary requests beside ${count} searches`, `p99 ${show(times[Math.floor(times.length * 0.99)])}, median ${show(times[times.length >> 1])}`);
  await pause(500);
}
await beside(1);
await beside(50);

const before = memory();
const until = Date.now() + steady * 1000;
let requests = 0;
while (Date.now() < until) {
  await Promise.all([get('/api/projects?from=' + (requests % 1900)), change(requests), get(`/api/projects/${id}/steps/3`)]);
  if (requests % 40 === 0) await get(`/api/projects/${id}/alternatives`);
  requests += 1;
}
line(`memory before and after ${requests * 3} requests in ${steady} s`, `${before.toFixed(0)} MB, ${memory().toFixed(0)} MB`);
const ending = performance.now();
await stop(child);
line('asked to end', show(performance.now() - ending));
rmSync(folder, { recursive: true });
