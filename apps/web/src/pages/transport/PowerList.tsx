import { inSwitchOrder, powerParts, type Power } from '@quarry/core/power';
import { DataTable, Noted } from '../../ui/DataTable.tsx';
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
        <DataTable
          label="What is needed for it"
          hideHead
          rows={parts}
          keyOf={({ name, unit }) => `${name} ${unit ?? ''}`}
          columns={[
            { head: 'What', wraps: true, cell: ({ name, note }) => <Noted word={name} note={note} /> },
            {
              head: 'How much',
              number: true,
              cell: ({ count, unit }) => (unit === 'm' ? `${figure(count, 1)} m` : `${count} ×`),
            },
          ]}
        />
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
