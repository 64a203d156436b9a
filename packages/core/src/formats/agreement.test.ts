import fc from 'fast-check';
import { evaluateRules } from '../findings/index.ts';
import { arrangementOf, carriedPieces, moduleLoads } from '../cut/index.ts';
import { buildUp } from '../assembly/index.ts';
import { formatKg } from '../grid/index.ts';
import { materialsOf } from '../materials/index.ts';
import { CountCache } from '../masonry/index.ts';
import { compile, loadsOf } from '../terrain/index.ts';
import { earnedValue, effortOf, offeredTasks, pieceCounts } from '../progress/index.ts';
import { listOf, reduce, type Change, type Scene } from '../document/index.ts';
import { reachOf } from '../reach/index.ts';
import { carriedHeight, tableLoads } from '../venue/index.ts';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { runs } from '../../test/runs.ts';

// What several pages, findings and prints tell, they tell alike: checked on random displays, whose ground is counted.

const changed = (scene: Scene, changes: readonly Change[]): Scene => {
  const done = reduce(scene, changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
};
const sum = (list: readonly number[]) => list.reduce((all, one) => all + one, 0);

/** The display on one table under all of it that bears nothing, with limits that everything breaks. */
const strict = (scene: Scene): Scene =>
  changed(scene, [
    {
      op: 'patch',
      kind: 'display',
      id: 'display',
      v: scene.display.display.v,
      set: { moduleMaxKg: 0.001 },
    },
    {
      op: 'patch',
      kind: 'table',
      id: 't',
      v: scene.table.t.v,
      set: { x: 0, y: 0, w: 512, d: 320, ratedKg: 0 },
    },
    {
      op: 'add',
      kind: 'passage',
      id: 'slot',
      data: { name: 'slot', width: 400, height: 1, order: 0 },
    },
  ]);

test('masses, sizes, pieces, what is short and hours are the same wherever they are told', () => {
  fc.assert(
    fc.property(randomDisplays, (random) => {
      const scene = strict(random);
      const compiled = compile(scene);
      const materials = materialsOf(scene, compiled, new CountCache());
      if (!materials) throw new Error('the count was ended');
      const { count, needs, supplies, rows, left } = materials;
      const relief = { ...compiled.relief, counted: count.mass };
      const findings = evaluateRules(scene, { today: '2031-06-01', relief, rows });
      const of = (rule: string) => findings.filter((finding) => finding.rule === rule);

      // Mass: Cut, its arrangement, the order of building up, findings; modules and what comes loose are the table's load.
      const loads = moduleLoads(scene, relief);
      const order = buildUp(scene, relief, reachOf(scene, relief));
      const steps = order.ok ? order.steps.map(({ words }) => words).join('\n') : '';
      const told = new Map(of('module-mass').map(({ things, numbers }) => [things[0].id, numbers.kg]));
      for (const { id, name, bulk } of loads) {
        expect(told.get(id)).toBe(bulk.kg);
        expect(steps).toContain(`Set down ${name} (32 × 40 studs, about ${formatKg(1000 * bulk.kg)})`);
      }
      const { heaviest } = arrangementOf(scene, relief);
      expect(heaviest?.bulk.kg).toBe(Math.max(...loads.map(({ bulk }) => bulk.kg)));
      const [table] = tableLoads(scene, relief);
      const { loose } = loadsOf(scene, relief);
      const taken = carriedPieces(scene, relief, loads).filter(({ kind }) => kind !== 'module');
      const off = sum([...loose.grams]) / 1000;
      expect(sum(loads.map(({ bulk }) => bulk.kg)) + off).toBeCloseTo(table.kg, 3);
      // The list of what is taken off names all of it but trees and what is listed for no building.
      const inside = of('outside-footprint').length === 0;
      if (inside && listOf(scene, 'tree').length === 0 && listOf(scene, 'partList').length === 0)
        expect(sum(taken.map(({ grams }) => grams / 1000))).toBeCloseTo(off, 3);
      expect(of('table-load')[0].numbers.kg).toBeCloseTo(table.kg, 1);
      expect(of('table-load')[0].sentence).toContain(`about ${formatKg(1000 * table.kg)} `);

      // Size as carried: the Survey's way in, the modules of Cut, and the findings of both.
      const tall = carriedHeight(scene, relief);
      expect(Math.max(...loads.map((load) => load.tall))).toBeCloseTo(tall, 6);
      const through = new Map(
        of('module-passage').map(({ things, numbers }) => [things[0].id, numbers.height]),
      );
      for (const load of loads) if (load.tall > 1) expect(through.get(load.id)).toBeCloseTo(load.tall, 6);

      // Pieces: blocks, needs, offered tasks, effort.
      const ground = sum(count.blocks.map(({ counted }) => counted.pieces));
      const purposes = ['core', 'deck', 'under', 'cover', 'slope', 'accent'];
      expect(sum(needs.filter(({ purpose }) => purposes.includes(purpose)).map(({ qty }) => qty))).toBe(
        ground,
      );
      const counts = pieceCounts(needs);
      const sections = listOf(scene, 'section');
      const efforts = sections.map((section) => effortOf(scene, section, counts));
      sections.forEach(({ id }, i) =>
        expect(efforts[i].pieces).toBe(
          sum(needs.filter(({ section }) => section === id).map(({ qty }) => qty)),
        ),
      );
      const blocks = count.blocks.map(({ block, counted }) => ({ ...block, pieces: counted.pieces }));
      for (const { source, pieces } of offeredTasks(scene, { findings: null, blocks }))
        if (source.startsWith('block:'))
          expect(blocks.find(({ id }) => source === `block:${id}`)?.pieces).toBe(pieces);
      for (const { id, counted } of count.blocks.map(({ block, counted }) => ({ ...block, counted })))
        if (scene.module[id])
          expect(
            sum(count.blocks.find(({ block }) => block.id === id)?.lines.map(({ qty }) => qty) ?? []),
          ).toBe(counted.pieces);

      // Short: row by row, by part, and what is left of all there is.
      for (const { demand, given, short } of rows)
        expect(short + sum(given.map(({ qty }) => qty))).toBe(demand.qty);
      const used = new Map<string, number>();
      for (const { given } of rows)
        for (const { supply, qty } of given) used.set(supply, (used.get(supply) ?? 0) + qty);
      for (const { id, qty } of supplies) expect((left.get(id) ?? 0) + (used.get(id) ?? 0)).toBe(qty);
      const bound = rows.filter(({ demand }) => demand.source !== null && demand.list !== null);
      expect(sum(of('source-beyond').map(({ numbers }) => numbers.short))).toBe(
        sum(bound.map(({ short }) => short)),
      );

      // Hours: each section's effort, and the budget of them all.
      const { budget } = earnedValue(scene, '2031-06-01', counts, 'hours');
      expect(sum(efforts.map(({ hours }) => hours ?? 0))).toBeCloseTo(budget, 9);
      // Where a building is listed it is not guessed too.
      for (const { guessed } of efforts)
        for (const { plot } of guessed)
          expect(listOf(scene, 'partList').some((list) => list.use === 'need' && list.plot === plot)).toBe(
            false,
          );
    }),
    { numRuns: runs(25) },
  );
});
