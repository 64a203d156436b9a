import { countOf, formatSum } from '@quarry/core/grid';
import { SIDE_WORDS, displayOf, listOf, turnedSide, type Scene } from '@quarry/core/document';
import { areBare, backChanges, type Sight } from '@quarry/core/visibility';
import { useEdit, useIsPlanner } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { DataTable } from '../../ui/DataTable.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';

/** Backs of buildings that nobody sees: what it frees to build them in any colour, done by one press and taken back by one. */
export function PlainBacks({ scene, sight }: { scene: Scene; sight: Sight }) {
  const plans = useIsPlanner();
  const edit = useEdit();
  const { pick } = useView();
  // A building may be gone since they were looked at.
  const backs = sight.backs.filter(({ id }) => Object.hasOwn(scene.plot, id));
  const bare = listOf(scene, 'plot').filter(({ bareSides }) => bareSides.length > 0);
  const { colourHidden, currency } = displayOf(scene);
  const isLaid = areBare(scene, backs);
  if (backs.length === 0 && bare.length === 0) return null;
  const pieces = backs.reduce((sum, one) => sum + one.pieces, 0);
  const worth = backs.reduce((sum, one) => sum + one.worth, 0);
  return (
    <>
      <Heading aside="walls of any colour">Backs that nobody sees</Heading>
      {backs.length > 0 && (
        <DataTable
          label="Backs that nobody sees"
          rows={backs}
          keyOf={({ id }) => id}
          columns={[
            {
              head: 'Building',
              cell: ({ id }) => (
                <button
                  type="button"
                  className="link link-hover text-left"
                  onClick={() => pick({ kind: 'plot', id })}
                >
                  {scene.plot[id]?.name}
                </button>
              ),
            },
            {
              head: 'Sides',
              wraps: true,
              cell: ({ id, sides }) =>
                sides.map((side) => SIDE_WORDS[turnedSide(side, scene.plot[id]?.turn ?? 0)]).join(', '),
            },
            { head: 'Any colour will do', number: true, cell: (one) => countOf(one.pieces, 'piece') },
            { head: 'Worth', number: true, cell: (one) => `${formatSum(one.worth)} ${currency}` },
          ]}
        />
      )}
      <div className="flex flex-wrap items-center gap-2 text-xs py-1">
        <span className="flex-1 min-w-48">
          {countOf(pieces, 'piece')} of walls, worth{' '}
          <span className="fig">
            {formatSum(worth)} {currency}
          </span>
          {isLaid ? '; they are left plain.' : ', may be of any colour.'}
          {colourHidden !== 'free' && ' The house rules ask for the right colour where nothing is seen too.'}
        </span>
        {plans && !isLaid && colourHidden === 'free' && (
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => edit.change('left hidden backs plain', backChanges(scene, backs))}
          >
            Leave backs plain
          </button>
        )}
        {plans && bare.length > 0 && (
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => edit.change('took plain backs back', backChanges(scene, []))}
          >
            Take backs back
          </button>
        )}
      </div>
      <Basis>
        Sides of buildings before which nobody stands, or to which no line from an eye is free. A piece counts
        that shows on no other side. A list that a building’s own pieces made is made again; what was changed
        by hand stays as it is.
      </Basis>
    </>
  );
}
