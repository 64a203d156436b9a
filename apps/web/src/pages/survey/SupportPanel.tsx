import { MM, MM_PER_STUD, formatHeight, formatKg } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { SIDE_WORDS, SIDES, displayOf, type Scene } from '@quarry/core/document';
import { hangingStuds, currentContents, tableJoints, roomToGrow, supportOf } from '@quarry/core/venue';
import { Basis, Empty, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { capital } from '../../ui/words.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { useDerived } from '../../workers/derived.tsx';

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
          note={`${carried.toLocaleString('en')} of ${studs.toLocaleString('en')} studs`}
        >
          {((100 * carried) / studs).toFixed(1)} %
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
      <p className="ink-2 text-xs">At most {limit} studs may hang over, and nothing heavy there.</p>
      <Heading>Joints under the scene</Heading>
      {joints.length === 0 && (
        <p className="ink-2">None: the scene stands on one table, or on tables apart.</p>
      )}
      {joints.length > 0 && (
        <table className="table table-xs" aria-label="Joints of tables">
          <thead>
            <tr>
              <th className="pl-0">Between</th>
              <th className="text-right">Gap</th>
              <th className="text-right">Step</th>
              <th className="text-right pr-0">Shim</th>
            </tr>
          </thead>
          <tbody>
            {joints.map(({ a, b, gap, step, shim }) => (
              <tr key={`${a.id} ${b.id}`} className={Math.abs(step) > 3.2 ? 'text-warning' : ''}>
                <td className="pl-0">
                  {a.name}, {b.name}
                </td>
                <td className="fig text-right whitespace-nowrap">{say(Math.round(gap), 'mm')}</td>
                <td className="fig text-right whitespace-nowrap">{say(Math.abs(step), 'mm')}</td>
                <td className="text-right pr-0">
                  {step === 0 ? (
                    'none'
                  ) : (
                    <>
                      <span className="fig whitespace-nowrap">
                        {formatHeight(Math.round(Math.abs(step) * MM))}
                      </span>
                      <span className="block ink-2 text-[11px]">under {shim.under.name}</span>
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Heading aside={now ? (now.counted ? 'ground as counted' : 'estimate until counted') : 'weighing …'}>
        Load on tables
      </Heading>
      <table className="table table-xs" aria-label="Load of each table">
        <thead>
          <tr>
            <th className="pl-0">Table</th>
            <th className="text-right">Studs</th>
            <th className="text-right">About</th>
            <th className="text-right pr-0">Rated</th>
          </tr>
        </thead>
        <tbody>
          {(now?.tables ?? []).map(({ table, studs: on, kg }) => {
            const over = table.ratedKg !== null && kg > table.ratedKg;
            return (
              <tr key={table.id} className={over ? 'text-error' : ''}>
                <td className="pl-0 max-w-28 truncate">{capital(table.name)}</td>
                <td className="fig text-right">{on.toLocaleString('en')}</td>
                <td className="fig text-right whitespace-nowrap">
                  {over && '! '}
                  {formatKg(1000 * kg)}
                </td>
                <td className="fig text-right pr-0 whitespace-nowrap">
                  {table.ratedKg === null ? 'not known' : `${table.ratedKg} kg`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
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
