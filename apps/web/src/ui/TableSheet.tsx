import { TABLE_KINDS, type Table } from '@quarry/core/document';
import { useEdit } from '../data/useDisplay.tsx';
import { NumberField, QuantityField, SelectField, TextField } from './fields.tsx';

/** The data sheet of a table, shelf or piece of floor: asked on the Survey and on the Plan. */
export function TableSheet({ table, disabled }: { table: Table; disabled: boolean }) {
  const edit = useEdit();
  const set = (what: string, fields: Partial<Table>) =>
    edit.patch(`${what} ${table.name}`, 'table', table, fields);
  const common = { measure: 'mm', disabled } as const;
  const length = { ...common, min: 1, max: 40_000 };
  const place = { ...common, min: -40_000, max: 40_000 };
  return (
    <>
      <TextField
        label="Name"
        required
        value={table.name}
        disabled={disabled}
        onCommit={(name) => set('renamed', { name })}
      />
      <SelectField
        label="Kind"
        value={table.kind}
        disabled={disabled}
        options={TABLE_KINDS.map((value) => ({
          value,
          word: { table: 'Table', shelf: 'Shelf', floor: 'Floor' }[value],
        }))}
        onCommit={(kind) => set('changed', { kind })}
      />
      <QuantityField
        label="Width, east"
        value={table.w}
        {...length}
        onCommit={(w) => set('resized', { w })}
      />
      <QuantityField
        label="Depth, south"
        value={table.d}
        {...length}
        onCommit={(d) => set('resized', { d })}
      />
      <QuantityField label="From west" value={table.x} {...place} onCommit={(x) => set('moved', { x })} />
      <QuantityField label="From north" value={table.y} {...place} onCommit={(y) => set('moved', { y })} />
      <QuantityField
        label="Height"
        value={table.height}
        min={0}
        max={3000}
        {...common}
        onCommit={(height) => set('changed the height of', { height })}
      />
      <NumberField
        label="Rated load"
        unit="kg"
        optional="not known"
        value={table.ratedKg}
        min={0}
        max={5000}
        disabled={disabled}
        onCommit={(ratedKg) => set('changed the rating of', { ratedKg })}
      />
      <NumberField
        label="Leaves"
        whole
        value={table.leaves}
        min={1}
        max={12}
        disabled={disabled}
        onCommit={(leaves) => set('changed the leaves of', { leaves: leaves ?? 1 })}
      />
      {table.leaves > 1 && (
        <QuantityField
          label="Gap between leaves"
          value={table.leafGap}
          min={0}
          max={500}
          {...common}
          onCommit={(leafGap) => set('changed the leaves of', { leafGap })}
        />
      )}
    </>
  );
}
