import {
  countOf,
  MM,
  MM_PER_PLATE,
  MM_PER_STUD,
  formatHeight,
  formatKg,
  formatPercent,
} from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { SIDE_WORDS, SIDES, displayOf, type Scene } from '@quarry/core/document';
import { hangingStuds, currentContents, tableJoints, roomToGrow, supportOf } from '@quarry/core/venue';
import { DataTable } from '../../ui/DataTable.tsx';
import { Basis, Empty, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { capital } from '../../ui/words.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { useDerived } from '../../workers/useDerived.ts';

/** How the scene stands on its tables: what is carried, what hangs over, what is bridged, and what each bears. */
export function SupportPanel({ scene }: { scene: Scene }) {
  const ground = useDerived(({ ground }) => ground);
  const { say } = useMeasureFormat();
  const { place } = displayOf(scene);
  const now = useWorkerQuery((core) => core.loads(place), place ?? '');
  if (!ground) return null;
  const { relief } = ground;
  if (!footprintBounds(scene))
    return <Empty title="No scene yet">Draw a footprint on the Plan; here you see how it stands.</Empty>;
  if (currentContents(scene, 'table').length === 0)
    return (
      <Empty title="No table here">Add the tables of this place above; then you see what they carry.</Empty>
    );
  const limit = displayOf(scene).overhang;
  const { studs, carried, overhang } = supportOf(relief, hangingStuds(scene, relief));
  const joints = tableJoints(scene);
  const room = roomToGrow(scene);
  return (
    <>
      <dl>
        <DefinitionRow
          label="Carried by tables"
          note={`${carried.toLocaleString('en')} of ${countOf(studs, 'stud')}`}
        >
          {formatPercent(carried / studs)}
        </DefinitionRow>
        {SIDES.map((side) => (
          <DefinitionRow
            key={side}
            label={`Hangs over, ${SIDE_WORDS[side]}`}
            note={overhang[side] === 0 && room[side] > 0 ? `room for ${room[side]} studs more` : undefined}
          >
            <span className={overhang[side] > limit ? 'text-error' : ''}>
              {overhang[side] > limit && '! '}
              {overhang[side] === 0
                ? 'nothing'
                : `${Number(overhang[side].toFixed(1))} st, ${say(Math.round(overhang[side] * MM_PER_STUD), 'mm')}`}
            </span>
          </DefinitionRow>
        ))}
      </dl>
      <p className="ink-2 text-xs">
        At most {countOf(limit, 'stud')} may hang over, and nothing heavy there.
      </p>
      <Heading>Joints under the scene</Heading>
      {joints.length === 0 && (
        <p className="ink-2">None: the scene stands on one table, or on tables apart.</p>
      )}
      {joints.length > 0 && (
        <DataTable
          label="Joints of tables"
          rows={joints}
          keyOf={({ a, b }) => `${a.id} ${b.id}`}
          columns={[
            { head: 'Between', cell: ({ a, b }) => `${a.name}, ${b.name}` },
            { head: 'Gap', number: true, cell: ({ gap }) => say(Math.round(gap), 'mm') },
            {
              head: 'Step',
              number: true,
              cell: ({ step }) => say(Math.abs(step), 'mm'),
              // More than a plate is felt by what stands across it.
              tone: ({ step }) => (Math.abs(step) > MM_PER_PLATE ? 'warning' : null),
            },
            {
              head: 'Shim',
              number: true,
              cell: ({ step, shim }) =>
                step === 0 ? (
                  'none'
                ) : (
                  <>
                    {formatHeight(Math.round(Math.abs(step) * MM))}
                    <span className="block ink-2 text-[11px]">under {shim.under.name}</span>
                  </>
                ),
            },
          ]}
        />
      )}
      <Heading aside={now ? (now.counted ? 'ground as counted' : 'estimate until counted') : 'weighing …'}>
        Load on tables
      </Heading>
      <DataTable
        label="Load of each table"
        rows={now?.tables ?? []}
        keyOf={({ table }) => table.id}
        columns={[
          { head: 'Table', cell: ({ table }) => capital(table.name) },
          { head: 'Studs', number: true, cell: ({ studs: on }) => on.toLocaleString('en') },
          {
            head: 'About',
            number: true,
            cell: ({ kg }) => formatKg(1000 * kg),
            tone: ({ table, kg }) => (table.ratedKg !== null && kg > table.ratedKg ? 'error' : null),
          },
          {
            head: 'Rated',
            number: true,
            cell: ({ table }) => (table.ratedKg === null ? 'not known' : `${table.ratedKg} kg`),
          },
        ]}
      />
      <p className="ink-2 text-xs pt-1">
        △ Ground as counted piece by piece, buildings by their lists or plain shells, loose ones too: without
        people leaning on it; the table’s own plate and the venue decide.
      </p>
      <Basis>
        A stud rests on the table under its centre, else on the nearest. Its mass: 0.18 g of base, 0.096 g a
        plate (a 2×4 brick of 2.3 g, from memory), ground 40 % solid until it is counted (a default of ours),
        buildings as walls, floors and roof. A shim is the step in whole plates of 3.2 mm and what is left
        over.
      </Basis>
    </>
  );
}
