import { formatPercent } from '@quarry/core/grid';
import { useMemo, useState } from 'react';
import {
  KINDS,
  copyVersion,
  differenceName,
  differencesOf,
  displayOf,
  kindSchema,
  listOf,
  removeVersion,
  sceneInVersion,
  takeDifferenceBack,
  type Difference,
  type Entity,
  type Scene,
} from '@quarry/core/document';
import { fieldWord, valueWord } from '@quarry/core/history';
import type { VersionNeed } from '@quarry/core/materials';
import { freshId, useDenialReason, useDisplay, useEdit, useLink, useScene } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { TextField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { PartColour } from '../../ui/Swatch.tsx';
import { AdoptVersion } from './AdoptVersion.tsx';
import { SwapPart } from './SwapPart.tsx';
import { useVersions } from '../../workers/useVersions.ts';
import type { JudgedVersions } from '../../workers/versions.worker.ts';

/** Versions of a display: what differs in each, what all of them need, and which one is shown. */
export function VersionsSheet() {
  const base = useDisplay(({ base: all }) => all);
  const shown = useDisplay(({ version }) => version?.id ?? null);
  const [open, setOpen] = useState<string | null>(shown);
  const may = useDenialReason();
  const edit = useEdit();
  const link = useLink();
  const versions = listOf(base, 'version');
  const isFixed = may({ op: 'add', kind: 'version', id: 'x', data: { name: 'x' } }) !== null;
  const picked = versions.find(({ id }) => id === (open ?? shown)) ?? null;
  const add = () => {
    const id = freshId('version');
    if (edit.add('added a version', 'version', id, { name: `Version ${versions.length + 1}` })) {
      setOpen(id);
      link.showVersion(id);
    }
  };
  const addButton = (
    <button type="button" className="btn btn-xs bg-base-100" disabled={isFixed} onClick={add}>
      Add a version
    </button>
  );
  if (versions.length === 0)
    return (
      <Empty title="One version: the base" act={addButton}>
        A version is the display in another season or story. Show it, change what is otherwise in it, and
        everything else stays that of the base.
      </Empty>
    );
  return (
    <div className="grid gap-x-10 gap-y-4 grid-cols-1 lg:grid-cols-2 items-start">
      <div className="min-w-0">
        <section aria-labelledby="versions">
          <Heading id="versions" aside={`${versions.length} beside the base`}>
            Versions
          </Heading>
          <ul>
            {versions.map((version) => (
              <VersionItem
                key={version.id}
                version={version}
                base={base}
                isShown={version.id === shown}
                isPicked={version.id === picked?.id}
                isFixed={isFixed}
                onPick={() => setOpen(version.id)}
              />
            ))}
          </ul>
          <p className="pt-2">{addButton}</p>
        </section>
        <Needs base={base} versions={versions} />
      </div>
      <div className="min-w-0">
        {picked && <Differences base={base} version={picked} isFixed={isFixed} />}
        <SwapPart base={base} versions={versions} />
      </div>
    </div>
  );
}

function VersionItem({
  version,
  base,
  isShown,
  isPicked,
  isFixed,
  onPick,
}: {
  version: Entity<'version'>;
  base: Scene;
  isShown: boolean;
  isPicked: boolean;
  isFixed: boolean;
  onPick: () => void;
}) {
  const { id, name, note } = version;
  const link = useLink();
  const edit = useEdit();
  const count = differencesOf(base, id).length;
  return (
    <li className="border-b hair py-1" aria-label={name}>
      <div className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          aria-expanded={isPicked}
          className={`flex-1 text-left min-h-6 ${isPicked ? 'font-semibold' : ''}`}
          onClick={onPick}
        >
          {name}
          <span className="ink-2 text-xs font-normal">
            {' '}
            {count} {count === 1 ? 'difference' : 'differences'}
            {isShown && ', shown now'}
          </span>
          {note !== '' && <span className="block ink-2 text-xs font-normal">{note}</span>}
        </button>
        <button
          type="button"
          className="btn btn-xs bg-base-100"
          aria-label={isShown ? `Show the base instead of ${name}` : `Show ${name}`}
          onClick={() => link.showVersion(isShown ? null : id)}
        >
          {isShown ? 'Show the base' : 'Show'}
        </button>
      </div>
      {isPicked && (
        <div className="pl-4 max-w-md">
          <TextField
            label="Name"
            required
            value={name}
            disabled={isFixed}
            onCommit={(value) => edit.patch(`renamed ${name}`, 'version', version, { name: value })}
          />
          <TextField
            label="Note"
            value={note}
            disabled={isFixed}
            onCommit={(value) => edit.patch(`noted what ${name} is`, 'version', version, { note: value })}
          />
          <p className="flex gap-2 pt-1">
            <button
              type="button"
              className="btn btn-xs bg-base-100"
              disabled={isFixed}
              onClick={() =>
                void edit.change(
                  `copied ${name}`,
                  copyVersion(base, id, freshId('version'), `${name}, copy`.slice(0, 80)),
                )
              }
            >
              Copy
            </button>
            <RemoveButton
              what={name}
              disabled={isFixed}
              onClick={() => void edit.change(`removed ${name}`, removeVersion(base, id))}
            />
          </p>
          <AdoptVersion base={base} version={version} isFixed={isFixed} />
        </div>
      )}
    </li>
  );
}

const HOW: Record<Difference['how'], string> = { added: 'Added', changed: 'Changed', gone: 'Left out' };

/** What is otherwise in a version, thing by thing; each can be taken back. */
function Differences({
  base,
  version,
  isFixed,
}: {
  base: Scene;
  version: Entity<'version'>;
  isFixed: boolean;
}) {
  const edit = useEdit();
  const lost = useMemo(
    () => new Set(sceneInVersion(base, version.id).lost.map(({ id }) => id)),
    [base, version.id],
  );
  const differences = differencesOf(base, version.id);
  return (
    <section aria-labelledby="differences" className="min-w-0">
      <Heading id="differences" aside={differences.length}>
        What differs in “{version.name}”
      </Heading>
      {differences.length === 0 && (
        <p className="ink-2">Nothing yet. Show it and change it on the plan: what you change differs here.</p>
      )}
      <ul>
        {differences.map((one) => (
          <li key={one.id} className="flex items-baseline gap-2 border-b hair py-1">
            <span className="w-16 shrink-0 ink-2 text-xs">{HOW[one.how]}</span>
            <span className="flex-1 min-w-0">
              {differenceName(base, one)} <span className="ink-2 text-xs">{kindWord(one.of)}</span>
              {one.how === 'changed' && (
                <span className="block ink-2 text-xs break-words">{changedWords(base, one)}</span>
              )}
              {lost.has(one.id) && (
                <span className="block text-warning text-xs">
                  △ It fits no more: what it changes, or what it names, is gone from the base.
                </span>
              )}
            </span>
            <button
              type="button"
              className="btn btn-xs bg-base-100"
              aria-label={`As in the base again: ${differenceName(base, one)}`}
              disabled={isFixed}
              onClick={() =>
                void edit.change(`${differenceName(base, one)} is as in the base again`, [
                  takeDifferenceBack(one),
                ])
              }
            >
              As in the base
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

const kindWord = (of: string): string => {
  const kind = kindSchema.safeParse(of);
  return kind.success ? KINDS[kind.data].word : of;
};

/** So many changed fields are told. */
const MOST_FIELDS = 4;

function changedWords(base: Scene, { of, fields }: Difference): string {
  const kind = kindSchema.safeParse(of);
  if (!kind.success) return '';
  const words = Object.entries(fields).map(
    ([field, value]) => `${fieldWord(field)} ${valueWord(base, kind.data, field, value)}`,
  );
  const more = words.length > MOST_FIELDS ? `, and ${words.length - MOST_FIELDS} more` : '';
  return `${words.slice(0, MOST_FIELDS).join(', ')}${more}`;
}

/** The most that any version needs at once, and what lies in the swap box while each stands. */
function Needs({ base, versions }: { base: Scene; versions: readonly Entity<'version'>[] }) {
  const { state, judge, end } = useVersions();
  const [of, setOf] = useState<Scene | null>(null);
  const isStale = of !== null && of !== base;
  return (
    <section aria-labelledby="over-versions" className="pt-4">
      <Heading id="over-versions">What all versions take</Heading>
      {state.is === 'asking' ? (
        <p role="status" className="flex items-center gap-2">
          <progress className="progress w-40" value={state.share} max={1} aria-label="Versions counted" />
          <button type="button" className="btn btn-xs bg-base-100" onClick={end}>
            Cancel
          </button>
        </p>
      ) : (
        <button
          type="button"
          className="btn btn-xs bg-base-100"
          onClick={() => {
            setOf(base);
            judge(
              base,
              versions.map(({ id }) => id),
            );
          }}
        >
          {state.is === 'answered' ? 'Count again' : 'Count and judge all versions'}
        </button>
      )}
      {state.is === 'failed' && (
        <p role="alert" className="text-error">
          {state.error}
        </p>
      )}
      {state.is === 'answered' && (
        <>
          {isStale && <p className="text-warning text-xs">△ The display has changed since this count.</p>}
          <Judged answer={state.answer} versions={versions} />
        </>
      )}
      <Basis>
        Each version is counted by itself and judged by all checks. They stand one at a time, so of every part
        and colour the most that any needs is enough; what the one that stands does not need lies in the swap
        box. Counts are without spares. Mass is of everything that is carried by itself, hours by the counted
        pieces and the rates of who builds each section, money what all its pieces would cost to buy again.
        Seen is the mean over all buildings and small scenes, as Sight tells of each; a dash where nobody says
        who looks.
      </Basis>
    </section>
  );
}

const figure = (count: number) => count.toLocaleString('en');
/** So many parts are listed. */
const MOST_PARTS = 60;

function Judged({ answer, versions }: { answer: JudgedVersions; versions: readonly Entity<'version'>[] }) {
  const { currency } = displayOf(useScene('display'));
  const nameOf = (id: string | null) =>
    id === null ? 'Base' : (versions.find((version) => version.id === id)?.name ?? 'gone');
  return (
    <>
      <p className="py-2">
        <b className="fig text-lg">{figure(answer.pieces)}</b> pieces for all of them
      </p>
      <DataTable
        label="Versions"
        columns={[
          { head: 'Version', cell: ({ id }) => nameOf(id) },
          { head: 'Pieces', number: true, cell: ({ pieces }) => figure(pieces) },
          { head: 'In the swap box', number: true, cell: ({ inBox }) => figure(inBox) },
          { head: 'Mass', number: true, cell: ({ kg }) => `${kg.toFixed(1)} kg` },
          { head: 'Hours, counted', number: true, cell: ({ hours }) => `${hours.toFixed(0)} h` },
          {
            head: 'To buy again',
            number: true,
            cell: ({ money }) => `${money.toFixed(0)} ${currency}`,
          },
          {
            head: 'Seen',
            number: true,
            cell: ({ seen }) => (seen === null ? '–' : formatPercent(seen)),
          },
          {
            head: 'Findings',
            number: true,
            cell: ({ errors, warnings }) => `! ${errors} △ ${warnings}`,
          },
        ]}
        rows={answer.versions}
        keyOf={({ id }) => id ?? 'base'}
      />
      {answer.parts.length > 0 && (
        <>
          <p className="pt-3 ink-2 text-xs">
            {figure(answer.parts.length)} parts are not needed alike
            {answer.parts.length > MOST_PARTS && `; the ${MOST_PARTS} that differ most`}
          </p>
          <DataTable
            label="Parts that versions need otherwise"
            columns={[
              {
                head: 'Part',
                wraps: true,
                cell: ({ part, colour }) => <PartColour part={part} colour={colour} />,
              },
              ...answer.versions.map(({ id }, i) => ({
                head: nameOf(id),
                number: true as const,
                cell: ({ by }: VersionNeed) => figure(by[i] ?? 0),
              })),
              { head: 'Most', number: true, cell: ({ most }) => figure(most) },
            ]}
            rows={byDifference(answer.parts)}
            keyOf={({ part, colour }) => `${part} ${colour}`}
          />
        </>
      )}
    </>
  );
}

/** Those that differ most first. */
const byDifference = (parts: readonly VersionNeed[]): VersionNeed[] =>
  parts.toSorted((a, b) => b.most - Math.min(...b.by) - (a.most - Math.min(...a.by))).slice(0, MOST_PARTS);
