import { countOf, formatPercent } from '@quarry/core/grid';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { handoverWords, holdingsOf, type Holding } from '@quarry/core/history';
import { listOf, stageWord } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useLink, useIsPlanner } from '../../data/useDisplay.tsx';
import { Avatar, ringOf } from '../../ui/Avatar.tsx';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { Basis, Dialog, Empty, Heading } from '../../ui/parts.tsx';
import { useDerived } from '../../workers/useDerived.ts';

/** Every section with who holds it, how far it is, and what it waits for. */
export function HoldingsPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const here = useDisplay(({ here }) => here);
  const findings = useDerived(({ judgement }) => judgement?.findings ?? null);
  const netted = useDerived(({ materials }) => materials?.rows ?? null);
  const plans = useIsPlanner();
  const link = useLink();
  const [handing, setHanding] = useState<Holding | null>(null);
  const holdings = useMemo(() => holdingsOf(scene, { findings, netted }), [scene, findings, netted]);
  if (holdings.length === 0)
    return (
      <div className="p-4">
        <Empty
          title="Nothing to hold yet"
          act={
            <Link className="btn btn-xs" to={`/d/${link.id}/plan`}>
              Go to the Plan
            </Link>
          }
        >
          Draw sections on the Plan (C). Each gets an owner and helpers, and its open matters stand here.
        </Empty>
      </div>
    );
  const name = (id: string) => scene.person[id]?.name ?? id;
  const handOver: Column<Holding> = {
    head: 'Acts',
    acts: true,
    cell: (holding) => (
      <button type="button" className="btn btn-xs" onClick={() => setHanding(holding)}>
        Hand over …<span className="sr-only"> section {holding.section.letter}</span>
      </button>
    ),
  };
  const byPerson = listOf(scene, 'person').map((person) => ({
    person,
    holds: holdings.filter(({ section }) => section.owner === person.id),
    helps: holdings.filter(({ section }) => section.helpers.includes(person.id)),
  }));
  return (
    <div className="p-3 sm:p-4 grid gap-6 xl:grid-cols-[minmax(0,1fr)_300px] items-start">
      <section aria-labelledby="holdings">
        <Heading
          id="holdings"
          aside={
            findings === null || netted === null
              ? 'checking and counting …'
              : countOf(holdings.length, 'section')
          }
        >
          Sections and what they wait for
        </Heading>
        <DataTable
          label="Sections and what they wait for"
          rows={holdings}
          keyOf={({ section }) => section.id}
          columns={[
            {
              head: 'Section',
              cell: ({ section }) => (
                <b className="font-semibold whitespace-nowrap">
                  {section.letter}, {section.name}
                  <HereNow people={here.filter((one) => one.section === section.id)} />
                </b>
              ),
            },
            {
              head: 'Owner',
              cell: ({ section: { owner, helpers } }) => (
                <>
                  {owner ? name(owner) : <span className="text-warning">nobody</span>}
                  {helpers.length > 0 && (
                    <span className="block ink-2">with {helpers.map(name).join(', ')}</span>
                  )}
                </>
              ),
            },
            { head: 'Stage', cell: ({ section }) => stageWord(scene, section.stage) },
            { head: 'Done', number: true, cell: ({ done }) => formatPercent(done) },
            { head: 'Waits for', wraps: true, cell: (holding) => <WaitsFor {...holding} /> },
            ...(plans ? [handOver] : []),
          ]}
        />
        <Basis>
          Done is the stages behind a section of all its stages, as on Progress. Errors are findings of the
          gravest kind in or about it that nobody keeps. Pieces are short after stock, loans and orders, as on
          Stockpile. A seam waits when it parts two sections and has fewer than two signatures.
        </Basis>
      </section>
      <section aria-labelledby="hands">
        <Heading id="hands">By person</Heading>
        <ul>
          {byPerson.map(({ person, holds, helps }) => (
            <li key={person.id} className="flex gap-2 py-1.5 border-b hair">
              <Avatar
                name={person.name}
                initials={person.initials}
                ring={here.some((one) => one.person === person.id) ? ringOf(person.id) : undefined}
              />
              <div className="min-w-0">
                <span className="font-semibold">{person.name}</span>
                {person.town && <span className="ink-2"> {person.town}</span>}
                <div className="ink-2 text-xs">
                  {holds.length === 0 && helps.length === 0
                    ? 'owns nothing'
                    : [
                        holds.length > 0 && `owns ${holds.map(({ section }) => section.letter).join(', ')}`,
                        helps.length > 0 &&
                          `helps on ${helps.map(({ section }) => section.letter).join(', ')}`,
                        `${holds.reduce((sum, { waits }) => sum + waits.length, 0)} matters open`,
                      ]
                        .filter(Boolean)
                        .join('; ')}
                </div>
              </div>
            </li>
          ))}
        </ul>
      </section>
      {handing && <HandOver holding={handing} onClose={() => setHanding(null)} />}
    </div>
  );
}

/** Who is in a section at this moment. */
function HereNow({ people }: { people: readonly { name: string }[] }) {
  if (people.length === 0) return null;
  return (
    <span className="block font-normal text-secondary">
      {[...new Set(people.map(({ name }) => name))].join(', ')} here now
    </span>
  );
}

/** What a section waits for, each leading to where it can be seen to. */
function WaitsFor({ section, waits }: Holding) {
  const link = useLink();
  if (waits.length === 0) return <span className="ink-2">nothing</span>;
  return (
    <p className="leading-5">
      {waits.map(({ why, sentence, page }, i) => (
        <span key={why + sentence}>
          {i > 0 && '; '}
          <Link
            className="act underline underline-offset-2 decoration-base-300 hover:decoration-current"
            to={`/d/${link.id}/${why === 'advice' ? `crew?sheet=advice&section=${section.id}` : page}`}
          >
            {sentence}
          </Link>
        </span>
      ))}
    </p>
  );
}

/** Hands a section over with all its open work, and records that. */
function HandOver({ holding, onClose }: { holding: Holding; onClose: () => void }) {
  const scene = useDisplay(({ scene }) => scene);
  const me = useDisplay(({ actor }) => actor.person);
  const edit = useEdit();
  const { section } = holding;
  const [owner, setOwner] = useState(section.owner ?? '');
  const [helpers, setHelpers] = useState<readonly string[]>(section.helpers);
  const people = listOf(scene, 'person');
  const name = (id: string | null) => (id ? (scene.person[id]?.name ?? id) : null);
  const to = owner === '' ? null : owner;
  const changesHands = to !== section.owner;
  const words =
    changesHands && to ? handoverWords(scene, holding, name(to) ?? to, name(section.owner)) : null;
  const hand = () => {
    const helping = helpers.filter((id) => id !== owner);
    const set = { owner: to, helpers: helping };
    const title = `Section ${section.letter} goes to ${name(to)}`;
    const done = edit.change(
      changesHands
        ? `handed section ${section.letter} to ${name(to) ?? 'nobody'}`
        : `set who helps on section ${section.letter}`,
      [
        { op: 'patch', kind: 'section', id: section.id, v: section.v, set },
        ...(words && me
          ? [
              {
                op: 'add' as const,
                kind: 'thread' as const,
                id: freshId('thread'),
                data: {
                  ...{ title, text: words, by: me, at: new Date().toISOString(), use: 'handover' },
                  ...{ section: section.id, mentions: to && to !== me ? [to] : [] },
                },
              },
            ]
          : []),
      ],
    );
    if (done) onClose();
  };
  return (
    <Dialog title={`Section ${section.letter}, ${section.name}`} open onClose={onClose}>
      <label className="flex items-center gap-2 py-1">
        <span className="w-24">Owner</span>
        <select
          className="select select-sm flex-1"
          value={owner}
          onChange={(event) => setOwner(event.currentTarget.value)}
        >
          <option value="">nobody</option>
          {people.map((person) => (
            <option key={person.id} value={person.id}>
              {person.name}
            </option>
          ))}
        </select>
      </label>
      <fieldset className="py-1">
        <legend>Who else builds here</legend>
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {people
            .filter(({ id }) => id !== owner)
            .map((person) => (
              <label key={person.id} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={helpers.includes(person.id)}
                  onChange={(event) =>
                    setHelpers(
                      event.currentTarget.checked
                        ? [...helpers, person.id]
                        : helpers.filter((id) => id !== person.id),
                    )
                  }
                />
                {person.name}
              </label>
            ))}
        </div>
      </fieldset>
      {words && (
        <>
          <h3 className="font-semibold pt-2">What goes with it</h3>
          <p className="whitespace-pre-line border-l-2 hair pl-2 my-1">{words}</p>
          <p className="ink-2 text-xs pb-2">
            This is written down under Advice, and {name(to)} gets a message.
          </p>
        </>
      )}
      <button type="button" className="btn btn-sm btn-primary mt-2" onClick={hand}>
        {changesHands ? 'Hand it over' : 'Save'}
      </button>
    </Dialog>
  );
}
