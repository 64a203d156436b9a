import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { NumberField, OptionalQuantityField, QuantityField, SelectField } from './fields.tsx';

/** A field that shows what it commits, and all that it committed. */
function Quantity({ start, log, ...limits }: { start: number; log: number[]; min?: number; max?: number }) {
  const [value, setValue] = useState(start);
  return (
    <QuantityField
      {...limits}
      label="Width"
      measure="studs"
      value={value}
      onCommit={(next) => {
        log.push(next);
        setValue(next);
      }}
    />
  );
}
const field = (name = 'Width') => screen.getByRole('textbox', { name });

describe('a length', () => {
  test('is read as people say it, and committed by Enter or by leaving the field, once', async () => {
    const user = userEvent.setup();
    const log: number[] = [];
    render(<Quantity start={16} log={log} />);
    await user.clear(field());
    await user.type(field(), '48 studs{Enter}');
    await user.clear(field());
    await user.type(field(), '12');
    await user.tab();
    await user.click(field());
    await user.tab();
    expect(log).toEqual([48, 12]);
  });

  test('that cannot be stays in the field with the reason; Escape puts the old one back', async () => {
    const user = userEvent.setup();
    const log: number[] = [];
    render(<Quantity start={16} log={log} min={1} max={96} />);
    await user.clear(field());
    await user.type(field(), '200{Enter}');
    expect(field()).toHaveProperty('value', '200');
    expect(field().getAttribute('aria-invalid')).toBe('true');
    const alert = screen.getByRole('alert');
    expect(alert.id).toBe(field().getAttribute('aria-describedby'));
    expect(alert.textContent).toMatch(/Width.*96/);
    await user.type(field(), '{Escape}');
    expect(screen.queryByRole('alert')).toBeNull();
    expect(field()).toHaveProperty('value', '16 studs');
    expect(log).toEqual([]);
  });

  test('off the grid offers the nearest below and above; a button or an arrow takes one', async () => {
    const user = userEvent.setup();
    const log: number[] = [];
    render(<Quantity start={16} log={log} />);
    await user.clear(field());
    await user.type(field(), '75 cm{Enter}');
    const [below, above] = screen.getAllByRole('button', { name: /^Take/ });
    expect([below, above].map(({ textContent }) => textContent)).toEqual([
      expect.stringContaining('93.5 studs'),
      expect.stringContaining('94 studs'),
    ]);
    await user.click(below);
    expect(log).toEqual([93.5]);
    await user.clear(field());
    await user.type(field(), '75 cm{Enter}{ArrowUp}');
    expect(log).toEqual([93.5, 94]);
  });

  test('left empty is null only where a length may be left out', async () => {
    const user = userEvent.setup();
    const log: (number | null)[] = [];
    render(
      <OptionalQuantityField
        label="Limit"
        measure="plates"
        value={9}
        none="no limit"
        onCommit={(value) => log.push(value)}
      />,
    );
    await user.clear(field('Limit'));
    await user.tab();
    expect(log).toEqual([null]);
    const strict: number[] = [];
    render(<Quantity start={16} log={strict} />);
    await user.clear(field());
    await user.tab();
    expect(strict).toEqual([]);
    expect(screen.getByRole('alert')).toBeTruthy();
  });
});

test('a number keeps to its bounds and names them', async () => {
  const user = userEvent.setup();
  const log: (number | null)[] = [];
  render(
    <NumberField label="Pieces" value={4} min={1} max={20} whole onCommit={(value) => log.push(value)} />,
  );
  const pieces = screen.getByLabelText('Pieces');
  await user.clear(pieces);
  await user.type(pieces, '21{Enter}');
  expect(screen.getByRole('alert').textContent).toMatch(/20/);
  await user.clear(pieces);
  await user.type(pieces, '7{Enter}');
  expect(log).toEqual([7]);
});

test('a choice commits what is chosen, by its label', async () => {
  const user = userEvent.setup();
  const log: string[] = [];
  render(
    <SelectField
      label="Stage"
      value="planned"
      options={[
        { value: 'planned', word: 'planned' },
        { value: 'ground', word: 'ground' },
      ]}
      onCommit={(value) => log.push(value)}
    />,
  );
  await user.selectOptions(screen.getByLabelText('Stage'), 'ground');
  expect(log).toEqual(['ground']);
});
