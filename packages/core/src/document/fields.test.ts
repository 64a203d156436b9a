import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import ts from 'typescript';

// No field is saved and read by nothing: each is read by what computes, or is named here with who shows it.

const CORE = join(dirname(__filename), '../..');
/** Declares fields, or carries all of them alike. */
const CARRIES = /document[/](fields|authorship|permission|reduce|file|delta|undo|snapshot)\.ts$/;

/**
 * Fields that a page shows as they are, or hands to a computation with the rest of their entity, by the file that
 * reads them. Nothing else may be read by nothing.
 */
const SHOWN: Readonly<Record<string, readonly string[]>> = {
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
/** Where a thing lies is handed on whole. */
const PLACE = ['x', 'y', 'w', 'd'];

/** Files that declare fields. */
const DECLARES = /document[/](kinds[/]\w+|partLines|fields)\.ts$/;
const isField = (node: ts.Node): node is ts.PropertyAssignment | ts.ShorthandPropertyAssignment =>
  (ts.isPropertyAssignment(node) || ts.isShorthandPropertyAssignment(node)) &&
  ts.isCallExpression(node.parent.parent) &&
  node.parent.parent.expression.getText().endsWith('strictObject');

test('every field of the schema is read', () => {
  const { fileNames, options } = ts.parseJsonConfigFileContent(
    ts.readConfigFile(join(CORE, 'tsconfig.json'), ts.sys.readFile).config,
    ts.sys,
    CORE,
  );
  const program = ts.createProgram(fileNames, options);
  const checker = program.getTypeChecker();
  const keyOf = (node: ts.Node) => `${node.getSourceFile().fileName}:${node.getStart()}`;
  const read = new Set<string>();
  const isOwn = (file: ts.SourceFile) =>
    !file.isDeclarationFile && file.fileName.startsWith(join(CORE, 'src'));
  // Asking the checker is dear: it is asked of names that a schema declares.
  const names = new Set<string>();
  const readsOf = (node: ts.Node): ts.Symbol | undefined => {
    if (ts.isPropertyAccessExpression(node))
      return names.has(node.name.text) ? checker.getSymbolAtLocation(node.name) : undefined;
    if (!ts.isBindingElement(node) || !ts.isObjectBindingPattern(node.parent)) return undefined;
    const name = node.propertyName ?? node.name;
    return ts.isIdentifier(name) && names.has(name.text)
      ? checker.getTypeAtLocation(node.parent).getProperty(name.text)
      : undefined;
  };
  const visit = (node: ts.Node) => {
    for (const one of readsOf(node)?.declarations ?? []) read.add(keyOf(one));
    ts.forEachChild(node, visit);
  };
  const own = program.getSourceFiles().filter(isOwn);
  const declaring = own.filter(({ fileName }) => DECLARES.test(fileName));
  const named = (node: ts.Node) => {
    if (isField(node)) names.add(node.name.getText());
    ts.forEachChild(node, named);
  };
  declaring.forEach(named);
  for (const name of PLACE) names.delete(name);
  for (const file of own) if (!CARRIES.test(file.fileName)) visit(file);
  const unread: string[] = [];
  const declared = (node: ts.Node, name: string) => {
    if (ts.isVariableDeclaration(node)) name = node.name.getText().replace(/(Schema|Kind)$/, '');
    if (isField(node) && !read.has(keyOf(node))) unread.push(`${name}.${node.name.getText()}`);
    ts.forEachChild(node, (child) => declared(child, name));
  };
  for (const file of declaring) declared(file, '');
  const elsewhere = new Set(unread.filter((field) => !PLACE.includes(field.split('.')[1])));
  expect([...elsewhere].sort()).toEqual(Object.values(SHOWN).flat().sort());
  for (const [path, fields] of Object.entries(SHOWN)) {
    const text = readFileSync(join(CORE, '../..', path), 'utf8');
    for (const field of fields)
      expect([path, field, new RegExp(`\\b${field.split('.')[1]}\\b`).test(text)]).toEqual([
        path,
        field,
        true,
      ]);
  }
});
