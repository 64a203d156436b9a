import { CATALOGUE, partName, partOf } from '../catalogue/index.ts';
import { formatPlates } from '../grid/index.ts';
import { namedThing, patch, type FixesOf } from './fix.ts';

// Remedies for walls whose arches, windows or doors find no room.

export const WALL_FIXES: Readonly<Record<string, FixesOf>> = {
  'wall-arches': (scene, finding) => {
    const run = namedThing(scene, finding, 'run');
    const least = finding.numbers.least;
    if (!run) return [];
    const higher =
      least === undefined
        ? []
        : [
            {
              words: `Build “${run.name}” ${formatPlates(least)} high`,
              changes: [patch('run', run, { height: least })],
            },
          ];
    // The widest that fit first.
    const others = CATALOGUE.filter(({ family, id }) => family === 'arch' && id !== run.arches)
      .toSorted((a, b) => Math.max(b.w, b.d) - Math.max(a.w, a.d) || a.h - b.h)
      .map(({ id }) => ({
        words: `Give “${run.name}” ${partName(id)} at its face`,
        changes: [patch('run', run, { arches: id })],
      }));
    return [
      ...others,
      ...higher,
      { words: `Build “${run.name}” without arches`, changes: [patch('run', run, { arches: null })] },
    ];
  },
  'wall-openings': (scene, finding) => {
    const run = namedThing(scene, finding, 'run');
    const at = finding.numbers.panel;
    const opening = run?.openings.find((one) => one.at === at);
    if (!run || !opening) return [];
    const asked = partOf(opening.part);
    const others = run.openings.filter((one) => one !== opening);
    const taken = new Set(others.map((one) => one.at));
    const set = (openings: typeof others) => [patch('run', run, { openings })];
    const last = finding.numbers.panels ?? 0;
    const free = Array.from({ length: Math.max(0, last) }, (_, i) => last - i).find((one) => !taken.has(one));
    const isArch = asked?.family === 'arch';
    // The largest of its kind that fits first.
    const smaller = CATALOGUE.filter(({ family, id }) => family === asked?.family && id !== opening.part)
      .toSorted((a, b) => b.w * b.h - a.w * a.h || a.d - b.d)
      .map(({ id }) => ({
        words: `Let the ${partName(id)} into panel ${opening.at} of “${run.name}”`,
        changes: set([...others, { ...opening, part: id }]),
      }));
    return [
      ...(free !== undefined && opening.at > last
        ? [
            {
              words: `Put it into panel ${free} of “${run.name}”`,
              changes: set([...others, { ...opening, at: free }]),
            },
          ]
        : []),
      ...(isArch && opening.sill === 0
        ? [
            {
              words: `Put it on piers of a brick in “${run.name}”`,
              changes: set([...others, { ...opening, sill: 1 }]),
            },
          ]
        : []),
      ...Array.from({ length: opening.sill }, (_, i) => opening.sill - 1 - i).map((sill) => ({
        words: `Put it ${sill === 0 ? 'on the foot of the wall' : `${sill} courses up`} in “${run.name}”`,
        changes: set([...others, { ...opening, sill }]),
      })),
      ...smaller,
      { words: `Leave it out of “${run.name}”`, changes: set(others) },
    ];
  },
};
