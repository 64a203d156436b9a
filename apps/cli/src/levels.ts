import loadHighs from 'highs';
import { ANY_COLOUR } from '@quarry/core/catalogue';
import { writeCsv } from '@quarry/core/formats';
import { carriedPieces } from '@quarry/core/cut';
import { buildSteps, builtBlocks, countedRelief } from '@quarry/core/masonry';
import { judgeCarried, judgedThings, verdictOf } from '@quarry/core/stability';
import { isCountedByPieces, listOfBuilding, placedPieces } from '@quarry/core/structures';
import { OUTSIDE, columnsOf, compile, compileRelief, standsOn } from '@quarry/core/terrain';
import { displayOf, listOf, type PartLine, type Scene } from '@quarry/core/document';

/** The solid pieces over each stud of the footprint, by row, column and height: `x,y,z0,z1,owner`, plates above datum. */
export function columns(scene: Scene): number {
  const relief = compileRelief(scene);
  const all = columnsOf(scene, relief);
  const rows: (string | number)[][] = [];
  for (let y = relief.y; y < relief.y + relief.d; y++)
    for (let x = relief.x; x < relief.x + relief.w; x++) {
      if (relief.ground[(y - relief.y) * relief.w + x - relief.x] === OUTSIDE) continue;
      for (const { from, to, owner } of all.at(x, y)) rows.push([x, y, from, to, owner?.id ?? 'ground']);
    }
  process.stdout.write(writeCsv([['x', 'y', 'z0', 'z1', 'owner'], ...rows]));
  return 0;
}

/** Everything that is carried by itself, with its size in mm, its mass in grams, and the angle at which it tips. */
export function carried(scene: Scene): number {
  const tenth = (value: number) => Number(value.toFixed(1));
  const rows = carriedPieces(scene, countedRelief(scene)).map((piece) => {
    const { id, title, kind, w, d, h, grams, centre, on, tips } = piece;
    return [
      ...[id, title, kind],
      ...[w, d, h, grams, centre.x, centre.y, centre.z].map(tenth),
      on.map((under) => under.id).join(' '),
      tenth(tips),
    ];
  });
  const head = 'id,name,kind,w_mm,d_mm,h_mm,mass_g,cx_mm,cy_mm,cz_mm,on,tip_deg'.split(',');
  process.stdout.write(writeCsv([head, ...rows]));
  return 0;
}

/**
 * How each module, and each deck that lifts off, stands by its counted pieces: its pieces, those that are not borne straight down, the share of the
 * studs' hold that was found to be enough and the one proven to be needed (empty: none is enough).
 * @returns 1 when one falls
 */
export async function stands(scene: Scene, seconds: number): Promise<number> {
  const highs = await loadHighs();
  const compiled = compile(scene);
  const time = { seconds, now: () => performance.now() };
  const all = judgedThings(scene).flatMap((ref) => judgeCarried(scene, compiled, ref, { highs, time }) ?? []);
  const share = (value: number) => (Number.isFinite(value) ? Number(value.toFixed(4)) : '');
  const rows = all.map((standing) => {
    const { kind, name, pieces, free, loose, used, bound } = standing;
    return [name, pieces, free, loose, share(used), share(bound), verdictOf(standing), kind];
  });
  process.stdout.write(
    writeCsv([['module', 'pieces', 'free', 'loose', 'used', 'bound', 'verdict', 'kind'], ...rows]),
  );
  return all.some((standing) => verdictOf(standing) === 'falls') ? 1 : 0;
}

/** Gives each piece of a part the colour of a line that still has one left, so that colours come out as listed. */
function coloursOf(lines: readonly PartLine[]): (part: string) => string {
  const left = lines.map((line) => ({ ...line }));
  return (part) => {
    const line = left.find((one) => one.part === part && one.qty > 0);
    if (!line) return ANY_COLOUR;
    line.qty--;
    return line.colour;
  };
}

/**
 * Every counted piece of the ground, of what lies over air, and of buildings whose list is that of their pieces, in studs and in
 * plates above the datum.
 * @param of an owner's id; left out: all
 */
export function pieces(scene: Scene, of: string | undefined): number {
  const compiled = compile(scene);
  const rows: (string | number)[][] = [];
  for (const built of builtBlocks(
    scene,
    compiled,
    ({ part }) => of === undefined || (part?.thing ?? 'ground') === of,
  )) {
    const { block, floor } = built.ground;
    const { lines, steps } = buildSteps(built);
    for (const step of steps)
      for (const { line, x, y, z, w, d, h, falls } of step.pieces)
        rows.push([
          ...[block.part?.thing ?? 'ground', lines[line]?.part ?? '', lines[line]?.colour ?? ''],
          ...[block.x + x, block.y + y, floor + z, w, d, h, 90 * (falls ?? 0)],
        ]);
  }
  for (const plot of listOf(scene, 'plot')) {
    const foot = of === undefined || of === plot.id ? standsOn(scene, compiled.relief, plot) : null;
    if (foot === null || !isCountedByPieces(scene, plot)) continue;
    const colours = coloursOf(listOfBuilding(scene, plot)?.list.lines ?? []);
    for (const { part, x, y, z, w, d, h, turn } of placedPieces(plot, foot, displayOf(scene)))
      rows.push([plot.id, part, colours(part), x, y, z, w, d, h, turn]);
  }
  process.stdout.write(
    writeCsv([['owner', 'part', 'colour', 'x', 'y', 'z', 'w', 'd', 'h', 'turn'], ...rows]),
  );
  return 0;
}
