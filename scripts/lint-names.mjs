// Refuses what no rule of the linter sees: what makes names and documentation ambiguous, and a clock in the core.
// - an exported name that is declared in more than one file (one word, one meaning: docs/glossary.md);
// - a file header written as `/** */`, which editors show as the documentation of the next declaration;
// - a `/** */` block that documents nothing, because another block or a blank line follows it;
// - `new Date()` in the core, which has no clock: the time is an argument.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import ts from 'typescript';

const files = execFileSync('git', ['ls-files', 'packages/**/*.ts', 'apps/**/*.ts', 'apps/**/*.tsx'])
  .toString()
  .trim()
  .split('\n')
  .filter((file) => !/\.test\.tsx?$|\/test\/|\.d\.ts$/.test(file));

const problems = [];
const declaredIn = new Map();

for (const file of files) {
  const text = readFileSync(file, 'utf8');
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
  for (const statement of source.statements) {
    for (const name of exportedNames(statement)) {
      const places = declaredIn.get(name) ?? new Set();
      declaredIn.set(name, places.add(file));
    }
  }
  problems.push(...looseBlocks(file, text, source));
  if (file.startsWith('packages/core/') && text.includes('new Date()'))
    problems.push(`${file}: new Date() in the core, which has no clock: take the time as an argument`);
}

for (const [name, places] of declaredIn)
  if (places.size > 1)
    problems.push(`“${name}” is exported by ${[...places].join(' and ')}: give one of them another name`);

for (const problem of problems) console.error(problem);
if (problems.length > 0) process.exitCode = 1;

/** Names that a top-level statement declares and exports; `const x` and `type x` in one file count once. */
function exportedNames(statement) {
  if (!statement.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword)) return [];
  if (ts.isVariableStatement(statement))
    return statement.declarationList.declarations
      .filter(({ name }) => ts.isIdentifier(name))
      .map(({ name }) => name.text);
  return statement.name ? [statement.name.text] : [];
}

/** Documentation blocks between top-level statements that stand before nothing of their own. */
function looseBlocks(file, text, source) {
  const found = [];
  const statements = [...source.statements, source.endOfFileToken];
  for (const statement of statements) {
    const blocks = (ts.getLeadingCommentRanges(text, statement.getFullStart()) ?? []).filter(({ pos }) =>
      text.startsWith('/**', pos),
    );
    const documents = !ts.isImportDeclaration(statement) && statement !== source.endOfFileToken;
    for (const [i, block] of blocks.entries()) {
      const attached =
        documents && i === blocks.length - 1 && !/\n\s*\n/.test(text.slice(block.end, statement.getStart()));
      if (attached) continue;
      const line = source.getLineAndCharacterOfPosition(block.pos).line + 1;
      found.push(`${file}:${line} a /** */ block documents no declaration: write a file header as //`);
    }
  }
  return found;
}
