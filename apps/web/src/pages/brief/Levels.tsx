import { formatPlates } from '@quarry/core/grid';
import { displayOf, listOf, type Entity } from '@quarry/core/document';
import { freshId, useEdit, useScene } from '../../data/useDisplay.tsx';
import { OptionalQuantityField, QuantityField, TextField } from '../../ui/fields.tsx';
import { Empty } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

const COLUMNS = 'minmax(5rem,1fr) minmax(0,1.4fr) auto auto';

/** The named heights the scene is made of, and the step agreed between them. */
export function Levels({ disabled }: { disabled: boolean }) {
  const scene = useScene('display', 'level');
  const edit = useEdit();
  const set = useSetDisplay();
  const display = displayOf(scene);
  const levels = listOf(scene, 'level').toSorted((a, b) => b.height - a.height);
  const change = (level: Entity<'level'>, what: string, fields: Partial<Entity<'level'>>) =>
    edit.patch(`${what} level ${level.name}`, 'level', level, fields);
  return (
    <>
      <Rows
        id="levels"
        title="Levels"
        aside={`above the ${display.datum}`}
        columns={COLUMNS}
        empty={
          <Empty title="No level yet">
            Name the heights the scene is made of, such as water, street and upper yard; pads then refer to
            them.
          </Empty>
        }
        add={{
          word: 'Add a level',
          disabled,
          onClick: () =>
            void edit.add('added a level', 'level', freshId('level'), {
              name: `Level ${levels.length + 1}`,
              height: (levels[0]?.height ?? -12) + (display.levelStep ?? 15),
            }),
        }}
      >
        {levels.map((level, i) => {
          const below = levels[i + 1];
          const rise = below ? level.height - below.height : null;
          const fits = rise === null || display.levelStep === null || rise % display.levelStep === 0;
          return (
            <Row key={level.id} label={`Level ${level.name}`} columns={COLUMNS}>
              <TextField
                bare
                label="Level name"
                required
                value={level.name}
                disabled={disabled}
                onCommit={(name) => change(level, 'renamed', { name })}
              />
              <span className={`text-xs text-right ${fits ? 'ink-2' : 'text-warning'}`}>
                {rise !== null && `${fits ? '' : '△ off step, '}${formatPlates(rise)} up`}
              </span>
              <QuantityField
                bare
                label={`Height of ${level.name}`}
                value={level.height}
                measure="plates"
                min={-3000}
                max={3000}
                disabled={disabled}
                onCommit={(height) => change(level, 'moved', { height })}
              />
              <RemoveButton
                what={`level ${level.name}`}
                disabled={disabled}
                onClick={() => edit.remove(`removed level ${level.name}`, 'level', level.id, level.v)}
              />
            </Row>
          );
        })}
      </Rows>
      <OptionalQuantityField
        label="Agreed step between levels"
        none="none"
        measure="plates"
        value={display.levelStep}
        min={1}
        max={3000}
        disabled={disabled}
        onCommit={(levelStep) => set('agreed on a step', { levelStep })}
      />
    </>
  );
}
