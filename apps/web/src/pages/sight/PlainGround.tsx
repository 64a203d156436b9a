import { dequal } from 'dequal/lite';
import { Calculator, Square } from 'lucide-react';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { countOf, formatSum } from '@quarry/core/grid';
import { MAX_PLAIN_FACES, displayOf, listOf, type Scene } from '@quarry/core/document';
import { noPlainChanges, plainChanges, type PlainSavings } from '@quarry/core/materials';
import type { Sight } from '@quarry/core/visibility';
import { freshId, useEdit, useIsPlanner, useLink } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Basis, Failure, Heading } from '../../ui/parts.tsx';
import { usePlainSavings } from '../../workers/useSight.ts';

const studsOf = (areas: readonly { w: number; d: number }[]) =>
  areas.reduce((sum, { w, d }) => sum + w * d, 0);

/** Ground that nobody sees: what it saves to lay it in any colour, done by one press and taken back by one. */
export function PlainGround({ scene, sight }: { scene: Scene; sight: Sight }) {
  const { id } = useLink();
  const plans = useIsPlanner();
  const edit = useEdit();
  const areas = sight.hidden;
  const hidden = useMemo(
    () => ({ areas: sight.hidden, faces: sight.hiddenFaces.slice(0, MAX_PLAIN_FACES) }),
    [sight],
  );
  const { state, ask, end } = usePlainSavings(scene, hidden);
  const plain = listOf(scene, 'plain').flatMap((one) => one.areas);
  const faces = listOf(scene, 'plain').flatMap((one) => one.faces);
  const isFree = displayOf(scene).colourHidden === 'free';
  const isLaid = dequal(plain, areas) && dequal(faces, hidden.faces);
  const isSome = areas.length + hidden.faces.length > 0;
  return (
    <>
      <Heading aside="pieces of any colour">Ground that nobody sees</Heading>
      {plain.length + faces.length > 0 && (
        <div className="flex items-center gap-2 text-xs py-1">
          <span className="flex-1">
            Left plain: {countOf(studsOf(plain), 'stud')} in {countOf(plain.length, 'area')}, and{' '}
            {countOf(studsOf(faces), 'stud')} of faces.
          </span>
          {plans && (
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => edit.change('took plain ground back', noPlainChanges(scene))}
            >
              Take back
            </button>
          )}
        </div>
      )}
      {!isSome ? (
        <p className="ink-2 text-xs py-1">
          No rectangle of 16 studs or more is hidden from everybody, and no four studs of a cliff or an edge.
        </p>
      ) : isLaid ? (
        <p className="ink-2 text-xs py-1">That is all that nobody sees now.</p>
      ) : (
        <p className="text-xs py-1">
          <span className="fig">{countOf(studsOf(areas), 'stud')}</span> in {countOf(areas.length, 'area')} of
          16 or more, and <span className="fig">{countOf(studsOf(hidden.faces), 'stud')}</span> of faces of
          cliffs and edges, are hidden from everybody: old, worn and odd pieces will do there.
        </p>
      )}
      {!isFree && isSome && (
        <p className="text-xs py-1">
          The house rules ask for the right colour where nothing is seen too, so it saves nothing:{' '}
          <Link className="link inline-flex min-h-6 items-center" to={`/d/${id}/brief?sheet=rules`}>
            House rules
          </Link>
        </p>
      )}
      {isSome && isFree && !isLaid && state.is === 'idle' && (
        <button type="button" className="btn btn-sm my-1" onClick={ask}>
          <Calculator size={13} aria-hidden /> What that saves
        </button>
      )}
      {state.is === 'asking' && (
        <div className="flex items-center gap-2 py-2 text-xs" role="status">
          <button type="button" className="btn btn-sm" onClick={end}>
            <Square size={13} aria-hidden /> Stop
          </button>
          Counting with it and without it …
        </div>
      )}
      {state.is === 'failed' && <Failure title="The counting failed" message={state.error} />}
      {state.is === 'answered' && state.answer && (
        <>
          <Saved scene={scene} saved={state.answer} />
          {plans && (
            <button
              type="button"
              className="btn btn-sm btn-primary my-1"
              onClick={() =>
                edit.change('left hidden ground plain', plainChanges(scene, hidden, freshId('plain')))
              }
            >
              Leave it plain
            </button>
          )}
        </>
      )}
      {isSome && (
        <Basis>
          Rectangles of at least 2 × 8 or 4 × 4 studs whose tops no eye sees, the largest first. Their cover
          is laid without tones and accents in any colour, and so is what shows at hidden faces alone; all of
          it is counted again: at its borders pieces are smaller. When visitors see some of it later, a
          finding says so.
        </Basis>
      )}
    </>
  );
}

function Saved({ scene, saved }: { scene: Scene; saved: PlainSavings }) {
  const { currency } = displayOf(scene);
  const total = saved.parts.reduce((sum, { pieces }) => sum + pieces, 0);
  return (
    <>
      <DataTable
        label="Pieces of any colour"
        rows={saved.parts}
        keyOf={({ section }) => section ?? 'none'}
        columns={[
          {
            head: 'Section',
            cell: ({ section }) => {
              const one = section === null ? undefined : scene.section[section];
              return one ? `${one.letter} ${one.name}` : 'no section';
            },
          },
          { head: 'Any colour will do', number: true, cell: ({ pieces }) => countOf(pieces, 'piece') },
          { head: 'Worth', number: true, cell: ({ worth }) => `${formatSum(worth)} ${currency}` },
        ]}
      />
      <p className="text-xs py-1">
        {countOf(total, 'piece')} may be of any colour;{' '}
        {saved.more === 0
          ? 'as many pieces in all'
          : `${countOf(Math.abs(saved.more), 'piece')} ${saved.more > 0 ? 'more' : 'fewer'} in all`}
        . To buy: {countOf(Math.abs(saved.short), 'piece')} {saved.short >= 0 ? 'fewer' : 'more'},{' '}
        <span className="fig">
          {formatSum(Math.abs(saved.money))} {currency}
        </span>{' '}
        {saved.money >= 0 ? 'less' : 'more'}.
      </p>
    </>
  );
}
