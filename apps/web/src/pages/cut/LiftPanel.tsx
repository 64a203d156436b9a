import type { ModuleLoad } from '@quarry/core/cut';
import { formatKg } from '@quarry/core/grid';
import { displayOf } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { Basis, Empty, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

/** What each module weighs, who can lift it, how far it leans and what it stands on. */
export function LiftPanel() {
  const scene = useScene('display', 'plot');
  const { picked, pick } = useView();
  const { say } = useMeasureFormat();
  const { tipLimit, place } = displayOf(scene);
  const now = useWorkerQuery((core) => core.loads(place), place ?? '');
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
  const loose = [...now.loose].sort((a, b) => b.grams - a.grams);
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
              Lift index, 1 person
            </th>
            <th scope="col" className="font-normal text-right">
              2 people
            </th>
            <th scope="col" className="font-normal text-right">
              Tips at
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
              <td className="fig text-right whitespace-nowrap">{formatKg(1000 * load.bulk.kg)}</td>
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
        centre of mass). Ground as counted piece by piece, by area until it is; buildings by their lists or
        plain shells. Loose buildings, parts that lift off and trees are not in it: they are carried by
        themselves.
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
        <p className="ink-2">No building stands loose and none has parts that lift off.</p>
      ) : (
        <table className="w-full text-xs">
          <caption className="sr-only">Loose buildings and parts that lift off</caption>
          <thead>
            <tr className="ink-2 border-b hair text-left">
              <th scope="col" className="font-normal py-1">
                Piece
              </th>
              <th scope="col" className="font-normal text-right">
                Mass
              </th>
              <th scope="col" className="font-normal text-right">
                Size
              </th>
              <th scope="col" className="font-normal text-right">
                Tips at
              </th>
            </tr>
          </thead>
          <tbody>
            {loose.map(({ plot, part, name, grams, w, d, h, tips }) => (
              <tr key={`${plot} ${part}`} className="border-b hair">
                <th scope="row" className="text-left font-normal py-0.5">
                  <button
                    type="button"
                    className="link link-hover text-left"
                    onClick={() => pick({ kind: 'plot', id: plot })}
                  >
                    {name}
                    {part !== null && <span className="ink-2"> of {scene.plot[plot]?.name}</span>}
                  </button>
                </th>
                <td className="fig text-right whitespace-nowrap">{formatKg(grams)}</td>
                <td className="fig text-right whitespace-nowrap">
                  {[w, d].map((mm) => say(Math.round(mm), 'mm').replace(/ mm$/, '')).join(' × ')} ×{' '}
                  {say(Math.round(h), 'mm')}
                </td>
                <td className={`fig text-right ${tips < tipLimit ? 'text-error font-semibold' : ''}`}>
                  {tips < tipLimit && '! '}
                  {tips.toFixed(0)}°
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

/** A lifting index, its class shown by a mark too, not by colour alone. */
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
  const { say } = useMeasureFormat();
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
