import { countOf } from '../grid/index.ts';
import { labelOf, listOf, reduce, type Change, type Entity, type Scene } from '../document/index.ts';
import { split } from '../cut/index.ts';
import { cablesOf } from '../power/index.ts';
import { namedThing, patch, type Fix, type FixesOf } from './fix.ts';

// Remedies for what is carried: a module that does not come through, a thing that does not go into its crate.

/** Cuts of a module through its middle and at the sides of its bases, the most even first. */
function splits(scene: Scene, module: Entity<'module'>): Fix[] {
  const { id, x, y, w, d, bases, name } = module;
  const cutsAlong = (upright: boolean) => {
    const [from, length] = upright ? [x, w] : [y, d];
    const sides = bases.flatMap((base) => (upright ? [base.x, base.x + base.w] : [base.y, base.y + base.d]));
    const middle = from + 8 * Math.round(length / 16);
    return [...new Set([...sides, middle])]
      .filter((at) => at > from && at < from + length)
      .map((at) => ({ at, upright, off: Math.abs(at - from - length / 2) / length }));
  };
  return [...cutsAlong(true), ...cutsAlong(false)]
    .sort((a, b) => a.off - b.off)
    .flatMap(({ at, upright }): Fix[] => {
      const knife = upright ? { upright, at, from: y, to: y + d } : { upright, at, from: x, to: x + w };
      const cut = split(scene, knife);
      if (!cut.ok) return [];
      // What was signed of its sides holds for another length.
      const signed = listOf(scene, 'seam').filter(({ a, b, agreed }) => agreed && (a === id || b === id));
      const again = signed.map((seam) => labelOf(scene, 'seam', seam.id).replace('seam ', ''));
      const joined = connectorsFor(scene, cut.changes);
      const planned = joined.reduce((sum, { fresh }) => sum + fresh.length, 0);
      return [
        {
          words: [
            `Split ${name} on ${upright ? 'column' : 'row'} ${at}`,
            ...(again.length > 0 ? [`${again.join(', ')} to be signed again`] : []),
            ...(planned > 0 ? [`${countOf(planned, 'connector')} planned in its cables`] : []),
          ].join('; '),
          changes: [
            ...cut.changes,
            ...signed.map((seam) => patch('seam', seam, { agreed: null, signs: [] })),
            ...joined.map(({ circuit, fresh }) =>
              patch('circuit', circuit, { connectors: [...circuit.connectors, ...fresh] }),
            ),
          ],
        },
      ];
    });
}

/** The connectors that cables need where a cutting parts them and they did not come apart before. */
function connectorsFor(scene: Scene, changes: readonly Change[]) {
  const cut = reduce(scene, changes);
  if (!cut.ok) return [];
  const before = new Map(cablesOf(scene).map(({ circuit, partings }) => [circuit.id, partings]));
  return cablesOf(cut.scene).flatMap(({ circuit, partings }) => {
    const known = before.get(circuit.id) ?? [];
    const fresh = partings
      .filter(({ x, y }) => !known.some((one) => one.x === x && one.y === y))
      .map(({ x, y }) => ({ x, y }));
    return fresh.length > 0 ? [{ circuit, fresh }] : [];
  });
}

/** Proposed fixes by rule, in the order in which they are tried. */
export const CARRY_FIXES: Readonly<Record<string, FixesOf>> = {
  'module-passage': (scene, finding) => {
    const module = namedThing(scene, finding, 'module');
    return module ? splits(scene, module) : [];
  },
  'crate-unfit': (scene, finding) => {
    const handling = namedThing(scene, finding, 'handling');
    const crates = listOf(scene, 'crate').filter(({ id }) => id !== handling?.crate);
    return handling
      ? [
          ...crates.map((crate) => ({
            words: `Pack it in “${crate.name}”`,
            changes: [patch('handling', handling, { crate: crate.id })],
          })),
          {
            words: 'Let it go into any crate, or bare',
            changes: [patch('handling', handling, { packing: 'auto' })],
          },
        ]
      : [];
  },
};
