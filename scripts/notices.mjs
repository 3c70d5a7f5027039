// Writes THIRD-PARTY.md: every package the program and its screens are built from, with its licence. With --check it
// only says whether the file is up to date and every licence is one that is allowed (deny.toml has the list).
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const allowed = new Set(
  [...readFileSync('deny.toml', 'utf8').split('allow = [')[1].split(']')[0].matchAll(/"([^"]+)"/g)].map((m) => m[1]),
);
/** Whether a licence expression (SPDX) can be met with what is allowed. */
const isMet = (expression) =>
  expression
    .replaceAll('/', ' OR ')
    .replaceAll(/[()]/g, ' ')
    .split(' OR ')
    .some((part) => part.split(' AND ').every((one) => allowed.has(one.trim())));

const metadata = JSON.parse(
  execFileSync('cargo', ['metadata', '--format-version', '1', '--locked', '--filter-platform', 'x86_64-unknown-linux-gnu'], {
    maxBuffer: 1 << 28,
    encoding: 'utf8',
  }),
);
// What the program itself is made of: no packages that only its tests need.
const nodes = new Map(metadata.resolve.nodes.map((n) => [n.id, n]));
const root = metadata.packages.find((p) => p.name === 'bofta');
const reached = new Set();
const waiting = [root.id];
while (waiting.length > 0) {
  const id = waiting.pop();
  if (reached.has(id)) continue;
  reached.add(id);
  for (const d of nodes.get(id)?.deps ?? []) {
    if (d.dep_kinds.some((k) => k.kind === null)) waiting.push(d.pkg);
  }
}
const rust = metadata.packages
  .filter((p) => reached.has(p.id) && p.source)
  .map((p) => ({ name: p.name, version: p.version, licence: p.license ?? 'see its files' }));

const lock = JSON.parse(readFileSync('web/package-lock.json', 'utf8')).packages;
const web = Object.entries(lock)
  .filter(([path, p]) => path !== '' && !p.dev && !p.optional)
  .map(([path, p]) => ({ name: path.split('node_modules/').at(-1), version: p.version, licence: p.license ?? 'see its files' }));

const by = (a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.version < b.version ? -1 : 1);
const table = (all) => ['| Package | Version | Licence |', '|---|---|---|', ...all.sort(by).map((p) => `| ${p.name} | ${p.version} | ${p.licence} |`)].join('\n');
const text = `# What Bofta is built from

Made by \`node scripts/notices.mjs\`. Each package is under its own licence, whose text is in its source.

## The program

${table(rust)}

## The screens

${table(web)}

## Fonts

Alegreya Sans and Bricolage Grotesque, SIL Open Font License 1.1: the texts are beside them in \`crates/formats/fonts\`.
`;
const unmet = [...rust, ...web].filter((p) => !isMet(p.licence));
for (const p of unmet) console.error(`${p.name} ${p.version}: ${p.licence} is not among the licences of deny.toml`);
if (process.argv.includes('--check')) {
  const current = existsSync('THIRD-PARTY.md') && readFileSync('THIRD-PARTY.md', 'utf8') === text;
  if (!current) console.error('THIRD-PARTY.md is out of date: node scripts/notices.mjs');
  process.exit(current && unmet.length === 0 ? 0 : 1);
}
writeFileSync('THIRD-PARTY.md', text);
process.exit(unmet.length === 0 ? 0 : 1);
