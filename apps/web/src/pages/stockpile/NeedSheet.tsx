import { formatSum } from '@quarry/core/grid';
import { useMemo } from 'react';
import { colourName, partName } from '@quarry/core/catalogue';
import { PURPOSE_WORDS, substitutionsFor, coloursKnown, type Substitution } from '@quarry/core/materials';
import { gramsOfPart } from '@quarry/core/catalogue';
import { priceOfPart } from '@quarry/core/masonry';
import { displayOf, listOf } from '@quarry/core/document';
import {
  freshId,
  useDisplay,
  useEdit,
  useDenialReason,
  useIsPlanner,
  useScene,
} from '../../data/useDisplay.tsx';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { PartColour, Swatch } from '../../ui/Swatch.tsx';
import { dayWord } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';
import type { NeedRow } from './rows.ts';

const HOW = {
  own: 'own stock',
  promised: 'promised',
  handed: 'from',
  ordered: 'on order',
  late: 'on order, late',
  substitute: 'substitute',
} as const;

/** One need: where it comes from, what covers it, what may stand in for it, and what its part is known to weigh and cost. */
export function NeedSheet({ row, onClose }: { row: NeedRow; onClose: () => void }) {
  const { demand } = row;
  return (
    <>
      <div className="flex items-start justify-between gap-2">
        <h2 className="font-bold text-base leading-5">
          <Swatch colour={row.colour} /> {row.partWord} in {row.colourWord}
        </h2>
        <button type="button" className="btn btn-xs btn-ghost" onClick={onClose}>
          Close
        </button>
      </div>
      <p className="ink-2 text-xs pb-1">
        for {row.sectionWord}
        {demand.counted > 0 && `, built by ${row.owner}`}
        {row.sourceWord && `, ${row.sourceWord}`}
        {row.by && `, needed by ${dayWord(row.by)}`}
      </p>
      <dl>
        {demand.needs.map((need) => (
          <DefinitionRow key={need.purpose} label={PURPOSE_WORDS[need.purpose]} note={need.from.join(', ')}>
            {need.qty.toLocaleString('en')}
          </DefinitionRow>
        ))}
        <DefinitionRow label="Needed">{demand.qty.toLocaleString('en')}</DefinitionRow>
      </dl>
      <CoveredBy row={row} />
      <Promises row={row} />
      <StandIns row={row} />
      <ThePart row={row} />
    </>
  );
}

/** What covers it, from whom and where. */
function CoveredBy({ row }: { row: NeedRow }) {
  const scene = useScene('person');
  const materials = useDerived(({ materials: known }) => known);
  const byId = useMemo(() => new Map(materials?.supplies.map((one) => [one.id, one])), [materials]);
  return (
    <>
      <Heading aside={row.short > 0 ? <span className="text-error">{row.short} short</span> : 'all covered'}>
        Covered by
      </Heading>
      <dl>
        {row.given.map((given) => {
          const supply = byId.get(given.supply);
          const whose = supply?.person ? (scene.person[supply.person]?.name ?? supply.person) : 'everybody’s';
          return (
            <DefinitionRow
              key={`${given.supply} ${given.how}`}
              label={
                given.how === 'handed' || given.how === 'promised'
                  ? `${HOW[given.how]} ${whose}`
                  : HOW[given.how]
              }
              note={`${supply?.place ?? ''}${supply?.kind === 'order' ? `, ${supply.from ? dayWord(supply.from) : 'no day known'}` : ''}${row.colour === 'any' && supply ? `, ${colourName(supply.colour)}` : ''}${supply?.isWorn ? ', worn' : ''}`}
            >
              {given.qty.toLocaleString('en')}
            </DefinitionRow>
          );
        })}
      </dl>
      {row.given.length === 0 && <p className="ink-2 text-xs">Nobody has any.</p>}
    </>
  );
}

/** Who puts pieces by for its section. */
function Promises({ row }: { row: NeedRow }) {
  const scene = useScene('person', 'promise');
  const edit = useEdit();
  const plans = useIsPlanner();
  const may = useDenialReason();
  const givers = listOf(scene, 'person').filter(({ id }) => id !== row.demand.person);
  return (
    <>
      {plans && row.section !== null && givers.length > 0 && (
        <SelectField
          label="Put by for it from"
          value=""
          options={[
            { value: '', word: 'nobody in particular' },
            ...givers.map(({ id, name }) => ({ value: id, word: name })),
          ]}
          onCommit={(person) =>
            person !== '' &&
            edit.add(`put ${row.partWord} by for ${row.sectionWord}`, 'promise', freshId('promise'), {
              ...{ part: row.part, colour: row.colour, person, section: row.section },
              qty: Math.max(1, row.short || row.qty),
            })
          }
        />
      )}
      {listOf(scene, 'promise')
        .filter((one) => one.part === row.part && one.section === row.section)
        .map((one) => (
          <div key={one.id} className="text-xs flex justify-between gap-2 border-b hair py-0.5">
            <div className="min-w-0 flex-1">
              {scene.person[one.person ?? '']?.name} puts {one.qty} by
              <TextField
                label="Note"
                max={200}
                value={one.note}
                disabled={may({ op: 'patch', kind: 'promise', id: one.id, v: one.v, set: {} }) !== null}
                onCommit={(note) => edit.patch('noted something of a promise', 'promise', one, { note })}
              />
            </div>
            {may({ op: 'remove', kind: 'promise', id: one.id, v: one.v }) === null && (
              <button
                type="button"
                className="btn btn-xs btn-ghost"
                onClick={() => edit.remove('let a promise go', 'promise', one.id, one.v)}
              >
                Let go
              </button>
            )}
          </div>
        ))}
    </>
  );
}

/** What may stand in for it, and what was accepted to. */
function StandIns({ row }: { row: NeedRow }) {
  const scene = useScene('display', 'partType', 'substitute');
  const materials = useDerived(({ materials: known }) => known);
  const edit = useEdit();
  const plans = useIsPlanner();
  const { currency } = displayOf(scene);
  const spare = useMemo(() => {
    const stock = new Map<string, number>();
    for (const supply of materials?.supplies ?? [])
      if (supply.kind !== 'order') {
        const key = `${supply.part} ${supply.colour}`;
        stock.set(key, (stock.get(key) ?? 0) + (materials?.left.get(supply.id) ?? 0));
      }
    return stock;
  }, [materials]);
  const alternatives = substitutionsFor(row.part, row.colour, spare, scene.partType);
  const accepted = listOf(scene, 'substitute').filter(
    (one) => one.part === row.part && one.colour === row.colour,
  );
  const accept = (one: Substitution, section: string | null) =>
    edit.add(
      `accepted ${one.use.map(({ part, colour, qty }) => `${qty} × ${partName(part)} in ${colourName(colour)}`).join(', ')} for ${row.partWord} in ${row.colourWord}`,
      'substitute',
      freshId('substitute'),
      { part: row.part, colour: row.colour, use: one.use, section },
    );
  return (
    <>
      <Heading aside="by look, joints and money">What may stand in</Heading>
      <ul className="text-xs" data-alternatives>
        {accepted.map((one) => (
          <li key={one.id} className="border-b hair py-1 flex items-center gap-2">
            <span className="flex-1">
              accepted {one.section ? 'here' : 'always'}:{' '}
              {one.use.map((line) => (
                <span key={line.part}>
                  {line.qty} × <PartColour {...line} />
                </span>
              ))}
            </span>
            {plans && (
              <button
                type="button"
                className="btn btn-xs btn-ghost"
                onClick={() => edit.remove('took an accepted substitute back', 'substitute', one.id, one.v)}
              >
                Take back
              </button>
            )}
          </li>
        ))}
        {alternatives.slice(0, 5).map((one) => (
          <li key={JSON.stringify(one.use)} className="border-b hair py-1">
            {one.use.map((line) => (
              <span key={line.part}>
                {line.qty > 1 && `${line.qty} × `}
                <PartColour {...line} />
              </span>
            ))}
            <div className="ink-2 flex flex-wrap gap-x-2 items-center">
              <span>{one.off === 0 ? 'same colour' : `colour off by ${one.off.toFixed(1)}`}</span>
              <span>
                {one.more === 0
                  ? 'no more joints'
                  : `${one.more} more ${one.more === 1 ? 'piece' : 'pieces'} each`}
              </span>
              <span>
                {one.dearer >= 0 ? '+' : '−'}
                {formatSum(Math.abs(one.dearer))} {currency} each
              </span>
              <span className={one.makes > 0 ? 'text-success' : ''}>stock makes {one.makes}</span>
              {plans && (
                <span className="ml-auto">
                  <button
                    type="button"
                    className="btn btn-xs btn-ghost"
                    onClick={() => accept(one, row.section)}
                  >
                    Here
                  </button>
                  <button type="button" className="btn btn-xs btn-ghost" onClick={() => accept(one, null)}>
                    Always
                  </button>
                </span>
              )}
            </div>
          </li>
        ))}
        {alternatives.length === 0 && (
          <li className="ink-2">Nothing makes this size or comes near its colour.</li>
        )}
      </ul>
    </>
  );
}

/** In which colours its part comes, what one weighs and costs. */
function ThePart({ row }: { row: NeedRow }) {
  const scene = useDisplay(({ scene: all }) => all);
  const edit = useEdit();
  const may = useDenialReason();
  const { currency } = displayOf(scene);
  const type = scene.partType[row.part];
  const typeChange = { op: 'add' as const, kind: 'partType' as const, id: row.part, data: {} };
  const know = (
    label: string,
    set: { grams?: number | null; price?: number | null; spares?: number | null },
  ) =>
    type
      ? edit.patch(label, 'partType', type, set)
      : edit.add(label, 'partType', row.part, { family: row.family, ...set });
  const known = coloursKnown(scene, row.part);
  const { price, guess } = priceOfPart(row.part, scene.partType);
  return (
    <>
      <Heading>The part</Heading>
      <p className="text-xs py-0.5" data-known>
        {known.length === 0 ? (
          <span className="ink-2">Nobody knows yet in which colours it comes.</span>
        ) : (
          <>
            Known in{' '}
            {known.map((colour, i) => (
              <span key={colour}>
                {i > 0 && ', '}
                <Swatch colour={colour} size={10} /> {colourName(colour)}
              </span>
            ))}
            {!known.includes(row.colour) && row.colour !== 'any' && (
              <b className="text-error"> – not seen in {row.colourWord} yet</b>
            )}
          </>
        )}
      </p>
      <NumberField
        label="One weighs"
        unit="g"
        optional={gramsOfPart(row.part, scene.partType).toFixed(2)}
        value={type?.grams ?? null}
        min={0.01}
        max={5000}
        disabled={may(typeChange) !== null}
        onCommit={(grams) => know(`weighed ${row.partWord}`, { grams })}
        hint={type?.grams ? 'as weighed' : 'by its volume, until weighed'}
      />
      <NumberField
        label="One costs"
        money
        unit={currency}
        optional={formatSum(price)}
        value={type?.price ?? null}
        min={0}
        max={100000}
        disabled={may(typeChange) !== null}
        onCommit={(value) => know(`priced ${row.partWord}`, { price: value })}
        hint={guess ? 'a guess by its mass' : 'as typed'}
      />
    </>
  );
}
