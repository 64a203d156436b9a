import { formatKg } from '@quarry/core/grid';
import { handsOf, type LoadPlan, type LoadUnit, type Shipment } from '@quarry/core/transport';
import { Heading } from '../../ui/parts.tsx';
import { useHandle } from './handling.ts';
import { tripWord } from './tripWord.ts';

/** The order of putting in, trip by trip: ticked as things go in, and as they arrive. */
export function LoadList({
  shipment,
  plan,
  picked,
  onPick,
}: {
  shipment: Shipment;
  plan: LoadPlan;
  picked: string | null;
  onPick: (key: string | null) => void;
}) {
  const unitOf = new Map(shipment.units.map((unit) => [unit.key, unit]));
  return plan.trips.map((load) => {
    const { carrier, trip, placed } = load;
    const units = placed.flatMap(({ id }) => unitOf.get(id) ?? []);
    const loaded = units.filter(({ handling }) => Boolean(handling?.loaded)).length;
    const title = tripWord(shipment, load);
    return (
      <section key={`${carrier} ${trip}`} aria-label={`Loading order of ${title}`}>
        <Heading aside={`${loaded} of ${units.length} in`}>Loading order, {title}</Heading>
        <div className="flex text-[11px] ink-2 border-b hair" aria-hidden>
          <span className="w-9">in</span>
          <span className="flex-1">first to last</span>
          <span>arrived</span>
        </div>
        <ol>
          {units.map((unit, i) => (
            <LoadRow
              key={unit.key}
              number={i + 1}
              unit={unit}
              isPicked={picked === unit.key}
              onPick={() => onPick(picked === unit.key ? null : unit.key)}
            />
          ))}
        </ol>
      </section>
    );
  });
}

function LoadRow({
  number,
  unit,
  isPicked,
  onPick,
}: {
  number: number;
  unit: LoadUnit;
  isPicked: boolean;
  onPick: () => void;
}) {
  const { set, isForbidden } = useHandle();
  const { key, name, grams, holds, lift, handling } = unit;
  const hands = handsOf(unit);
  const carriers = hands === 1 ? 'one person' : `${hands} people`;
  const index = hands === 1 ? lift.one.index : lift.two.index;
  const inside = holds.reduce((sum, { count }) => sum + count, 0);
  const tick = (field: 'loaded' | 'arrived', words: string) => (
    <input
      type="checkbox"
      className="checkbox checkbox-sm"
      aria-label={`${name} ${words}`}
      checked={Boolean(handling?.[field])}
      disabled={isForbidden}
      onChange={(event) =>
        set(`${event.currentTarget.checked ? '' : 'not '}${words}: ${name}`, key, {
          [field]: event.currentTarget.checked ? new Date().toISOString() : null,
        })
      }
    />
  );
  return (
    <li className={`flex items-center gap-2 border-b hair py-1 ${isPicked ? 'bg-base-200' : ''}`}>
      {tick('loaded', 'put in')}
      <button
        type="button"
        className="flex-1 min-w-0 text-left cursor-pointer"
        aria-pressed={isPicked}
        onClick={onPick}
      >
        <span className="fig ink-2">{number} </span>
        <span className={`break-words ${handling?.loaded ? 'line-through ink-2' : 'font-semibold'}`}>
          {name}
        </span>
        <span className="ink-2 text-xs block">
          {formatKg(grams)}, {carriers}
          {Number.isFinite(index) ? `, lift index ${index.toFixed(1)}` : ''}
          {inside > 0 ? `, ${inside} inside` : ''}
        </span>
      </button>
      {tick('arrived', 'arrived')}
    </li>
  );
}
