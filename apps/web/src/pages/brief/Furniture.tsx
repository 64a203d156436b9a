import { MM_PER_PLATE } from '@quarry/core/grid';
import { FIGURE_MM, FURNITURE_RULES, judgeFurniture } from '@quarry/core/scale';
import { FURNITURE_USES, listOf } from '@quarry/core/document';
import { freshId, useEdit, useScene } from '../../data/useDisplay.tsx';
import { QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Empty } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { capital } from '../../ui/words.ts';

const COLUMNS = 'minmax(5rem,1fr) 5.8rem auto 6.6rem auto';

/** Seats, tables, counters and doorways, each judged against the figure that stands beside it. */
export function Furniture({ disabled }: { disabled: boolean }) {
  const scene = useScene('furnishing');
  const edit = useEdit();
  const { say } = useMeasureFormat();
  return (
    <div>
      <Rows
        id="furniture"
        title="Furniture against a figure"
        columns={COLUMNS}
        empty={
          <Empty title="No furniture yet">
            Add a seat, a table, a counter or a doorway with its height as built; a figure of {FIGURE_MM} mm
            says whether it suits.
          </Empty>
        }
        add={{
          word: 'Add a piece',
          disabled,
          onClick: () =>
            void edit.add('added a piece of furniture', 'furnishing', freshId('furnishing'), {
              name: 'bench',
              use: 'seat',
              height: 4,
            }),
        }}
      >
        {listOf(scene, 'furnishing').map((piece) => {
          const { verdict, least, most, chest } = judgeFurniture(piece.use, piece.height);
          return (
            <Row key={piece.id} label={piece.name} columns={COLUMNS}>
              <TextField
                bare
                label="Piece of furniture"
                required
                value={piece.name}
                disabled={disabled}
                onCommit={(name) => edit.patch(`renamed ${piece.name}`, 'furnishing', piece, { name })}
              />
              <SelectField
                bare
                label={`Use of ${piece.name}`}
                value={piece.use}
                disabled={disabled}
                options={FURNITURE_USES.map((value) => ({ value, word: capital(value) }))}
                onCommit={(use) => edit.patch(`changed ${piece.name}`, 'furnishing', piece, { use })}
              />
              <QuantityField
                bare
                hint=""
                label={`Height of ${piece.name}`}
                value={piece.height}
                measure="plates"
                min={1}
                max={3000}
                disabled={disabled}
                onCommit={(height) => edit.patch(`changed ${piece.name}`, 'furnishing', piece, { height })}
              />
              <span className={`text-xs text-right ${verdict === 'fits' ? 'text-success' : 'text-warning'}`}>
                {verdict === 'fits' ? 'suits' : chest ? '△ reaches the chest' : `△ too ${verdict}`}
                <span className="block ink-2 fig text-[11px] whitespace-nowrap">
                  {say(least, 'plates')} to {say(most, 'plates')}
                </span>
              </span>
              <RemoveButton
                what={piece.name}
                disabled={disabled}
                onClick={() => edit.remove(`removed ${piece.name}`, 'furnishing', piece.id, piece.v)}
              />
            </Row>
          );
        })}
      </Rows>
      <Basis>
        Built height over the {FIGURE_MM} mm of a figure, against the true range over a person of 1.75 m,
        rounded out to whole plates of {MM_PER_PLATE} mm:{' '}
        {FURNITURE_USES.map((use) => `${use}: ${FURNITURE_RULES[use].why}`).join('; ')}.
      </Basis>
    </div>
  );
}
