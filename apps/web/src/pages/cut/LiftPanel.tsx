import { partLeans, type ModuleLoad } from '@quarry/core/cut';
import { listOf } from '@quarry/core/scene';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { Basis, Empty, Heading, Line, Loading } from '../../ui/parts.tsx';
import { useSay } from '../../ui/useSay.ts';
import { useAsked } from '../../workers/useAsked.ts';

/** Lift-off parts that lean less than this are named, degrees. */
const EASILY = 30;

/** What each module weighs, who can lift it, how far it leans and what it stands on. */
export function LiftPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const { picked, pick } = useView();
  const now = useAsked((core) => core.arrangement());
  if (!now) return <Loading what="Weighing the modules" />;
  if (now.loads.length === 0)
    return (
      <Empty title="Nothing to lift yet">
        Cut the scene first; then each module is weighed by what stands on it.
      </Empty>
    );
  const loads = [...now.loads].sort((a, b) => b.bulk.kg - a.bulk.kg);
  const chosen = loads.find(({ id }) => picked?.kind === 'module' && picked.id === id) ?? null;
  const total = loads.reduce((sum, { bulk }) => sum + bulk.kg, 0);
  const tippy = listOf(scene, 'plot').flatMap((plot) =>
    partLeans(plot)
      .filter(({ tips }) => tips < EASILY)
      .map((part) => ({ plot, part })),
  );
  return (
    <>
      <p className="border-l-4 border-warning pl-2 mb-2 text-xs">
        A caution, not advice: numbers by a published equation from computed masses. Lift with bent knees, two
        at a long module, path clear first; local rules and qualified people decide.
      </p>
      <Heading aside={`${total.toFixed(1)} kg in all`}>Heaviest first</Heading>
      <table className="w-full text-xs">
        <caption className="sr-only">Modules by mass</caption>
        <thead>
          <tr className="ink-2 border-b hair text-left">
            <th scope="col" className="font-normal py-1">
              Module
            </th>
            <th scope="col" className="font-normal text-right">
              Mass
            </th>
            <th scope="col" className="font-normal text-right">
              One lifts
            </th>
            <th scope="col" className="font-normal text-right">
              Two lift
            </th>
            <th scope="col" className="font-normal text-right">
              Leans to
            </th>
            <th scope="col" className="font-normal pl-3">
              Stands on
            </th>
          </tr>
        </thead>
        <tbody>
          {loads.map((load) => (
            <tr key={load.id} className={`border-b hair ${load === chosen ? 'bg-base-200' : ''}`}>
              <th scope="row" className="text-left py-0.5">
                <button
                  type="button"
                  aria-pressed={load === chosen}
                  className="fig font-medium cursor-pointer px-1"
                  onClick={() => pick(load === chosen ? null : { kind: 'module', id: load.id })}
                >
                  {load.name}
                </button>
              </th>
              <td className="fig text-right whitespace-nowrap">{load.bulk.kg.toFixed(1)} kg</td>
              <Index value={load.lift.one.index} />
              <Index value={load.lift.two.index} />
              <td className="fig text-right">{load.tips.toFixed(0)}°</td>
              <td className="pl-3">
                {load.tables.map(({ table }) => table.name).join(', ') || 'no table'}
                {load.hanging > 0 && <span className="ink-2"> · {load.hanging} st hang over</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Basis>
        «Lifts» is the lifting index of the revised NIOSH equation (Waters et al. 1993; DHHS (NIOSH) 94-110):
        load ÷ recommended limit, 23 kg × six multipliers. Above 1 the risk grows, above 3 it is high. The
        equation is made for one person; for two each takes half. Leans: atan(nearest edge ÷ height of the
        centre of mass). Ground as counted piece by piece, by area until it is; buildings by area.
      </Basis>
      {chosen && <Multipliers load={chosen} />}
      <Heading>Load on tables</Heading>
      <dl>
        {now.tables.map(({ table, kg }) => (
          <Line
            key={table.id}
            label={table.name}
            note={table.ratedKg === null ? 'no rating said' : `rated for ${table.ratedKg} kg`}
          >
            <span className={table.ratedKg !== null && kg > table.ratedKg ? 'text-error font-semibold' : ''}>
              {kg.toFixed(1)} kg
            </span>
          </Line>
        ))}
      </dl>
      <Heading>Lift-off parts that tip easily</Heading>
      {tippy.length === 0 ? (
        <p className="ink-2">None leans less than {EASILY}° when set down by itself.</p>
      ) : (
        <dl>
          {tippy.map(({ plot, part }) => (
            <Line key={`${plot.id} ${part.name}`} label={`${part.name} of ${plot.name}`}>
              {part.tips.toFixed(0)}°
            </Line>
          ))}
        </dl>
      )}
    </>
  );
}

/** A lifting index, its weight told by a mark too, not by colour alone. */
function Index({ value }: { value: number }) {
  const grave = value > 3;
  return (
    <td
      className={`fig text-right whitespace-nowrap ${grave ? 'text-error font-semibold' : value > 1 ? 'text-warning font-semibold' : ''}`}
    >
      {grave ? '! ' : value > 1 ? '△ ' : ''}
      {Number.isFinite(value) ? value.toFixed(1) : 'not at all'}
    </td>
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
const NAMES = ['horizontal', 'vertical', 'distance', 'asymmetry', 'frequency', 'coupling'] as const;

function Multipliers({ load }: { load: ModuleLoad }) {
  const { say } = useSay();
  const { one, two } = load.lift;
  return (
    <>
      <Heading aside={`centre ${say(Math.round(load.bulk.z), 'mm')} up`}>
        {load.name}: how the limit is made
      </Heading>
      <table className="w-full text-xs">
        <thead>
          <tr className="ink-2 border-b hair">
            <th scope="col" className="font-normal text-left">
              23 kg times
            </th>
            <th scope="col" className="font-normal text-right">
              one
            </th>
            <th scope="col" className="font-normal text-right">
              each of two
            </th>
          </tr>
        </thead>
        <tbody>
          {NAMES.map((name) => (
            <tr key={name} className="border-b hair">
              <th scope="row" className="text-left font-normal">
                {WORDS[name]}
              </th>
              <td className="fig text-right">{one.multipliers[name].toFixed(2)}</td>
              <td className="fig text-right">{two.multipliers[name].toFixed(2)}</td>
            </tr>
          ))}
          <tr className="font-semibold">
            <th scope="row" className="text-left">
              Recommended limit
            </th>
            <td className="fig text-right">{one.limit.toFixed(1)} kg</td>
            <td className="fig text-right">{two.limit.toFixed(1)} kg</td>
          </tr>
        </tbody>
      </table>
      <p className="ink-2 text-xs pt-1">
        From {say(Math.round(one.task.vertical * 10), 'mm')} (its table) to knuckle height; hands{' '}
        {say(Math.round(one.task.horizontal * 10), 'mm')} from the ankles for one,{' '}
        {say(Math.round(two.task.horizontal * 10), 'mm')} for two at the ends.
      </p>
    </>
  );
}
