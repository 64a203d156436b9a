import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import loadHighs from 'highs';
import { FIGURE_MM, metresOf } from '../scale/index.ts';
import { showBook, showLog } from '../kit/index.ts';
import { MM, formatKg, formatMm, outerSize, readGridSize } from '../grid/index.ts';
import { cutProblemOf, moduleLoads, solveCut } from '../cut/index.ts';
import { castingOf, oneMoreOf } from '../cast/index.ts';
import { displayOf, isInHand, listOf, readFile, sceneInVersion, type Scene } from '../document/index.ts';
import { totalsOf } from '../history/index.ts';
import { evaluateRules } from '../findings/index.ts';
import { CountCache } from '../masonry/index.ts';
import { materialsOf } from '../materials/index.ts';
import { compile, compileRelief } from '../terrain/index.ts';
import { dayPlanOf, helpersOf, loadPlanOf, phaseTimes, showOf, showTasks } from '../transport/index.ts';
import { sightOf } from '../visibility/index.ts';
import { longTest } from '../../test/runs.ts';

// The guide's numbers, computed from the files that it names.

const ROOT = join(import.meta.dirname, '..', '..', '..', '..');
const textOf = (name: string) =>
  readFileSync(join(ROOT, 'docs', 'guide', name), 'utf8').replaceAll(/\s+/g, ' ');
const sceneOf = (path: string): Scene => {
  const reading = readFile(readFileSync(join(ROOT, path), 'utf8'));
  if (!reading.ok) throw new Error(reading.error);
  return reading.scene;
};
const count = (value: number) => value.toLocaleString('en');
const countedOf = (scene: Scene) => {
  const compiled = compile(scene);
  const materials = materialsOf(scene, compiled, new CountCache());
  if (!materials) throw new Error('not counted');
  const pieces = materials.count.blocks.map(({ block, lines }) => ({
    name: block.name,
    pieces: lines.reduce((sum, { qty }) => sum + qty, 0),
  }));
  const relief = { ...compiled.relief, counted: materials.count.mass };
  return {
    relief,
    pieces,
    ground: pieces.reduce((sum, block) => sum + block.pieces, 0),
    needed: materials.rows.reduce((sum, { demand }) => sum + demand.qty, 0),
    short: materials.rows.reduce((sum, { short }) => sum + short, 0),
    loads: moduleLoads(scene, relief),
  };
};

describe('the guide', () => {
  test('the weekend builder', async () => {
    const text = textOf('weekend.md');
    const scene = sceneOf('docs/guide/otter-holt.quarry.json');
    const read = readGridSize('42 × 55 cm', 4096);
    if (!read.ok || !read.size.nearest) throw new Error('the size is not read');
    const { w, d, left, nearest } = read.size;
    for (const words of [
      `**${w} × ${d} studs**`,
      `${formatMm(outerSize(w))} × ${formatMm(outerSize(d))}`,
      `${formatMm(left.w)} and ${formatMm(left.d)} are left over`,
      `${nearest.w} × ${nearest.d} studs would be nearer and would stand ${formatMm(Math.max(nearest.over.w, nearest.over.d))} over`,
      `a figure of ${FIGURE_MM} mm is a person of ${((FIGURE_MM * 45) / 1000).toFixed(2)} m`,
      `shows ${metresOf(w, 45).toFixed(1)} × ${metresOf(d, 45).toFixed(1)} m`,
    ])
      expect(text).toContain(words);
    expect(listOf(scene, 'footprint')[0]).toMatchObject({ w, d });
    const rules = evaluateRules(scene).map(({ rule }) => rule);
    expect(rules).toContain('raw-edge');
    const problem = cutProblemOf(scene, compileRelief(scene));
    if (!problem.ok) throw new Error('no problem');
    const answer = solveCut(problem.problem, {
      ...{ highs: await loadHighs(), seconds: 10, seed: 1, now: () => performance.now() / 1000 },
    });
    if (!answer.feasible) throw new Error(answer.reasons.join());
    const { cost, bought, proven, modules } = answer.cutting;
    const bases = bought.reduce((sum, { count: many }) => sum + many, 0);
    expect([proven, modules.length]).toEqual([true, 2]);
    for (const words of [
      `for ${cost.total.toFixed(2)} cr: ${cost.bases.toFixed(2)} cr for ${bases} bases`,
      `${cost.seams.toFixed(2)} cr for 48 studs of seam`,
    ])
      expect(text).toContain(words);
    expect(listOf(scene, 'module').map((one) => `${one.w} × ${one.d}`)).toEqual(['52 × 32', '52 × 36']);
    const [first, second] = countedOf(scene).pieces;
    expect(text).toContain(
      `${first?.pieces} pieces in ${first?.name} and ${second?.pieces} in ${second?.name}`,
    );
  }, 60_000);

  test('the city keeper', () => {
    const text = textOf('city.md');
    const scene = sceneOf('demo/larch-lane.quarry.json');
    const { ratio } = displayOf(scene);
    const found = evaluateRules(scene);
    const { ground, needed, short } = countedOf(scene);
    expect(short).toBe(needed);
    for (const words of [
      `1:${ratio} here`,
      listOf(scene, 'footprint')
        .map((part) => `${part.w} × ${part.d}`)
        .join(' and '),
      'share 4 × 8 studs',
      'has 80 % of the floor it needs',
      '11 % of section N lies past an arm’s 750 mm',
      'the farthest stud is 1,030.2 mm away',
      `${count(ground)} pieces, ${count(needed)} with spares`,
    ])
      expect(text).toContain(words);
    const sentences = found.map(({ sentence }) => sentence).join(' ');
    for (const words of [
      'share 4 × 8 studs',
      'has 80 % of the floor it needs: 48 × 40 studs at 1:30, and “Little cinema” is 48 × 32',
      '11 % of section N lies past an arm’s 750 mm',
      'the farthest 1,030.2 mm',
    ])
      expect(sentences).toContain(words);
    expect(listOf(scene, 'plot')).toHaveLength(11);
  }, 60_000);

  longTest(
    'the lead of a group display',
    () => {
      const text = textOf('group.md');
      const scene = sceneOf('demo/skarn-edge.quarry.json');
      const found = evaluateRules(scene);
      const { ground, needed, short, loads, relief } = countedOf(scene);
      const load = (name: string) => loads.find((one) => one.name === name);
      const lift = (name: string) => load(name)?.lift?.one.index.toFixed(2);
      for (const words of [
        `${formatMm(95.975 * 8 * MM)} across`,
        `${count(ground)} pieces of ground; ${count(needed)} with what is listed and spares; ${count(short)} are short`,
        `A1 with ${load('A1')?.bulk.kg.toFixed(1)} kg has an index of ${lift('A1')}`,
        `A3 with ${load('A3')?.bulk.kg.toFixed(1)} kg has ${lift('A3')}`,
      ])
        expect(text).toContain(words);
      const show = showOf(scene, relief);
      const { units } = show.shipment;
      const grams = units.reduce((sum, unit) => sum + unit.grams, 0);
      const loaded = loadPlanOf(show.shipment, { seconds: 60, now: () => 0 });
      expect([loaded.trips.length, loaded.bound, loaded.left]).toEqual([1, 1, []]);
      const tasks = showTasks(show.scene, show.shipment, show.order, 'setup');
      const { to, until: window } = phaseTimes(show.scene, 'setup');
      const helpers = helpersOf(show.scene, 'setup');
      const day = dayPlanOf(tasks, helpers, { now: null, origin: 0, until: window });
      if (!day.ok) throw new Error(day.reasons.join());
      expect(day.plan.ready).toBe(day.plan.bound);
      for (const words of [
        `${units.length} things of ${formatKg(grams)}`,
        `${units.filter(({ holds }) => holds.length > 0).length} crates`,
        `${tasks.length} tasks`,
        `ready ${window - day.plan.ready} minutes before visitors come at ${to}`,
        'and no plan is shorter',
      ])
        expect(text).toContain(words);
      const book = showBook(scene, relief);
      const { circuits, supplies, leads } = book.power;
      const port = supplies.find(({ supply }) => supply.type === 'usb');
      const metres = circuits.reduce((sum, { cableMm }) => sum + cableMm, 0) / 1000;
      const lowest = circuits
        .flatMap(({ circuit, supply, worst }) =>
          supply && worst && supply.volts === 5 ? [{ name: circuit.name, volts: 5 - worst.drop }] : [],
        )
        .reduce((a, b) => (b.volts < a.volts ? b : a));
      const far = leads.find(({ outlet }) => outlet === null);
      const kit = (name: string) =>
        book.kit.filter((one) => one.name.startsWith(name)).reduce((sum, one) => sum + one.count, 0);
      for (const words of [
        `is to give ${port?.milliamps} mA and is rated for ${port?.supply.milliamps} mA`,
        `crosses ${circuits.find(({ circuit }) => circuit.name === 'Shop windows')?.partings.length} seams`,
        `All cables together are ${metres.toFixed(1)} m with slack`,
        `the lowest voltage is ${lowest.volts.toFixed(1)} V of 5 V, on “${lowest.name}”`,
        `${((far?.needsMm ?? 0) / 1000).toFixed(2)} m away`,
        `${kit('Table cloth')} cloths, ${kit('Shims of 6 mm')} shims of 6 mm, ${kit('Posts')} posts`,
        `by the hour, ${showLog(scene).visitors} so far`,
      ])
        expect(text).toContain(words);
      const sight = sightOf(scene, compileRelief(scene));
      const part = sight?.parts.find(
        ({ section }) => section !== null && scene.section[section].letter === 'A',
      );
      const percent = (share?: number | null) => `${Math.round(100 * (share ?? NaN))} %`;
      for (const words of [
        `children see ${percent(part?.seen.child)} of the studs of section A, adults ${percent(part?.seen.adult)}`,
        `nobody sees ${part?.hidden} of them`,
      ])
        expect(text).toContain(words);
      const [upper] = sight?.rooms.dyer ?? [];
      expect(text).toContain(
        `adults see ${percent(upper?.free.adult)} of the upper floor of the “Dyer”, children ${percent(upper?.free.child)}`,
      );
      const shares = [
        sight?.shares.adult,
        sight?.shares.seated,
        sight?.shares.child,
        sight?.shares.shoulders,
      ];
      const [adults, seated, children, shoulders] = shares.map((share) => Math.round(100 * (share ?? NaN)));
      expect(text).toContain(
        `of 100 visitors ${adults} are adults, ${seated} sit in a wheelchair, ${children} are children and ${shoulders} are carried on shoulders`,
      );
      const splitters = sight?.things.find(({ name }) => name === 'Slate splitters');
      expect(splitters).toMatchObject({ free: { seated: 0, child: 0 } });
      expect(splitters?.hiders[0].name).toBe('Skarn benches');
      const cast = castingOf(scene);
      expect(cast.bound).toBe(cast.made);
      const [goat] = oneMoreOf(scene);
      const market = totalsOf(sceneInVersion(scene, 'market-day').scene, null);
      for (const words of [
        `${listOf(scene, 'character').filter((one) => isInHand(scene, one)).length} of ${listOf(scene, 'character').length} characters are in hand`,
        `${cast.made} of ${cast.scenes.length} small scenes can be made at once`,
        `${goat.character?.name ?? ''} is lost; found, it makes “${goat.makes.join()}” possible`,
        `“Market day” shows ${market.find(({ word }) => word === 'figures in scenes')?.count} figures instead of ${totalsOf(scene, null).find(({ word }) => word === 'figures in scenes')?.count}`,
      ])
        expect(text).toContain(words);
      const sentences = found.map(({ sentence }) => sentence).join(' ');
      for (const words of [
        'Module A3 is 767.8 mm across its narrow side; the club stair door lets 760 mm through',
        'At the seam B1–B2 4 studs stand wrong by up to 1p; B2, studs 69 to 72: raise by 1p',
        'The seam A3–C1',
        '8 studs differ',
        'a step of 20 mm',
      ])
        expect(sentences).toContain(words);
    },
    300_000,
  );
});
