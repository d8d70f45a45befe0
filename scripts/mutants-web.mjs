// Breaks the front end's modules in small ways, one at a time, and says which of
// them e2e/modules.test.ts doesn't notice. Places are drawn by seed over the modules
// that it imports. It works on a copy; the tree stays as it is.
//
//   node scripts/mutants-web.mjs [how many] [seed]
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '..');
const ts = createRequire(path.join(root, 'e2e/package.json'))('typescript');
const [many = '40', seed = '1'] = process.argv.slice(2);

const copy = mkdtempSync(path.join(tmpdir(), 'mutants-web-'));
process.on('exit', () => rmSync(copy, { recursive: true, force: true }));
const notModules = (from) => path.basename(from) !== 'node_modules';
for (const dir of ['web/src', 'e2e', 'core/measure'])
  cpSync(path.join(root, dir), path.join(copy, dir), { recursive: true, filter: notModules });
for (const dir of ['web', 'e2e'])
  symlinkSync(path.join(root, dir, 'node_modules'), path.join(copy, dir, 'node_modules'));
cpSync(path.join(root, 'web/package.json'), path.join(copy, 'web/package.json'));

const tests = readFileSync(path.join(root, 'e2e/modules.test.ts'), 'utf8');
const modules = [...tests.matchAll(/^(?:import (?!type).*|\}) from '\.\.\/(web\/src\/[^']+)'/gm)].map((m) => `${m[1]}.ts`);

const K = ts.SyntaxKind;
const swaps = new Map([
  [K.LessThanToken, '<='], [K.LessThanEqualsToken, '<'], [K.GreaterThanToken, '>='], [K.GreaterThanEqualsToken, '>'],
  [K.EqualsEqualsEqualsToken, '!=='], [K.ExclamationEqualsEqualsToken, '==='], [K.AmpersandAmpersandToken, '||'],
  [K.BarBarToken, '&&'], [K.PlusToken, '-'], [K.MinusToken, '+'], [K.AsteriskToken, '/'], [K.SlashToken, '*'],
]);

/** The mutants of a file: an operator for its neighbour, a number off by a fifth, a condition that is never met. */
function mutants(file) {
  const text = readFileSync(path.join(copy, file), 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const out = [];
  const add = (node, is) =>
    out.push({ file, text, from: node.getStart(), to: node.getEnd(), is, line: source.getLineAndCharacterOfPosition(node.getStart()).line + 1 });
  const joins = (node) => ts.isStringLiteralLike(node) || ts.isTemplateExpression(node);
  const visit = (node) => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node)) return;
    if (ts.isBinaryExpression(node) && swaps.has(node.operatorToken.kind) && !joins(node.left) && !joins(node.right))
      add(node.operatorToken, swaps.get(node.operatorToken.kind));
    if (ts.isNumericLiteral(node) && Number(node.text) > 1) add(node, String(Number(node.text) * 1.2));
    if (ts.isIfStatement(node)) add(node.expression, `(${node.expression.getText()}) && false`);
    if (ts.isConditionalExpression(node)) add(node.condition, `!(${node.condition.getText()})`);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return out;
}

/** mulberry32 */
function dice(state) {
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

const run = () =>
  spawnSync('npx', ['playwright', 'test', '--config', 'playwright.modules.ts', '--reporter=dot', '-x'], { cwd: path.join(copy, 'e2e') }).status;
if (run() !== 0) throw new Error('the tests fail before anything is broken');

const all = modules.flatMap(mutants);
const roll = dice(Number(seed));
const drawn = all.map((m) => [roll(), m]).sort(([a], [b]) => a - b).slice(0, Number(many)).map(([, m]) => m);
let caught = 0;
for (const m of drawn) {
  writeFileSync(path.join(copy, m.file), m.text.slice(0, m.from) + m.is + m.text.slice(m.to));
  const survived = run() === 0;
  writeFileSync(path.join(copy, m.file), m.text);
  if (!survived) caught++;
  console.log(`${survived ? 'survived' : 'caught  '}  ${m.file}:${m.line}: ${m.text.slice(m.from, m.to)} -> ${m.is}`);
}
console.log(`caught ${caught} of ${drawn.length}, drawn from ${all.length} places in ${modules.length} modules`);
