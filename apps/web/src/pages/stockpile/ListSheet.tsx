import { countOf, formatPercent, formatSum } from '@quarry/core/grid';
import { copiesNeeded, fitKits } from '@quarry/core/materials';
import { fileName, writeCsv } from '@quarry/core/formats';
import { priceOfLines } from '@quarry/core/masonry';
import { LIST_PURPOSES, displayOf, listOf, type PartLine, type PartList } from '@quarry/core/document';
import { useEdit, useScene } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { CheckField, NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { personOptions, sectionOptions } from '../../ui/picks.ts';
import { RemoveButton } from '../../ui/rows.tsx';
import { PartColour } from '../../ui/Swatch.tsx';
import { save } from '../../ui/save.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { piecesOf } from './piecesOf.ts';

const PURPOSES: Record<(typeof LIST_PURPOSES)[number], string> = {
  building: 'a building',
  figures: 'figures and casts',
  ground: 'ground',
  planting: 'planting',
  lights: 'lights',
  other: 'something else',
};

interface ListProps {
  list: PartList;
  plans: boolean;
}

/** Sets fields of a list, with the words for the history. */
function useSetList(list: PartList) {
  const edit = useEdit();
  return (what: string, fields: Partial<PartList>) =>
    edit.patch(`${what} of ${list.name}`, 'partList', list, fields);
}

/** One list: its lines, what it is for, and how far kits go for it. */
export function ListSheet({ list, plans, onGone }: ListProps & { onGone: () => void }) {
  const edit = useEdit();
  return (
    <div className="grid gap-8 grid-cols-1 xl:grid-cols-[minmax(0,1fr)_300px] items-start">
      <section aria-label={`Lines of ${list.name}`}>
        <div className="flex items-center gap-2">
          <h2 className="font-bold text-base flex-1">{list.name}</h2>
          <button
            type="button"
            className="btn btn-xs btn-ghost"
            onClick={() =>
              save(
                new Blob(
                  [
                    writeCsv([
                      ['part', 'colour', 'qty'],
                      ...list.lines.map(({ part, colour, qty }) => [part, colour, qty]),
                    ]),
                  ],
                  { type: 'text/csv' },
                ),
                fileName([list.name], 'csv'),
              )
            }
          >
            CSV
          </button>
          {plans && (
            <RemoveButton
              what={list.name}
              disabled={false}
              onClick={() =>
                edit.remove(`removed the list ${list.name}`, 'partList', list.id, list.v) && onGone()
              }
            />
          )}
        </div>
        <ListLines list={list} plans={plans} />
      </section>
      <aside>
        <Heading>The list</Heading>
        <ListForm list={list} plans={plans} />
        {list.use === 'need' && list.kitsOnly && <KitShare list={list} />}
        {list.use === 'need' && !list.kitsOnly && <FromKits list={list} />}
        {list.use === 'kit' && <KitLeft list={list} />}
      </aside>
    </div>
  );
}

/** So many lines are shown; the CSV has all. */
const MAX_SHOWN = 400;

function ListLines({ list, plans }: ListProps) {
  const set = useSetList(list);
  return (
    <>
      <DataTable
        label={`Lines of ${list.name}`}
        rows={list.lines.slice(0, MAX_SHOWN).map((line, i) => ({ line, i }))}
        keyOf={({ line }) => `${line.part} ${line.colour}`}
        columns={[
          { head: 'Part', cell: ({ line }) => <PartColour {...line} /> },
          {
            head: 'Pieces',
            number: true,
            cell: ({ line, i }) => (
              <span className="inline-block w-24">
                <NumberField
                  label={`Pieces of ${line.part} in ${line.colour}`}
                  bare
                  whole
                  value={line.qty}
                  min={0}
                  max={1_000_000}
                  disabled={!plans}
                  onCommit={(qty) =>
                    set('changed a line', {
                      lines: list.lines.map((one, k) => (k === i ? { ...one, qty: qty ?? 0 } : one)),
                    })
                  }
                />
              </span>
            ),
          },
          ...(list.copies > 1
            ? [
                {
                  head: 'In all',
                  number: true as const,
                  cell: ({ line }: { line: PartLine }) => (line.qty * list.copies).toLocaleString('en'),
                },
              ]
            : []),
        ]}
      />
      {list.lines.length > MAX_SHOWN && (
        <p className="ink-2 text-xs pt-1">
          {list.lines.length - MAX_SHOWN} more lines: take the CSV to see them all.
        </p>
      )}
    </>
  );
}

function ListForm({ list, plans }: ListProps) {
  const set = useSetList(list);
  return (
    <>
      <TextField
        label="Name"
        required
        value={list.name}
        disabled={!plans}
        onCommit={(name) => set('renamed', { name })}
      />
      <NumberField
        label={list.use === 'kit' ? 'Copies owned' : 'How many of it'}
        whole
        value={list.copies}
        min={1}
        max={1000}
        disabled={!plans}
        onCommit={(copies) => set('changed the copies', { copies: copies ?? 1 })}
      />
      {list.use === 'need' ? <NeedFields {...{ list, plans }} /> : <KitFields {...{ list, plans }} />}
      <TextField
        label="Notes"
        long
        max={2000}
        value={list.notes}
        disabled={!plans}
        onCommit={(notes) => set('changed the notes', { notes })}
      />
    </>
  );
}

/** What a list of what is needed is for, and where its parts may come from. */
function NeedFields({ list, plans }: ListProps) {
  const scene = useScene('section', 'plot');
  const set = useSetList(list);
  return (
    <>
      <SelectField
        label="For"
        value={list.purpose}
        options={LIST_PURPOSES.map((value) => ({ value, word: PURPOSES[value] }))}
        disabled={!plans}
        onCommit={(purpose) => set('changed the purpose', { purpose })}
      />
      <SelectField
        label="Section"
        value={list.section ?? ''}
        options={sectionOptions(scene, 'none')}
        disabled={!plans}
        onCommit={(section) => set('moved', { section: section === '' ? null : section })}
      />
      <SelectField
        label="Is the list of"
        value={list.plot ?? ''}
        options={[
          { value: '', word: 'no building in particular' },
          ...listOf(scene, 'plot').map(({ id, name }) => ({ value: id, word: name })),
        ]}
        disabled={!plans}
        onCommit={(plot) => set('changed the building', { plot: plot === '' ? null : plot })}
      />
      <CheckField
        label="Only from these kits"
        value={list.kitsOnly}
        disabled={!plans}
        onCommit={(kitsOnly) => set('changed the source', { kitsOnly })}
      />
    </>
  );
}

/** Whose a kit is, and what it cost. */
function KitFields({ list, plans }: ListProps) {
  const scene = useScene('display', 'person');
  const { currency } = displayOf(scene);
  const set = useSetList(list);
  return (
    <>
      <SelectField
        label="Whose"
        value={list.owner ?? ''}
        options={personOptions(scene, 'everybody’s')}
        disabled={!plans}
        onCommit={(owner) => set('changed the owner', { owner: owner === '' ? null : owner })}
      />
      <NumberField
        label="One cost"
        money
        unit={currency}
        value={list.price}
        min={0}
        max={1e6}
        disabled={!plans}
        onCommit={(price) => set('changed the price', { price: price ?? 0 })}
      />
    </>
  );
}

/** How much of a list the kits would make by themselves. */
function FromKits({ list }: { list: PartList }) {
  const scene = useScene('partList', 'partType');
  const kits = listOf(scene, 'partList').filter(({ use }) => use === 'kit');
  if (kits.length === 0) return null;
  const need = list.lines.map((line) => ({ ...line, qty: line.qty * list.copies }));
  const fit = fitKits(need, kits, scene.partType);
  return (
    <>
      <Heading aside="if they were the only source">From the kits alone</Heading>
      <dl>
        <DefinitionRow label="Fits">
          {fit.needed > 0 ? formatPercent(fit.fits / fit.needed) : '–'}
        </DefinitionRow>
        <DefinitionRow
          label="Missing"
          note={fit.missing.length > 0 ? countOf(fit.missing.length, 'line') : undefined}
        >
          {countOf(
            fit.missing.reduce((sum, { qty }) => sum + qty, 0),
            'piece',
          )}
        </DefinitionRow>
        {kits.map((kit) => {
          const copies = copiesNeeded(
            need.filter(({ part, colour }) =>
              kit.lines.some((line) => line.part === part && line.colour === colour),
            ),
            kit.lines,
          );
          return (
            <DefinitionRow key={kit.id} label={`${kit.name}: copies for what it has`}>
              {copies ?? 'never'}
            </DefinitionRow>
          );
        })}
      </dl>
      <Lines lines={fit.missing} />
      <Basis>
        This list by itself against all kits, whatever else uses them: the lines are taken out of the kits’
        lines times their copies, exact colours first.
      </Basis>
    </>
  );
}

function Lines({ lines }: { lines: readonly PartLine[] }) {
  return (
    <ul className="text-xs">
      {lines.slice(0, 12).map((line) => (
        <li key={`${line.part} ${line.colour}`} className="border-b hair py-0.5">
          {line.qty} × <PartColour {...line} />
        </li>
      ))}
      {lines.length > 12 && <li className="ink-2">and {countOf(lines.length - 12, 'line')} more</li>}
    </ul>
  );
}

/** What the kits give a list that may only be built from them, with all other such lists: as on Needs. */
function KitShare({ list }: { list: PartList }) {
  const rows = useDerived(({ materials }) => materials?.rows);
  if (!rows) return <Loading what="Counting what the kits give" />;
  const own = rows.filter(({ demand }) => demand.list === list.id);
  const needed = own.reduce((sum, { demand }) => sum + demand.qty, 0);
  const missing = own
    .filter(({ short }) => short > 0)
    .map(({ demand: { part, colour }, short }) => ({ part, colour, qty: short }));
  const short = piecesOf(missing);
  return (
    <>
      <Heading aside="the only source">From the kits</Heading>
      <dl>
        <DefinitionRow label="Fits">
          {needed > 0 ? formatPercent((needed - short) / needed) : '–'}
        </DefinitionRow>
        <DefinitionRow
          label="Missing"
          note={missing.length > 0 ? `${countOf(missing.length, 'line')}, not bought` : undefined}
        >
          {countOf(short, 'piece')}
        </DefinitionRow>
      </dl>
      <Lines lines={missing} />
      <Basis>
        All lists that may only be built from kits share them, one after the other; exact colours first. The
        same numbers stand under Needs, without spares. What is missing is a finding and never goes to Buy.
      </Basis>
    </>
  );
}

/** What nothing takes of a kit: by name, with what it would fetch. */
function KitLeft({ list }: { list: PartList }) {
  const scene = useScene('partType', 'display');
  const materials = useDerived(({ materials }) => materials);
  if (!materials) return null;
  const left = materials.supplies
    .filter(({ id, kind }) => kind === 'kit' && id.startsWith(`kit ${list.id} `))
    .map(({ id, part, colour }) => ({ part, colour, qty: materials.left.get(id) ?? 0 }))
    .filter(({ qty }) => qty > 0);
  const price = priceOfLines(left, scene.partType);
  return (
    <>
      <Heading aside={countOf(piecesOf(left), 'piece')}>Left over, to trade</Heading>
      <dl>
        <DefinitionRow label="Would fetch" note="prices typed, else guesses">
          {formatSum(price)} {displayOf(scene).currency}
        </DefinitionRow>
      </dl>
      <Lines lines={left} />
    </>
  );
}
