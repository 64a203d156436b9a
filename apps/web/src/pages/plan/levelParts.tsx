import { countOf, formatPlates } from '@quarry/core/grid';
import {
  displayOf,
  entityOf,
  standFieldsFor,
  standingKey,
  influenceBounds,
  standingOf,
  type Cavity,
  type Deck,
  type StandingKind,
} from '@quarry/core/document';
import {
  cavityCard,
  levelHeight,
  namedFoot,
  slabCard,
  standChoices,
  type SlabCard,
} from '@quarry/core/terrain';
import { useDisplay } from '../../data/useDisplay.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { useSetFields } from '../../ui/EntityForm.tsx';
import { Basis, DefinitionRow, Heading, Quantity } from '../../ui/parts.tsx';
import { useDerived } from '../../workers/useDerived.ts';

// What the data sheets of decks, cavities and what stands on them have beyond their plain fields.

export function DeckPart({ deck }: { deck: Deck }) {
  const scene = useDisplay(({ scene }) => scene);
  const relief = useDerived(({ ground }) => ground?.relief);
  const card = relief && slabCard(relief, 'deck', deck.id);
  return (
    <>
      <DefinitionRow label="Top at">
        <Quantity value={levelHeight(scene, deck)} measure="plates" />
      </DefinitionRow>
      {card ? (
        <SlabNumbers card={card} span={displayOf(scene).deckSpan} />
      ) : (
        relief && (
          <p className="text-xs text-warning py-1">
            The ground is as high as it everywhere: nothing of it is built.
          </p>
        )
      )}
    </>
  );
}

/** The numbers of what lies over air: a deck, or the bridges of a way. */
export function SlabNumbers({ card, span }: { card: SlabCard; span: number }) {
  return (
    <>
      <Heading>Over air</Heading>
      <dl>
        <DefinitionRow label="Covers" note={`${countOf(card.supports, 'stud')} of supports`}>
          {countOf(card.studs, 'stud')}
        </DefinitionRow>
        {card.clear && (
          <DefinitionRow
            label="Least room under it"
            note={`near ${Math.floor(card.clear.at.x)}, ${Math.floor(card.clear.at.y)}`}
          >
            <Quantity value={card.clear.plates} measure="plates" />
          </DefinitionRow>
        )}
        <DefinitionRow
          label="Farthest from a support"
          note={`near ${Math.floor(card.farAt.x)}, ${Math.floor(card.farAt.y)}; at most half of ${span}`}
        >
          {card.far === null ? 'nothing carries it' : countOf(card.far, 'stud')}
        </DefinitionRow>
      </dl>
    </>
  );
}

export function CavityPart({ cavity }: { cavity: Cavity }) {
  const scene = useDisplay(({ scene }) => scene);
  const relief = useDerived(({ ground }) => ground?.relief);
  const card = relief && cavityCard(scene, relief, cavity.id);
  return (
    <>
      <DefinitionRow label="Floor, ceiling at">
        {formatPlates(levelHeight(scene, cavity))}, {formatPlates(levelHeight(scene, cavity) + cavity.clear)}
      </DefinitionRow>
      {card ? (
        <>
          <Heading>Under its roof</Heading>
          <dl>
            <DefinitionRow label="Roofed" note={card.open > 0 ? `${card.open} open to the sky` : undefined}>
              {countOf(card.roofed, 'stud')}
            </DefinitionRow>
            {card.roof && (
              <DefinitionRow
                label="Thinnest roof"
                note={`near ${Math.floor(card.roof.at.x)}, ${Math.floor(card.roof.at.y)}`}
              >
                <Quantity value={card.roof.plates} measure="plates" />
              </DefinitionRow>
            )}
            {card.far !== null && (
              <DefinitionRow label="Roof hangs free" note={`at most half of ${displayOf(scene).deckSpan}`}>
                {countOf(card.far, 'stud')} from its walls
              </DefinitionRow>
            )}
            <DefinitionRow label="Seen into from a mouth">
              {card.depth === 0 ? 'closed all round' : countOf(card.depth, 'stud')}
            </DefinitionRow>
          </dl>
          <Basis>
            Where the ground is no higher than the ceiling, it is cut down to the floor and the sky is over
            it.
          </Basis>
        </>
      ) : (
        relief && (
          <p className="text-xs text-warning py-1">
            No ground is above its floor: there is nothing to take away.
          </p>
        )
      )}
    </>
  );
}

/** What a thing stands on: the highest surface, the ground, or a deck, a cavity's floor or a roof under it. */
export function StandPart({ kind, id, disabled }: { kind: StandingKind; id: string; disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const relief = useDerived(({ ground }) => ground?.relief);
  const set = useSetFields({ kind, id });
  const thing = entityOf(scene, kind, id);
  if (!thing || !relief) return null;
  const choices = standChoices(scene, relief, { kind, id });
  const now = standingOf(thing);
  const place = influenceBounds(kind, thing) ?? relief;
  // With nothing but the ground under it there is nothing to choose.
  if (choices.length <= 2 && now === null) return null;
  const isElsewhere = !choices.some(({ on }) => standingKey(on) === standingKey(now));
  return (
    <SelectField
      label="Stands on"
      value={standingKey(now)}
      disabled={disabled}
      options={[
        ...choices.map(({ on, word, height }) => ({
          value: standingKey(on),
          word: `${word}${height === null ? '' : `, ${formatPlates(height)}`}`,
        })),
        ...(isElsewhere
          ? [
              {
                value: standingKey(now),
                word: `what is not under it, ${formatPlates(namedFoot(scene, relief, thing, place) ?? 0)}`,
              },
            ]
          : []),
      ]}
      onCommit={(value) => {
        const choice = choices.find(({ on }) => standingKey(on) === value);
        if (choice) set('changed what it stands on:', { ...standFieldsFor(choice.on) });
      }}
    />
  );
}
