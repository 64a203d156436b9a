import { useState } from 'react';
import { Link } from 'react-router';
import { MM_PER_STUD } from '@quarry/core/grid';
import { type Place, type Scene } from '@quarry/core/document';
import { publicDistance } from '@quarry/core/visibility';
import { currentPlace, evaluateBarriers, evaluateSightLines, highestTable } from '@quarry/core/venue';
import { useEdit, useLink } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField, QuantityField } from '../../ui/fields.tsx';
import { Basis, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';

const WHO = {
  adult: 'Adult',
  seated: 'In a wheelchair',
  child: 'Child',
  shoulders: 'On shoulders',
} as const;
/** Fields of a place about its visitors. */
const EYES = [
  { height: 'eyeAdult', label: 'Eyes of an adult', share: 'shareAdult', who: 'Adults' },
  { height: 'eyeSeated', label: 'Eyes in a wheelchair', share: 'shareSeated', who: 'In a wheelchair' },
  { height: 'eyeChild', label: 'Eyes of a child', share: 'shareChild', who: 'Children' },
  { height: 'eyeShoulders', label: 'Eyes on shoulders', share: 'shareShoulders', who: 'On shoulders' },
] as const;

/** The public's side: barriers and aisles, eye heights, and what a front hides from them. */
export function PublicPanel({ scene, disabled }: { scene: Scene; disabled: boolean }) {
  const edit = useEdit();
  const { id } = useLink();
  const { say } = useMeasureFormat();
  const [front, setFront] = useState(30);
  const place = currentPlace(scene);
  if (!place) return null;
  const barriers = evaluateBarriers(scene);
  const set = (what: string, fields: Partial<Place>) => edit.patch(`changed ${what}`, 'place', place, fields);
  const size = { measure: 'mm', min: 100, max: 10_000, disabled } as const;
  const distance = publicDistance(scene);
  const top = highestTable(scene);
  return (
    <>
      <Heading>Barriers and aisles</Heading>
      {barriers.length === 0 && (
        <p className="ink-2">None: add a barrier above to see the aisle it leaves.</p>
      )}
      <dl>
        {barriers.map(({ barrier, toScene, aisle }) => (
          <DefinitionRow
            key={barrier.id}
            label={barrier.name}
            note={toScene === null ? undefined : `${say(Math.round(toScene), 'mm')} from the scene`}
          >
            {aisle === null ? (
              'open floor behind it'
            ) : (
              <span className={aisle < place.aisle ? 'text-error' : ''}>
                {aisle < place.aisle && '! '}
                {say(Math.round(aisle), 'mm')} clear behind it
              </span>
            )}
          </DefinitionRow>
        ))}
      </dl>
      <QuantityField
        label="Aisle asked for"
        value={place.aisle}
        {...size}
        onCommit={(aisle) => set('the aisle', { aisle })}
      />
      <p className="ink-2 text-xs">
        One published example: {say(915, 'mm')} clear (36 in, 2010 ADA Standards 403.5.1). Local rules decide.
      </p>
      <Heading aside={`${say(Math.round(distance), 'mm')} from the front`}>Sight lines</Heading>
      <QuantityField
        label="A front as high as"
        value={front}
        measure="plates"
        min={1}
        max={600}
        onCommit={setFront}
      />
      <DataTable
        label="Eyes of the public"
        rows={evaluateSightLines(place, top, distance, front)}
        keyOf={({ who }) => who}
        columns={[
          { head: 'Who', cell: ({ who }) => WHO[who] },
          {
            head: 'Over the table',
            number: true,
            cell: ({ above }) => `${say(Math.abs(above), 'mm')}${above < 0 ? ' below' : ''}`,
            tone: ({ above }) => (above <= 0 ? 'warning' : null),
          },
          {
            head: 'Hidden depth',
            number: true,
            cell: ({ hidden }) =>
              hidden === null ? 'everything' : `${(hidden / MM_PER_STUD).toFixed(0)} studs`,
          },
        ]}
      />
      {EYES.map(({ height, label }) => (
        <QuantityField
          key={height}
          label={label}
          value={place[height]}
          {...size}
          max={2500}
          onCommit={(value) => set('the eye heights', { [height]: value })}
        />
      ))}
      <Heading aside="parts of all visitors; 0: none come">Who comes</Heading>
      {EYES.map(({ share, who }) => (
        <NumberField
          key={share}
          label={who}
          value={place[share]}
          min={0}
          max={100}
          disabled={disabled}
          onCommit={(value) => set('who comes', { [share]: value })}
        />
      ))}
      <p className="text-xs py-2">
        What of each section, building and small scene is seen from there:{' '}
        <Link className="link" to={`/d/${id}/sight`}>
          Sight
        </Link>
      </p>
      <Basis>
        The aisle is the least clear width behind a barrier, square to it, to a wall, table or obstacle. A
        front of height h on the table hides distance × h ÷ (eye over the table − h) behind it, by similar
        triangles; the highest table counts. Eye heights are from memory, those on shoulders and who comes are
        guesses: put in your own. On Sight each visitor counts by these parts.
      </Basis>
    </>
  );
}
