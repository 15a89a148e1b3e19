import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { createGenerator } from 'ts-json-schema-generator';
import ts from 'typescript';
import { root } from './lib.mjs';

/*
 * Writes what every operation answers with, as JSON Schema: the types stand in the contracts as the page needs
 * them, the controllers name them, and neither is there any more when the server runs.
 */
const server = join(root, 'packages/server');
const isRoute = new Set(['Get', 'Post', 'Put']);
const imports = new Map();
const answers = [];

for (const name of readdirSync(join(server, 'src'), { recursive: true })) {
  if (!name.endsWith('.ts')) continue;
  const file = join(server, 'src', name);
  const text = readFileSync(file, 'utf8');
  if (file.endsWith('.test.ts') || !text.includes('@Controller(')) continue;
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  const named = new Map();
  ts.forEachChild(source, (node) => {
    if (ts.isImportDeclaration(node)) {
      const from = node.moduleSpecifier.text;
      for (const { name } of node.importClause?.namedBindings?.elements ?? []) named.set(name.text, from);
    }
    if (!ts.isClassDeclaration(node)) return;
    for (const member of node.members) {
      const decorators = ts.canHaveDecorators(member) ? (ts.getDecorators(member) ?? []) : [];
      const isOne = decorators.some(({ expression }) => isRoute.has(expression.expression?.getText(source)));
      if (!isOne || !member.type) continue;
      const type = member.type.getText(source).replace(/^Promise<([\s\S]*)>$/, '$1');
      if (type === 'void') continue;
      answers.push({ name: `${node.name.text}.${member.name.getText(source)}`, type });
      for (const [word] of type.matchAll(/\b[A-Z]\w+/g)) {
        const from = named.get(word);
        if (from) imports.set(word, from.startsWith('.') ? null : from);
      }
    }
  });
}

const known = answers.filter(({ type }) =>
  [...type.matchAll(/\b[A-Z]\w+/g)].every(([word]) => imports.get(word)),
);
const lines = [
  ...[...imports].flatMap(([name, from]) => (from ? [`import type { ${name} } from '${from}';`] : [])),
  ...known.map(({ name, type }) => `export type ${name.replace('.', '__')} = ${type};`),
];
mkdirSync(join(server, 'dist'), { recursive: true });
const made = join(server, 'dist/answers.made.ts');
writeFileSync(made, `${lines.join('\n')}\n`);
try {
  const { definitions } = createGenerator({
    path: relative(process.cwd(), made),
    tsconfig: join(server, 'tsconfig.json'),
    type: '*',
    expose: 'all',
    jsDoc: 'extended',
    skipTypeCheck: true,
    additionalProperties: true,
  }).createSchema('*');
  writeFileSync(join(server, 'dist/answers.json'), JSON.stringify(named(definitions)));
  console.log(`${known.length} of ${answers.length} operations say what they answer with.`);
} finally {
  rmSync(made, { force: true });
}

/** With names that the interface's description allows: no brackets, nothing encoded. */
function named(definitions) {
  const allowed = (name) => decodeURIComponent(name).replaceAll(/[^A-Za-z0-9._-]+/g, '_');
  const text = JSON.stringify(definitions, (key, value) =>
    key === '$ref' ? `#/components/schemas/${allowed(value.replace('#/definitions/', ''))}` : value,
  );
  return Object.fromEntries(
    Object.entries(JSON.parse(text)).map(([name, schema]) => [allowed(name), schema]),
  );
}
