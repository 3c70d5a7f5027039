// Prints every sentence and label that a person can see, with the place it is written: screens, messages, paper, command
// line. For reading the whole wording in one sitting: node scripts/sentences.mjs [PART OF A PATH].
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const only = process.argv[2] ?? '';
const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard', 'crates', 'web/src'], { encoding: 'utf8' })
  .split('\n')
  .filter((f) => f.includes(only) && existsSync(f) && !/\/tests\/|generated|mutations|bench/.test(f));

/** Words, not a key, a path or a class. */
const isWording = (text) =>
  /[A-Za-zÀ-ž]{2}/.test(text) && (/\s/.test(text.trim()) || /^[A-Z]/.test(text)) && !/^[\w./:-]+$/.test(text.trim().replace(/^[A-Z][a-z]+$/, ' '));

/** String literals of Rust, comments, attributes and tests left out. */
function rust(source) {
  const found = [];
  const tests = source.indexOf('#[cfg(test)]');
  const text = tests < 0 ? source : source.slice(0, tests);
  let line = 1;
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (c === '\n') line++;
    if (text.startsWith('//', i)) {
      i = text.indexOf('\n', i) - 1;
      if (i < 0) break;
    } else if (c === "'" && /^'(\\.|[^\\'])'/.test(text.slice(i, i + 4))) {
      i += text[i + 1] === '\\' ? 3 : 2;
    } else if (c === 'r' && /^r#*"/.test(text.slice(i, i + 6)) && !/\w/.test(text[i - 1] ?? '')) {
      const fence = /^r(#*)"/.exec(text.slice(i))[1];
      const end = text.indexOf(`"${fence}`, i + fence.length + 2);
      line += text.slice(i, end).split('\n').length - 1;
      i = end + fence.length;
    } else if (c === '"') {
      let end = i + 1;
      while (text[end] !== '"') end += text[end] === '\\' ? 2 : 1;
      const before = text.slice(Math.max(0, i - 30), i);
      // What a failed expectation of the program itself says is for its log.
      if (!/(expect|path|rename|name|tag|feature|target|include_str!)\s*[(=]\s*$|serde\(.*$|cfg.*$/.test(before)) {
        found.push([line, text.slice(i + 1, end).replaceAll(/\\\n\s*/g, ' ').replaceAll('\\"', '"')]);
      }
      line += text.slice(i, end).split('\n').length - 1;
      i = end;
    }
  }
  return found;
}

const ts = createRequire(new URL('../web/package.json', import.meta.url))('typescript');
/** Texts of elements and strings of TypeScript, class names left out. */
function screens(name, source) {
  const file = ts.createSourceFile(name, source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const found = [];
  const visit = (node) => {
    if (ts.isImportDeclaration(node)) return;
    if (ts.isJsxAttribute(node) && ['className', 'class', 'd', 'to', 'href'].includes(node.name.getText())) return;
    if (ts.isJsxText(node) || ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) || ts.isTemplateExpression(node)) {
      const text = ts.isTemplateExpression(node) ? node.getText().slice(1, -1) : node.text;
      found.push([file.getLineAndCharacterOfPosition(node.getStart()).line + 1, text.replaceAll(/\s+/g, ' ').trim()]);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

let count = 0;
for (const name of files) {
  const source = readFileSync(name, 'utf8');
  const found = name.endsWith('.rs') ? rust(source) : /\.tsx?$/.test(name) ? screens(name, source) : [];
  for (const [line, text] of found.filter(([, t]) => isWording(t))) {
    console.log(`${name}:${line}\t${text}`);
    count++;
  }
}
console.error(`${count} sentences and labels`);
