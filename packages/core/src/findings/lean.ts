import { centreOf, countOf, formatPercent } from '../grid/index.ts';
import { SIDE_WORDS, displayOf, listOf, type Entity, type Scene } from '../document/index.ts';
import { listedMass, weightOf, type ListedMass } from '../terrain/index.ts';
import { MAX_UNTIED, leanCard, overhangCards, type LeanCard } from '../stability/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';
import { plotRef } from './plots.ts';

// Buildings that lean on purpose or stand out over their walls: what holds them, and the ties along them.

function leaning(
  scene: Scene,
  judge: (plot: Entity<'plot'>, card: LeanCard) => FindingDraft[],
): FindingDraft[] {
  const { studHold } = displayOf(scene);
  const listed: ListedMass = listedMass(scene);
  return listOf(scene, 'plot').flatMap((plot) => {
    const card = leanCard(plot, weightOf(plot, listed), studHold);
    return card ? judge(plot, card) : [];
  });
}

const leanHold: Rule = {
  id: 'lean-hold',
  title: 'A leaning building comes off its foot',
  basis:
    'Moment of its mass about the nearest edge of its foot against the pull of all its studs, each at its own lever: grams a stud are a guess that the display sets (Cut, Stability). What stands loose has no pull. The mass by its list or its plain shell.',
  page: 'plan',
  severity: 'error',
  check: ({ scene }) =>
    leaning(scene, (plot, { share }) => {
      if (share <= 1) return [];
      const { studHold } = displayOf(scene);
      const needs = Number.isFinite(share)
        ? `needs ${formatPercent(share)} of what the studs of its foot hold, at ${studHold} g each`
        : 'stands loose with its mass beyond its foot, and 0 studs hold it';
      return [
        {
          sentence: `“${plot.name}” leans by ${plot.lean}° and ${needs}.`,
          remedy: 'Lean it less, give it a wider foot, pin it, or tie it to something behind it.',
          place: centreOf(plot),
          things: [plotRef(plot)],
          numbers: {
            lean: plot.lean,
            ...(Number.isFinite(share) ? { share: Number(share.toFixed(2)) } : {}),
          },
        },
      ];
    }),
};

const leanTies: Rule = {
  id: 'lean-ties',
  title: 'A leaning building has too few ties',
  basis: `Its length along the slope against its ties: one each ${MAX_UNTIED} studs at least, rigid, not hinged (common practice, no source).`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    leaning(scene, (plot, { length, ties, wanted }) =>
      ties >= wanted
        ? []
        : [
            {
              sentence: `“${plot.name}” leans by ${plot.lean}° over ${length.toFixed(1)} studs with ${countOf(ties, 'tie')}; ${countOf(wanted, 'tie')} at least are wanted, one each ${MAX_UNTIED} studs.`,
              remedy: `Tie it rigidly each ${MAX_UNTIED} studs or closer.`,
              place: centreOf(plot),
              things: [plotRef(plot)],
              numbers: { ties, wanted },
            },
          ],
    ),
};

const overhangHold: Rule = {
  id: 'overhang-hold',
  title: 'What stands out of a building comes off',
  basis:
    'What stands out over one wall as a cantilever: the moment of its mass about the face of the wall, against the pull of the wall’s studs at that height and the weight of the wall over them. Grams a stud are a guess that the display sets (Cut, Stability); what stands under it and ties into floors are left out. The mass by its list or its plain shell.',
  page: 'plan',
  severity: 'error',
  check({ scene }) {
    const { studHold } = displayOf(scene);
    const listed = listedMass(scene);
    return listOf(scene, 'plot').flatMap((plot) =>
      overhangCards(plot, listed, studHold).flatMap(({ side, grams, share, most }): FindingDraft[] => {
        if (share <= 1) return [];
        const by = plot.overhang[side];
        return [
          {
            sentence: `“${plot.name}” stands out ${countOf(by, 'stud')} to the ${SIDE_WORDS[side]}, ${Math.round(grams)} g: it needs ${formatPercent(share)} of what the wall under it holds, at ${studHold} g a stud.`,
            remedy:
              most > 0
                ? `Let it stand out ${countOf(most, 'stud')} at most, stand it on something, or make the wall thicker.`
                : 'Stand it on something, or make the wall thicker.',
            place: centreOf(plot),
            part: side,
            things: [plotRef(plot)],
            numbers: { by, most, share: Number(share.toFixed(2)) },
          },
        ];
      }),
    );
  },
};

export const LEAN_RULES: readonly Rule[] = [leanHold, leanTies, overhangHold];
