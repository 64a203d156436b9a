import { inSwitchOrder, powerParts, type Power } from '@quarry/core/power';
import { Empty, Heading } from '../../ui/parts.tsx';
import { figure, milliamps } from './CircuitsPart.tsx';

/** What is bought or packed for light and power, and what is switched on in which order. */
export function PowerList({ power }: { power: Power }) {
  const parts = powerParts(power);
  const inTurn = inSwitchOrder(
    power.circuits.filter(({ supply, milliamps: current }) => supply !== null && current > 0),
  );
  return (
    <>
      <Heading>Parts list</Heading>
      {parts.length === 0 ? (
        <Empty title="Nothing yet">
          Lights, motors, cables and supplies are listed here once they are planned.
        </Empty>
      ) : (
        <table className="w-full">
          <thead className="sr-only">
            <tr>
              <th scope="col">What</th>
              <th scope="col">How much</th>
            </tr>
          </thead>
          <tbody>
            {parts.map(({ name, count, unit, note }) => (
              <tr key={`${name} ${unit ?? ''}`} className="border-b hair align-baseline">
                <td className="py-1">
                  {name}
                  <div className="ink-2 text-[11px] leading-4">{note}</div>
                </td>
                <td className="fig text-right whitespace-nowrap">
                  {unit === 'm' ? `${figure(count, 1)} m` : `${count} ×`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {inTurn.length > 0 && (
        <>
          <Heading>Switch plan</Heading>
          <ol className="list-decimal pl-6">
            {inTurn.map(({ circuit, supply, milliamps: current }) => (
              <li key={circuit.id} className="py-0.5">
                {circuit.name}{' '}
                <span className="ink-2 text-xs">
                  {supply?.name}, <span className="fig">{milliamps(current)}</span>
                  {circuit.essential ? ', stays on' : ''}
                </span>
              </li>
            ))}
          </ol>
          <p className="ink-2 text-xs pt-1">
            On in this order, what stays on first; off the other way round.
          </p>
        </>
      )}
    </>
  );
}
