// Refuses a field that is saved and read by nothing: each is read by the core, or is named here with the file that shows
// it. A name here that the core reads, or that its file does not mention, is refused as well. And a field that no page
// knows: then nobody can set it.
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import * as ts from 'typescript-native/unstable/ast';
import { API } from 'typescript-native/unstable/sync';
import { ROOT } from './prepare.mjs';

const CORE = join(ROOT, 'packages', 'core');
/** Files that declare fields. */
const DECLARES = /document[/](kinds[/]\w+|partLines|fields)\.ts$/;
/** Declares fields, or carries all of them alike. */
const CARRIES = /document[/](fields|authorship|permission|reduce|file|delta|undo|snapshot)\.ts$/;

/**
 * Fields that a page shows as they are, or hands to a computation with the rest of their entity, by the file that
 * reads them. Nothing else may be read by nothing.
 */
const SHOWN = {
  'apps/server/src/share/publicPage.ts': ['photo.published', 'report.published'],
  'apps/web/src/board/pictures.ts': ['picture.image'],
  'apps/web/src/board/kinds/picture.ts': ['picture.shows'],
  'apps/web/src/board/kinds/marker.ts': ['marker.notes'],
  'apps/web/src/board/kinds/plot.ts': ['plot.notes'],
  'apps/web/src/board/kinds/reserved.ts': ['reserved.notes'],
  'apps/web/src/board/kinds/terrain.ts': ['terrain.notes'],
  'apps/web/src/board/kinds/note.ts': ['note.text'],
  'apps/web/src/pages/brief/KindQuestions.tsx': ['display.growth'],
  'apps/web/src/pages/brief/VersionsSheet.tsx': ['version.note'],
  'apps/web/src/pages/crew/HoldingsPanel.tsx': ['person.town'],
  'apps/web/src/pages/crew/ReportPanel.tsx': [
    'report.at',
    'report.by',
    'report.from',
    'report.fromAt',
    'report.text',
    'report.upto',
  ],
  'apps/web/src/pages/crew/ThreadView.tsx': [
    'reply.by',
    'reply.mentions',
    'reply.text',
    'thread.about',
    'thread.answeredBy',
    'thread.at',
    'thread.finding',
    'thread.id',
    'thread.kind',
    'thread.mentions',
    'thread.reason',
    'thread.text',
  ],
  'apps/web/src/pages/cut/SeamsPanel.tsx': ['seam.at', 'seam.person'],
  'apps/web/src/pages/progress/DayPanel.tsx': ['display.clockEnd'],
  'apps/web/src/pages/progress/PhotosPanel.tsx': [
    'photo.by',
    'photo.file',
    'photo.height',
    'photo.note',
    'photo.width',
  ],
  'apps/web/src/pages/progress/SessionRow.tsx': ['session.note', 'session.ticked', 'session.where'],
  'apps/web/src/pages/transport/LentPart.tsx': ['incident.to'],
  'apps/web/src/pages/transport/UnitPart.tsx': ['incident.piece'],
  'apps/web/src/pages/survey/venueFields.ts': ['opening.height'],
  'apps/web/src/pages/stockpile/ListSheet.tsx': ['partList.notes', 'partList.price'],
  'apps/web/src/pages/stockpile/NeedSheet.tsx': ['partType.grams', 'promise.note'],
  'apps/web/src/pages/stockpile/OrderSheet.tsx': ['order.notes', 'order.seller'],
  'apps/web/src/pages/stockpile/RecipeSheet.tsx': ['recipe.bend'],
  'apps/web/src/pages/stockpile/SwapsPanel.tsx': ['placeholder.notes'],
  'apps/web/src/ui/Avatar.tsx': ['person.initials'],
  'packages/core/src/cut/seams.ts': ['edge.a', 'edge.b'],
  'packages/core/src/visibility/eyes.ts': ['display.e', 'display.n', 'display.s'],
  'packages/core/src/scale/budget.ts': [
    'vehicle.count',
    'vehicle.length',
    'vehicle.trueLength',
    'vehicle.width',
  ],
  'packages/core/src/document/permission.ts': ['section.helpers'],
  'packages/core/src/reach/reach.ts': ['place.ladderReach'],
};
/** Set by the core with others of their kind: pages hand them on. */
const HANDED_ON = ['onPlot'];
/** Where a thing lies is handed on whole. */
const PLACE = ['x', 'y', 'w', 'd'];

const api = new API({ cwd: ROOT });
const project = api
  .updateSnapshot({ openProjects: [join(CORE, 'tsconfig.json')] })
  .getProject(join(CORE, 'tsconfig.json'));
const { program, checker } = project;
const files = program
  .getSourceFileNames()
  .filter((name) => name.startsWith(join(CORE, 'src')) && !name.endsWith('.d.ts'))
  .map((name) => program.getSourceFile(name));
const declaring = files.filter(({ fileName }) => DECLARES.test(fileName));

/** Every declared field with the kind that has it. */
const declared = declaring.flatMap((file) => fieldsIn(file, ''));
/** Declarations that no read was found of yet, by name: the checker is asked of these names only. */
const names = new Map();
for (const { node } of declared) {
  const name = node.name.getText();
  if (!PLACE.includes(name)) names.set(name, (names.get(name) ?? new Set()).add(keyOf(node)));
}
for (const file of files) if (!CARRIES.test(file.fileName)) collectReads(file);

const unread = new Set(
  declared
    .filter(({ node }) => names.get(node.name.getText())?.has(keyOf(node)))
    .map(({ node, kind }) => `${kind}.${node.name.getText()}`),
);
const shown = new Set(Object.values(SHOWN).flat());
const known = new Set(wordsIn(join(ROOT, 'apps', 'web', 'src')));
for (const name of HANDED_ON) known.add(name);
const strange = declared.filter(({ node }) => !known.has(node.name.getText()));
const problems = [
  ...strange.map(
    ({ node, kind }) => `“${kind}.${node.name.getText()}” is known to no page: nobody can set it`,
  ),
  ...[...unread].filter((field) => !shown.has(field)).map((field) => `“${field}” is read by nothing`),
  ...[...shown]
    .filter((field) => !unread.has(field))
    .map((field) => `“${field}” is read by the core, or is not declared: take it off the list`),
  ...Object.entries(SHOWN).flatMap(([path, fields]) => {
    const text = readFileSync(join(ROOT, path), 'utf8');
    return fields
      .filter((field) => !new RegExp(`\\b${field.split('.')[1]}\\b`).test(text))
      .map((field) => `“${field}” does not stand in ${path}`);
  }),
];
for (const problem of problems) console.error(problem);
if (problems.length > 0 || declared.length === 0) process.exitCode = 1;
api.close();

/** Each name in the files of a folder, tests aside. */
function wordsIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return wordsIn(path);
    return /(?<!\.test)\.tsx?$/.test(entry.name)
      ? (readFileSync(path, 'utf8').match(/[A-Za-z_]\w*/g) ?? [])
      : [];
  });
}

function isField(node) {
  return (
    (ts.isPropertyAssignment(node) || ts.isShorthandPropertyAssignment(node)) &&
    ts.isCallExpression(node.parent.parent) &&
    node.parent.parent.expression.getText().endsWith('strictObject')
  );
}

function fieldsIn(node, kind) {
  if (ts.isVariableDeclaration(node)) kind = node.name.getText().replace(/(Schema|Kind)$/, '');
  const found = isField(node) ? [{ node, kind }] : [];
  node.forEachChild((child) => void found.push(...fieldsIn(child, kind)));
  return found;
}

function keyOf(node) {
  return `${node.getSourceFile().fileName}:${node.getStart()}`;
}

/** Takes what a file reads off the names: properties by a dot, and those of objects that are taken apart. */
function collectReads(file) {
  const byDot = [];
  const patterns = [];
  const collect = (node) => {
    if (ts.isPropertyAccessExpression(node) && isAsked(node.name.text)) byDot.push(node.name);
    if (ts.isObjectBindingPattern(node) && namesIn(node).some(isAsked)) patterns.push(node);
    node.forEachChild(collect);
  };
  collect(file);
  const taken = checker
    .getTypeAtLocation(patterns)
    .flatMap((type, i) =>
      type ? namesIn(patterns[i]).map((name) => checker.getPropertyOfType(type, name)) : [],
    );
  for (const symbol of [...checker.getSymbolAtLocation(byDot), ...taken]) {
    const name = symbol?.name;
    if (isAsked(name)) for (const one of symbol.declarations) names.get(name).delete(keyOf(one.resolve()));
  }
}

/** The properties that a pattern takes out of an object. */
function namesIn(pattern) {
  return pattern.elements
    .map(({ propertyName, name }) => propertyName ?? name)
    .flatMap((name) => (ts.isIdentifier(name) ? [name.text] : []));
}

function isAsked(name) {
  return (names.get(name)?.size ?? 0) > 0;
}
