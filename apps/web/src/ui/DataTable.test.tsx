import { render, screen, within } from '@testing-library/react';
import { DataTable, type Column } from './DataTable.tsx';

interface Load {
  id: string;
  kg: number;
}
const rows: Load[] = [
  { id: 'A1', kg: 4.5 },
  { id: 'B2', kg: 30 },
  { id: 'C3', kg: 13 },
];
const columns: Column<Load>[] = [
  { head: 'Module', cell: ({ id }) => id },
  {
    head: 'Mass',
    number: true,
    cell: ({ kg }) => `${kg} kg`,
    tone: ({ kg }) => (kg > 23 ? 'error' : kg > 12 ? 'warning' : null),
  },
];

test('each row is named by its first column, each column by its head', () => {
  render(<DataTable label="Masses" columns={columns} rows={rows} keyOf={({ id }) => id} />);
  const table = screen.getByRole('table', { name: 'Masses' });
  expect(
    within(table)
      .getAllByRole('columnheader')
      .map((head) => head.textContent),
  ).toEqual(['Module', 'Mass']);
  const row = within(table).getByRole('row', { name: /A1/ });
  expect(within(row).getByRole('rowheader').textContent).toBe('A1');
  expect(within(row).getByRole('cell').textContent).toBe('4.5 kg');
});
test('what is wrong has a mark beside its colour', () => {
  render(<DataTable label="Masses" columns={columns} rows={rows} keyOf={({ id }) => id} />);
  expect(screen.getAllByRole('cell').map((cell) => cell.textContent)).toEqual([
    '4.5 kg',
    '! 30 kg',
    '△ 13 kg',
  ]);
});
test('heads that are hidden are still read out; a picked row is told apart', () => {
  render(
    <DataTable
      label="Masses"
      hideHead
      columns={columns}
      rows={rows}
      keyOf={({ id }) => id}
      isPicked={({ id }) => id === 'B2'}
    />,
  );
  expect(screen.getAllByRole('columnheader')).toHaveLength(2);
  expect(screen.getByRole('row', { name: /B2/ }).className).toContain('bg-base-200');
  expect(screen.getByRole('row', { name: /A1/ }).className).not.toContain('bg-base-200');
});
