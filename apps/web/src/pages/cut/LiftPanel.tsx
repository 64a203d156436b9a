import type { ModuleLoad } from '@quarry/core/cut';
import { formatKg } from '@quarry/core/grid';
import { useView } from '../../data/view.ts';
import { DataTable } from '../../ui/DataTable.tsx';
import { Basis, Empty, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { CarriedTable, LIFT_COLUMNS, useLoads } from './CarriedTable.tsx';

/** What each module weighs, who can lift it, how far it leans and what it stands on. */
export function LiftPanel() {
  const { picked, pick } = useView();
  const now = useLoads();
  if (!now) return <Loading what="Weighing the modules" />;
  if (now.modules.length === 0)
    return (
      <Empty title="Nothing to lift yet">
        Cut the scene first; then each module is weighed by what stands on it.
      </Empty>
    );
  const loads = [...now.modules].sort((a, b) => b.bulk.kg - a.bulk.kg);
  const chosen = loads.find(({ id }) => picked?.kind === 'module' && picked.id === id) ?? null;
  const total = loads.reduce((sum, { bulk }) => sum + bulk.kg, 0);
  const loose = now.carried.filter(({ kind }) => kind !== 'module');
  return (
    <>
      <p className="border-l-4 border-warning pl-2 mb-2 text-xs">
        A caution, not advice: numbers by a published equation from computed masses. Lift with bent knees, two
        at a long module, path clear first; local rules and qualified people decide.
      </p>
      <Heading
        aside={`${formatKg(1000 * total)} in all, ${now.counted ? 'ground as counted' : 'estimate until counted'}`}
      >
        Heaviest first
      </Heading>
      <DataTable
        label="Modules by mass"
        rows={loads}
        keyOf={({ id }) => id}
        isPicked={(load) => load === chosen}
        columns={[
          {
            head: 'Module',
            cell: (load) => (
              <button
                type="button"
                aria-pressed={load === chosen}
                className="fig font-medium cursor-pointer px-1"
                onClick={() => pick(load === chosen ? null : { kind: 'module', id: load.id })}
              >
                {load.name}
              </button>
            ),
          },
          { head: 'Mass', number: true, cell: ({ bulk }) => formatKg(1000 * bulk.kg) },
          ...LIFT_COLUMNS,
          { head: 'Tips at', number: true, cell: ({ tips }) => `${tips.toFixed(0)}°` },
          {
            head: 'Stands on',
            cell: ({ tables, hanging }) => (
              <>
                {tables.map(({ table }) => table.name).join(', ') || 'no table'}
                {hanging > 0 && <span className="ink-2"> · {hanging} st hang over</span>}
              </>
            ),
          },
        ]}
      />
      <Basis>
        “Lift index” is that of the revised NIOSH equation (Waters et al. 1993; DHHS (NIOSH) 94-110): load ÷
        recommended limit, 23 kg × six multipliers. Above 1 the risk grows, above 3 it is high. The equation
        is made for one person; for two each takes half. “Tips at” is atan(nearest edge ÷ height of the centre
        of mass). Ground as counted piece by piece, by area until it is; buildings by their lists or plain
        shells. Loose buildings, parts that lift off and trees are not in it: they are carried by themselves.
      </Basis>
      {chosen && <Multipliers load={chosen} />}
      <Heading>Load on tables</Heading>
      <dl>
        {now.tables.map(({ table, kg }) => (
          <DefinitionRow
            key={table.id}
            label={table.name}
            note={table.ratedKg === null ? 'no rating said' : `rated for ${table.ratedKg} kg`}
          >
            <span className={table.ratedKg !== null && kg > table.ratedKg ? 'text-error font-semibold' : ''}>
              {formatKg(1000 * kg)}
            </span>
          </DefinitionRow>
        ))}
      </dl>
      <Heading>Carried by themselves</Heading>
      {loose.length === 0 ? (
        <p className="ink-2">Nothing stands loose, lifts off or lies over a seam.</p>
      ) : (
        <CarriedTable label="Carried by themselves" pieces={loose} compact />
      )}
    </>
  );
}

const WORDS = {
  horizontal: 'how far the hands are from the body',
  vertical: 'how high the hands are',
  distance: 'how far up or down it goes',
  asymmetry: 'how far the body turns',
  frequency: 'how often (now and then)',
  coupling: 'how well one holds it (poor)',
} as const;
const LIMIT = 'Recommended limit';
const NAMES = ['horizontal', 'vertical', 'distance', 'asymmetry', 'frequency', 'coupling'] as const;

function Multipliers({ load }: { load: ModuleLoad }) {
  const { say } = useMeasureFormat();
  const { one, two } = load.lift;
  return (
    <>
      <Heading aside={`centre ${say(Math.round(load.bulk.z), 'mm')} up`}>
        {load.name}: how the limit is made
      </Heading>
      <DataTable
        label="Multipliers of the limit"
        keyOf={({ word }) => word}
        rows={[
          ...NAMES.map((name) => ({
            word: WORDS[name],
            one: one.multipliers[name].toFixed(2),
            two: two.multipliers[name].toFixed(2),
          })),
          { word: LIMIT, one: `${one.limit.toFixed(1)} kg`, two: `${two.limit.toFixed(1)} kg` },
        ]}
        isPicked={({ word }) => word === LIMIT}
        columns={[
          { head: '23 kg times', cell: ({ word }) => word },
          { head: '1 person', number: true, cell: (row) => row.one },
          { head: 'each of 2', number: true, cell: (row) => row.two },
        ]}
      />
      <p className="ink-2 text-xs pt-1">
        From {say(Math.round(one.task.vertical * 10), 'mm')} (its table) to knuckle height; hands{' '}
        {say(Math.round(one.task.horizontal * 10), 'mm')} from the ankles for one,{' '}
        {say(Math.round(two.task.horizontal * 10), 'mm')} for two at the ends.
      </p>
    </>
  );
}
