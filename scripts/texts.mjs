import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { pathToFileURL } from 'node:url';
import ts from 'typescript';
import { root } from './lib.mjs';

/*
 * Every text that a person can see, with its place, so that all of them can be read in one go:
 * `npm run texts [-- --in packages/web]`. What is code (names, styles, statements of the database, paths) is left
 * out by what it looks like and where it stands.
 */
const PACKAGES = ['core', 'contracts', 'server', 'web', 'demo'];

function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return /^(approved|testing|proof)$/.test(entry.name) ? [] : filesIn(path);
    const isSource = /\.tsx?$/.test(entry.name) && !/\.(test|data|d)\.tsx?$/.test(entry.name);
    return isSource && entry.name !== 'fixtures.ts' ? [path] : [];
  });
}

/** Attributes and properties whose text nobody reads. */
const UNREAD =
  /^(sx|style|className|component|variant|color|size|severity|direction|align|display|to|href|path|type|role|key|id|kind|code|queryKey|operation|accept|method|format)$/;
const CALLS =
  /^(require|import|getJson|postJson|putJson|query|all|run|prepare|exec|Index|Check|MigrationInterface)$/;
const SQL =
  /^\s*(SELECT|INSERT|UPDATE|DELETE|CREATE|DROP|ALTER|PRAGMA|WITH|VACUUM|FROM|WHERE|ORDER|LEFT JOIN|AND "|"\w+"\.)/;

const STYLE =
  /var\(--|^(translate|scale|minmax|repeat|rgb)\(|\b\d+fr\b|\bpx (solid|auto|minmax)|^\d+px\b|Variable"|!important/;

function isUnread(node) {
  for (let at = node; at.parent; at = at.parent) {
    const { parent } = at;
    if (ts.isImportDeclaration(parent) || ts.isExportDeclaration(parent) || ts.isTypeNode(parent))
      return true;
    if ((ts.isJsxAttribute(parent) || ts.isPropertyAssignment(parent)) && at !== parent.name) {
      if (UNREAD.test(parent.name.getText())) return true;
    }
    if (ts.isPropertyAssignment(parent) && at === parent.name) return true;
    if (ts.isCallExpression(parent) && at !== parent.expression) {
      if (CALLS.test(parent.expression.getText().split('.').at(-1))) return true;
    }
    if (ts.isElementAccessExpression(parent)) return true;
    if (ts.isStatement(parent) || ts.isJsxElement(parent) || ts.isArrowFunction(parent)) return false;
  }
  return false;
}

/** A text as it is read, gaps as …; null for what is none. */
function textOf(node) {
  if (ts.isJsxText(node)) return node.text.replaceAll(/\s+/g, ' ').trim();
  if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) return node.text;
  if (ts.isTemplateExpression(node))
    return [node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join('…');
  return null;
}

/** Words for people: a letter, and a gap between words or a capital to begin with. */
function isForPeople(text) {
  if (!/\p{L}{2}/u.test(text) || SQL.test(text) || STYLE.test(text)) return false;
  if (/^[\w-]+$/.test(text) && !/^[A-Z][a-z]/.test(text)) return false;
  if (/^(\.{0,2}\/|https?:|#|var\(|calc\(|@|data:|[\w-]+\/[\w+-]+$)/.test(text)) return false;
  return /\s/.test(text) || /^[A-Z]/.test(text);
}

/** @returns {{ file: string, line: number, text: string }[]} */
export function texts() {
  return PACKAGES.flatMap((name) => filesIn(join(root, 'packages', name, 'src'))).flatMap((path) => {
    const source = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.ES2022, true);
    const found = [];
    const visit = (node) => {
      const text = textOf(node);
      if (text !== null && isForPeople(text) && !isUnread(node)) {
        const { line } = source.getLineAndCharacterOfPosition(node.getStart());
        found.push({ file: relative(root, path), line: line + 1, text });
      }
      if (!ts.isTypeNode(node)) ts.forEachChild(node, visit);
    };
    visit(source);
    return found;
  });
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const within = process.argv[process.argv.indexOf('--in') + 1] ?? '';
  for (const { file, line, text } of texts())
    if (!process.argv.includes('--in') || file.startsWith(within)) console.log(`${file}:${line}: ${text}`);
}
