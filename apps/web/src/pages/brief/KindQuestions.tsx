import { runsEast, SIDE_WORDS, SIDES, displayOf, listOf, type Side } from '@quarry/core/document';
import { countOf, formatPercent } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { roomToGrow, streetFrontLength } from '@quarry/core/venue';
import { useDisplay, useScene } from '../../data/useDisplay.tsx';
import { CheckField, QuantityField } from '../../ui/fields.tsx';
import { Basis, Heading, DefinitionRow, Quantity } from '../../ui/parts.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

/** A city: how much street front it has, how much is to come, and where it can grow. */
export function CityQuestions({ disabled }: { disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const set = useSetDisplay();
  const { growth } = displayOf(scene);
  const fronts = listOf(scene, 'plot').filter(({ streetFront }) => streetFront).length;
  const room = roomToGrow(scene);
  const best = SIDES.reduce((a, b) => (room[b] > room[a] ? b : a));
  return (
    <section aria-labelledby="city">
      <Heading id="city">Growth of the city</Heading>
      <QuantityField
        label="Street front still to come"
        value={growth}
        measure="studs"
        step={1}
        min={0}
        max={4096}
        disabled={disabled}
        onCommit={(value) => set('planned more street front', { growth: value })}
      />
      <dl>
        <DefinitionRow label="Street front now" note={`${countOf(fronts, 'plot')} marked as street fronts`}>
          <Quantity value={streetFrontLength(scene)} measure="studs" />
        </DefinitionRow>
        <DefinitionRow
          label="Room to grow on the tables"
          note={SIDES.map((side) => `${SIDE_WORDS[side]} ${room[side]}`).join(' · ')}
        >
          {room[best] > 0 ? `${room[best]} studs to the ${SIDE_WORDS[best]}` : 'none'}
        </DefinitionRow>
      </dl>
      {growth > room[best] && (
        <p className="text-warning text-xs pt-1">
          △ {countOf(growth, 'stud')} are to come and the tables carry {room[best]} more on their best side.
        </p>
      )}
      <Basis>
        The widest strip along a whole side of the footprint whose every stud has its centre on a table, in
        steps of 8 studs. A street front counts with the side of its street door.
      </Basis>
    </section>
  );
}

/** A diorama or a vignette: from which sides it is looked at. */
export function ViewedFrom({ disabled }: { disabled: boolean }) {
  const scene = useScene('display', 'footprint');
  const set = useSetDisplay();
  const { viewedSides } = displayOf(scene);
  const bounds = footprintBounds(scene);
  const edge = (side: Side) => (bounds ? (runsEast(side) ? bounds.w : bounds.d) : 0);
  const all = SIDES.reduce((sum, side) => sum + edge(side), 0);
  const seen = viewedSides.reduce((sum, side) => sum + edge(side), 0);
  return (
    <section aria-labelledby="viewed">
      <Heading id="viewed">Looked at from</Heading>
      {SIDES.map((side) => (
        <CheckField
          key={side}
          label={`The ${SIDE_WORDS[side]} side`}
          value={viewedSides.includes(side)}
          disabled={disabled}
          onCommit={(on) =>
            set('changed the sides looked at', {
              viewedSides: SIDES.filter((one) => (one === side ? on : viewedSides.includes(one))),
            })
          }
        />
      ))}
      <dl>
        <DefinitionRow label="Edge that is seen" note={`of ${countOf(all, 'stud')} all round`}>
          {countOf(seen, 'stud')}, {formatPercent(all > 0 ? seen / all : 0)}
        </DefinitionRow>
      </dl>
    </section>
  );
}
