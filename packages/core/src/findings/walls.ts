import { PLATES_PER_BRICK, formatPlates, countOf } from '../grid/index.ts';
import { LEAST_PIER, openingFault, type OpeningFault } from '../terrain/index.ts';
import { partName } from '../catalogue/index.ts';
import { archOf, listOf, wallPanels, wallStraights, type Entity } from '../document/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';

// What is judged of walls and fences: ties, arches, and what is let into their panels.

/** Longest stretch without a tie, studs (common practice: each 8 to 10); lower walls stand by themselves. */
const TIE_EACH = 10;
const TIE_FROM = 6 * PLATES_PER_BRICK;

const spanTies: Rule = {
  id: 'span-ties',
  title: 'A long high wall without ties',
  basis: `Straight stretches of walls at least ${formatPlates(TIE_FROM)} high and one stud thick: a rigid tie each ${TIE_EACH} studs (common practice, 8 to 10), corners counting as one.`,
  page: 'plan',
  severity: 'note',
  check: ({ scene }) =>
    listOf(scene, 'run').flatMap((run): FindingDraft[] => {
      if (run.use !== 'wall' || run.height < TIE_FROM || run.thick > 1) return [];
      let ties = 0;
      let longest = 0;
      let at = run.points[0];
      for (const { from: a, to: b, length } of wallStraights(run)) {
        ties += Math.max(0, Math.ceil(length / TIE_EACH - 1e-9) - 1);
        if (length <= longest) continue;
        longest = length;
        at = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
      }
      if (ties === 0) return [];
      return [
        {
          sentence: `“${run.name}”, ${formatPlates(run.height)} high and ${run.thick} stud thick, runs ${longest.toFixed(0)} studs straight; it needs ${countOf(ties, 'tie')}, one each ${TIE_EACH} studs.`,
          remedy: 'Plan buttresses or ties into the ground behind, or build it thicker.',
          place: { x: at.x, y: at.y },
          things: [{ kind: 'run', id: run.id }],
          numbers: { ties, longest },
        },
      ];
    }),
};

const wallArches: Rule = {
  id: 'wall-arches',
  title: 'Arches of a wall find no room',
  basis: `A wall with arches at its face against their own height over piers of at least ${formatPlates(LEAST_PIER)}, and each straight piece or panel of it against the width of one arch. Where they find no room it is laid plain.`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'run').flatMap((run): FindingDraft[] => {
      const arch = archOf(run);
      const middle = run.points[Math.floor(run.points.length / 2)];
      const asked = { place: { x: middle.x, y: middle.y }, things: [{ kind: 'run' as const, id: run.id }] };
      if (!arch)
        return run.use === 'wall' && run.arches !== null
          ? [
              {
                ...asked,
                sentence: `“${run.name}” is to have arches at its face, and ${partName(run.arches)} is no arch; it is laid plain.`,
                remedy: 'Choose an arch.',
                numbers: {},
              },
            ]
          : [];
      const least = arch.high + LEAST_PIER;
      if (run.height < least)
        return [
          {
            ...asked,
            sentence: `“${run.name}” is ${formatPlates(run.height)} high; its arches, ${partName(arch.part)}, need ${formatPlates(least)} with their piers. It is laid plain.`,
            remedy: 'Build it higher, or choose lower arches.',
            numbers: { least, height: run.height },
          },
        ];
      const short = wallPanels(run)
        .map(({ length }) => length)
        .filter((length) => length < arch.span);
      if (short.length === 0) return [];
      return [
        {
          ...asked,
          sentence: `${countOf(short.length, 'straight piece')} of “${run.name}” ${short.length === 1 ? 'is' : 'are'} shorter than one of its arches, ${countOf(arch.span, 'stud')} wide, the shortest ${short.reduce((a, b) => Math.min(a, b)).toFixed(1)} studs; ${short.length === 1 ? 'it is' : 'they are'} laid plain.`,
          remedy: 'Choose narrower arches, or longer panels.',
          numbers: { short: short.length, span: arch.span },
        },
      ];
    }),
};

const wallOpenings: Rule = {
  id: 'wall-openings',
  title: 'A window, door or arch in a panel finds no room',
  basis:
    'What is let into the panels of a wall, or into its straight pieces: a window, a door or an arch on piers, against the whole studs of its panel, its thickness, and its height over the sill. One that finds no room is left out, and the panel is laid plain.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'run').flatMap((run): FindingDraft[] => {
      if (run.openings.length === 0) return [];
      const panels = wallPanels(run);
      return run.openings.flatMap((opening): FindingDraft[] => {
        const panel = panels.at(opening.at - 1);
        const fault = panel ? openingFault(run, opening, panel.length) : null;
        if (panel && !fault) return [];
        const { from, to, length } = panel?.straight ?? { from: run.points[0], to: run.points[0], length: 1 };
        const along = panel ? (panel.from + panel.to) / 2 / length : 0;
        const what = `The ${partName(opening.part)} in panel ${opening.at} of “${run.name}”`;
        return [
          {
            part: `panel ${opening.at}`,
            sentence: fault
              ? `${what} ${faultWords(run, fault)}. The panel is laid plain.`
              : `${what} is left out: its line has ${countOf(panels.length, 'panel')}.`,
            remedy: fault
              ? 'Choose a smaller one, a lower sill or a longer panel, or leave it out.'
              : 'Name a panel that is there.',
            place: { x: from.x + (to.x - from.x) * along, y: from.y + (to.y - from.y) * along },
            things: [{ kind: 'run', id: run.id }],
            numbers: { panel: opening.at, panels: panels.length },
          },
        ];
      });
    }),
};

function faultWords({ use }: Entity<'run'>, fault: OpeningFault): string {
  switch (fault.why) {
    case 'use':
      return `finds no place: a ${use} takes none`;
    case 'part':
      return 'is no window, door or arch';
    case 'pier':
      return `needs piers of ${formatPlates(LEAST_PIER)} at least`;
    case 'arches':
      return 'finds no place: the panel has arches at its face';
    case 'width':
      return `is ${countOf(fault.takes, 'stud')} wide, and the panel has ${countOf(fault.has, 'whole stud')}`;
    case 'depth':
      return `is ${countOf(fault.takes, 'stud')} deep, and the wall is ${countOf(fault.has, 'stud')} thick`;
    case 'height':
      return `ends ${formatPlates(fault.takes)} above its foot, and the wall is ${formatPlates(fault.has)} high`;
  }
}

export const WALL_RULES: readonly Rule[] = [spanTies, wallArches, wallOpenings];
