import loadHighs from 'highs';
import fc from 'fast-check';
import { sceneFrom } from '../document/index.ts';
import { runs } from '../../test/runs.ts';
import { buildingPieces } from './index.ts';

// The count of a wall against the least there is: an integer program of the same rules, solved by HiGHS.

const BRICKS = [1, 2, 3, 4];

/**
 * The least number of bricks of a wall of two corners: in even courses it runs through, in odd ones between the walls
 * that meet it; no joint lies over a joint, nor over the faces of those walls.
 */
function leastBricks(highs: Awaited<ReturnType<typeof loadHighs>>, length: number, courses: number): number {
  const terms: string[] = [];
  const rows: string[] = [];
  const begins = new Map<string, string[]>();
  const covers = new Map<string, string[]>();
  const push = (to: Map<string, string[]>, key: string, name: string) =>
    to.set(key, [...(to.get(key) ?? []), name]);
  for (let course = 0; course < courses; course++) {
    const [from, to] = course % 2 === 0 ? [0, length] : [1, length - 1];
    for (let at = from; at < to; at++)
      for (const long of BRICKS) {
        if (at + long > to) continue;
        const name = `b${course}_${at}_${long}`;
        terms.push(name);
        if (at > from) push(begins, `${course} ${at}`, name);
        for (let stud = at; stud < at + long; stud++) push(covers, `${course} ${stud}`, name);
      }
  }
  for (const names of covers.values()) rows.push(`${names.join(' + ')} = 1`);
  for (const [key, names] of begins) {
    const [course, at] = key.split(' ').map(Number);
    if (at === 1 || at === length - 1) rows.push(`${names.join(' + ')} = 0`);
    const over = begins.get(`${course + 1} ${at}`) ?? [];
    if (over.length > 0) rows.push(`${[...names, ...over].join(' + ')} <= 1`);
  }
  const named = rows.map((row, i) => ` r${i}: ${row}`);
  const program = [
    ...['Minimize', ` ${terms.join(' + ')}`, 'Subject To', ...named],
    ...['Binary', ...terms.map((term) => ` ${term}`), 'End'],
  ];
  const { Status, ObjectiveValue } = highs.solve(program.join('\n'));
  if (Status !== 'Optimal') throw new Error(`no answer for ${length} studs: ${Status}`);
  return Math.round(ObjectiveValue);
}

test('small walls take at most 5 % more bricks than the least there is', async () => {
  const highs = await loadHighs();
  let [all, least] = [0, 0];
  fc.assert(
    fc.property(fc.integer({ min: 4, max: 16 }), fc.integer({ min: 1, max: 8 }), (length, courses) => {
      const { p } = sceneFrom({
        display: { name: 'Wall', kind: 'city' },
        plots: [{ id: 'p', name: 'Hut', x: 0, y: 0, w: length, d: 20, height: 1 + 3 * courses }],
      }).plot;
      const street = { pavementLight: 'mist', pavementDark: 'slate' };
      const laid = buildingPieces(p, street).filter(
        ({ use, part, y, d, w, x }) =>
          // Of the north wall: what lies along it, and in even courses its corners.
          use === 'wall' && part.startsWith('brick') && y === 0 && d === 1 && x + w <= length,
      );
      const own = laid.filter(({ x, w, z }) => ((z - 1) / 3) % 2 === 0 || (x > 0 && x + w < length));
      const best = leastBricks(highs, length, courses);
      all += own.length;
      least += best;
      expect(own.length).toBeGreaterThanOrEqual(best);
    }),
    { numRuns: runs(25) },
  );
  expect(all).toBeLessThanOrEqual(1.05 * least);
});
