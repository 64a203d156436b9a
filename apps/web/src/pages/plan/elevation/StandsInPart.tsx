import { useState } from 'react';
import { ANY_COLOUR, colourName, partName } from '@quarry/core/catalogue';
import { SIDE_WORDS, listOf, sectionOfEntity, type Entity } from '@quarry/core/document';
import { placeOfOpening, type PlacedBay, type WallOpening } from '@quarry/core/structures';
import { freshId, useDenialReason, useDisplay, useEdit } from '../../../data/useDisplay.tsx';
import { PALETTE_CHOICES, FIRST_COLOUR } from '../../../ui/fieldSpec.ts';
import { SelectField } from '../../../ui/fields.tsx';
import { today } from '../../../ui/days.ts';

/** Notes that what is let into a bay stands there in a wrong colour, to be swapped on Stockpile. */
export function StandsInPart({
  plot,
  bay: { side, storey, index },
  opening,
}: {
  plot: Entity<'plot'>;
  bay: Pick<PlacedBay, 'side' | 'storey' | 'index'>;
  opening: WallOpening;
}) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const [stands, setStands] = useState(FIRST_COLOUR);
  const { letInColour: colour } = plot;
  const where = `${plot.name}, ${SIDE_WORDS[side]} front, storey ${storey}, bay ${index + 1}`;
  const noted = listOf(scene, 'placeholder').find(
    (one) => one.swapped === null && one.part === opening.part.id && one.notes === where,
  );
  if (noted)
    return (
      <p className="text-xs py-1">
        Stands in {colourName(noted.stands)}, should be {colourName(noted.colour)}: noted on Stockpile,
        Placeholders.
      </p>
    );
  if (colour === ANY_COLOUR)
    return (
      <p className="ink-2 text-xs py-1">
        Windows and doors of this building may be of any colour: set theirs on its card, and one that stands
        in another colour can be noted here.
      </p>
    );
  const section = sectionOfEntity(scene, 'plot', plot.id);
  const { x, y } = placeOfOpening(plot, opening);
  const data = {
    ...{ part: opening.part.id, colour, stands, qty: 1, section, notes: where, built: today() },
    ...{ x: Math.round(2 * x) / 2, y: Math.round(2 * y) / 2 },
  };
  const denied = may({ op: 'add', kind: 'placeholder', id: 'new', data });
  return (
    <>
      <SelectField
        label="Stands in another colour"
        value={stands}
        options={PALETTE_CHOICES}
        disabled={denied !== null}
        onCommit={setStands}
      />
      <button
        type="button"
        className="btn btn-xs my-1"
        disabled={denied !== null || stands === colour}
        title={denied ?? undefined}
        onClick={() =>
          edit.add(
            `noted a placeholder: ${partName(opening.part.id)}, ${where}`,
            'placeholder',
            freshId('placeholder'),
            data,
          )
        }
      >
        Note it as a placeholder
      </button>
    </>
  );
}
