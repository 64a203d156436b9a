import { dequal } from 'dequal/lite';
import { countOf, formatSum } from '@quarry/core/grid';
import { priceOfLines } from '@quarry/core/masonry';
import { isShellList, ornamented, type Change, type Entity, type PartLine } from '@quarry/core/document';
import { listOfBuilding } from '@quarry/core/structures';
import { freshId, useDenialReason, useEdit, useScene } from '../../data/useDisplay.tsx';
import { Basis, DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

const piecesOf = (lines: readonly Pick<PartLine, 'qty'>[]): number =>
  lines.reduce((sum, { qty }) => sum + qty, 0);

/** The pieces of a building: of its own list, else of its plain shell, which becomes its list in one act. */
export function ShellPart({ plot }: { plot: Entity<'plot'> }) {
  const scene = useScene('partList', 'partType', 'section');
  const edit = useEdit();
  const may = useDenialReason();
  const shell = useWorkerQuery((core) => core.shell(plot.id), `shell of ${plot.id}`);
  if (!shell) return null;
  const { lines } = shell;
  const listed = listOfBuilding(scene, plot);
  const own = listed?.isOwn ? listed.list : null;
  const isShell = own !== null && isShellList(own, plot);
  const isStale = own !== null && isShell && !dequal(own.lines, lines);
  const price = priceOfLines(lines, scene.partType);
  const denied = own
    ? may({ op: 'patch', kind: 'partList', id: own.id, v: own.v, set: { lines } })
    : may({ op: 'add', kind: 'partList', id: 'new', data: shell });
  const apart: Change[] = own
    ? [
        { op: 'remove', kind: 'partList', id: own.id, v: own.v },
        { op: 'remove', kind: 'plot', id: plot.id, v: plot.v },
      ]
    : [];
  const stays = apart.map(may).find((reason) => reason !== null) ?? null;
  const button = (word: string, act: () => void, reason = denied) => (
    <button
      type="button"
      className="btn btn-xs my-1"
      disabled={reason !== null}
      title={reason ?? undefined}
      onClick={act}
    >
      {word}
    </button>
  );
  return (
    <>
      <Heading>Pieces</Heading>
      <dl>
        {own && (
          <DefinitionRow label={own.name} note={isShell ? 'a guess, in the needs' : 'its parts list'}>
            {(own.copies * piecesOf(own.lines)).toLocaleString('en')}
          </DefinitionRow>
        )}
        {(!own || isStale) && (
          <DefinitionRow
            label={own ? 'Its shell now' : 'Plain shell, a guess'}
            note={`about ${formatSum(price)}, a guess`}
          >
            {piecesOf(lines).toLocaleString('en')}
          </DefinitionRow>
        )}
        {plot.ornament > 0 && (!own || isShell) && (
          <DefinitionRow
            label="With its ornament, a guess"
            note={`+${plot.ornament} %, about ${formatSum(price * ornamented(plot))}; in its hours and mass, not in the needs`}
          >
            {Math.ceil(piecesOf(lines) * ornamented(plot)).toLocaleString('en')}
          </DefinitionRow>
        )}
      </dl>
      {own &&
        isStale &&
        button('Renew its list', () =>
          edit.patch(`renewed the shell of ${plot.name}`, 'partList', own, { lines }),
        )}
      {listed && !listed.isOwn && (
        <p className="ink-2 text-xs">
          The list “{listed.list.name}” names no building: it counts for all of its section. Name its building
          on Stockpile, and this shell can be added.
        </p>
      )}
      {!listed &&
        button('Add its shell to the needs', () =>
          edit.add(`added the shell of ${plot.name} to the needs`, 'partList', freshId('partList'), shell),
        )}
      {own &&
        button(
          'Take apart',
          () =>
            edit.change(
              `took ${plot.name} apart: ${countOf(own.copies * piecesOf(own.lines), 'piece')} free`,
              apart,
            ),
          stays,
        )}
      <Basis>
        {own && 'Take apart: the building and its list go, and its pieces are free for other needs. '}
        Walls in courses that alternate and interlock with what is let into their bays, a floor of plates for
        each storey with pillars under its joints, a roof of plates and the pavement; no furniture. Ornament
        is as many percent of that as you guess: it doubles a plain shell more often than not (common
        practice, no source). Sides of half studs are rounded.
      </Basis>
    </>
  );
}
