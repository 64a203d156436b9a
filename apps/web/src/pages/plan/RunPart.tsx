import { polygonRing } from '@quarry/core/bench';
import { CATALOGUE, gramsOfLines, partName, partOf } from '@quarry/core/catalogue';
import {
  MAX_PANELS,
  ringGape,
  ringRadii,
  ringSide,
  wallPanels,
  wallStraights,
  type Entity,
} from '@quarry/core/document';
import { MM_PER_STUD, countOf, formatKg } from '@quarry/core/grid';
import {
  LET_IN_FAMILIES,
  archRow,
  oppositePanels,
  panelMiddles,
  panelsOf,
  ringBearings,
  runPieces,
  spreadPanels,
} from '@quarry/core/terrain';
import { useState } from 'react';
import { useSetFields } from '../../ui/EntityForm.tsx';
import { partChoices } from '../../ui/fieldSpec.ts';
import { CheckField, NumberField, SelectField } from '../../ui/fields.tsx';
import { DefinitionRow, Quantity } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { OnRing } from './OnRing.tsx';

type Run = Entity<'run'>;
type Openings = Run['openings'];

const LET_IN = CATALOGUE.filter(({ family }) => LET_IN_FAMILIES.includes(family));
/** An arch stands on piers of a course at least. */
const leastSill = (part: string): number => (partOf(part)?.family === 'arch' ? 1 : 0);
const FIRST_WINDOW = 'window-2x1x2';

/** How long a wall or fence is, how its panels, arches and ring come out, what is let into it, and what it takes. */
export function RunPart({ run, disabled }: { run: Run; disabled: boolean }) {
  const straights = wallStraights(run);
  const panels = panelsOf(run).length;
  const rows = wallPanels(run).flatMap(({ length }) => archRow(run, length) ?? []);
  const [firstRow] = rows;
  const arches = rows.reduce((sum, { starts }) => sum + starts.length, 0);
  const left = [...new Set(rows.map((row) => Number(row.left.toFixed(1))))].toSorted((a, b) => a - b);
  const pieces = straights.flatMap((straight) => runPieces(run, straight));
  return (
    <>
      <DefinitionRow label="Length" note={panels > 0 ? countOf(panels, 'panel') : undefined}>
        <Quantity value={straights.reduce((sum, { length }) => sum + length, 0)} measure="studs" />
      </DefinitionRow>
      {run.ring !== null && <RingRows run={run} pieces={run.ring} />}
      {firstRow && (
        <DefinitionRow
          label="Arches"
          note={`${firstRow.starts.length} in the first ${panels > 0 ? 'panel' : 'straight'}; ${left.join(' or ')} studs plain at its ends`}
        >
          {arches}
        </DefinitionRow>
      )}
      <DefinitionRow label="Pieces" note={formatKg(gramsOfLines(pieces))}>
        {pieces.reduce((sum, { qty }) => sum + qty, 0)}
      </DefinitionRow>
      {run.use === 'wall' && <OpeningRows run={run} disabled={disabled} />}
      {run.use === 'wall' && run.ring !== null && <OnRing run={run} disabled={disabled} />}
    </>
  );
}

/** The measures of a ring: as the Bench tells them, and what is to be seen of its joints. */
function RingRows({ run, pieces }: { run: Run; pieces: number }) {
  const { angle, bays } = polygonRing(pieces, ringSide(run));
  const radii = ringRadii(run);
  return (
    <>
      <DefinitionRow
        label="Middle to its inner faces"
        note={`to the outer ones ${radii.outer.toFixed(2)}; ${angle.toFixed(2)}° a panel`}
      >
        {radii.inner.toFixed(2)} st
      </DefinitionRow>
      <DefinitionRow label="Joints gape outside" note="its line runs clockwise: left of it is outside">
        {(ringGape(run) * MM_PER_STUD).toFixed(1)} mm
      </DefinitionRow>
      <DefinitionRow label="Parts evenly into">{bays.join(', ') || 'its panels alone'}</DefinitionRow>
    </>
  );
}

/** Two lines an opening: the part, then its panel, its sill and where that is. */
const COLUMNS = 'repeat(4, minmax(0, 1fr)) 2.4rem';

/** Windows, doors and arches let into the panels of a wall. */
function OpeningRows({ run, disabled }: { run: Run; disabled: boolean }) {
  const set = useSetFields({ kind: 'run', id: run.id });
  const middles = panelMiddles(run);
  const count = Math.min(middles.length, MAX_PANELS);
  const bearings = ringBearings(run);
  const whereIs = (at: number): string => {
    const along = middles.at(at - 1);
    if (at > count || along === undefined) return '';
    return run.ring === null
      ? `at ${Number(along.toFixed(1))} studs`
      : placeWords(at, count, bearings[at - 1] ?? 0);
  };
  const inOrder = run.openings.toSorted((a, b) => a.at - b.at);
  const put = (openings: Openings) => set('let something into panels of', { openings });
  const change = (one: Openings[number], fields: Partial<Openings[number]>) =>
    put(run.openings.map((other) => (other === one ? { ...one, ...fields } : other)));
  const taken = new Set(run.openings.map(({ at }) => at));
  const free = Array.from({ length: count }, (_, i) => i + 1).find((at) => !taken.has(at));
  return (
    <>
      <Rows
        id="openings"
        title="Windows, doors and arches"
        columns={COLUMNS}
        words={[{ right: 'panel' }, { right: 'sill, b' }, 'where']}
        empty={<p className="ink-2 text-xs">None: its panels are plain.</p>}
        add={{
          word: 'One more',
          disabled: disabled || free === undefined,
          onClick: () => put([...run.openings, { at: free ?? 1, part: FIRST_WINDOW, sill: 2, niche: false }]),
        }}
      >
        {inOrder.map((one) => (
          <Row key={one.at} label={`Panel ${one.at}`} columns={COLUMNS}>
            <span className="col-span-4">
              <SelectField
                bare
                label={`Let into panel ${one.at}`}
                value={one.part}
                options={partChoices(LET_IN, one.part)}
                disabled={disabled}
                onCommit={(part) => change(one, { part, sill: Math.max(leastSill(part), one.sill) })}
              />
            </span>
            <RemoveButton
              what={`the ${partName(one.part)} in panel ${one.at}`}
              disabled={disabled}
              onClick={() => put(run.openings.filter((other) => other !== one))}
            />
            <NumberField
              bare
              label={`${partName(one.part)}, panel`}
              whole
              min={1}
              max={count}
              value={one.at}
              disabled={disabled}
              onCommit={(at) =>
                at !== null &&
                // Two that stand in one another's place change places.
                put(
                  run.openings.map((other) =>
                    other === one ? { ...one, at } : other.at === at ? { ...other, at: one.at } : other,
                  ),
                )
              }
            />
            <NumberField
              bare
              label={`${partName(one.part)} in panel ${one.at}, sill`}
              whole
              min={0}
              max={40}
              value={one.sill}
              disabled={disabled}
              onCommit={(sill) => sill !== null && change(one, { sill })}
            />
            <span className="col-span-3 ink-2 text-[11px] leading-4 fig">{whereIs(one.at)}</span>
            {run.thick > 1 && leastSill(one.part) > 0 && (
              <span className="col-span-5">
                <CheckField
                  label="A niche, closed behind"
                  value={one.niche}
                  disabled={disabled}
                  onCommit={(niche) => change(one, { niche })}
                />
              </span>
            )}
          </Row>
        ))}
      </Rows>
      {count > 1 && <Spread run={run} count={count} disabled={disabled} onPut={put} />}
    </>
  );
}

/** Where a panel of a ring stands, such as “90°, opposite 19”. */
function placeWords(at: number, count: number, bearing: number): string {
  const opposite = oppositePanels(count, at);
  const what = opposite.length > 1 ? `the joint ${opposite.join(' | ')}` : opposite[0];
  return `${Number(bearing.toFixed(1))}°, opposite ${what}`;
}

/** Spreads windows over the panels as evenly as they allow. */
function Spread({
  run,
  count,
  disabled,
  onPut,
}: {
  run: Run;
  count: number;
  disabled: boolean;
  onPut: (openings: Openings) => void;
}) {
  const [many, setMany] = useState(Math.min(6, count));
  const [part, setPart] = useState(FIRST_WINDOW);
  const [sill, setSill] = useState(2);
  const { at, apart } = spreadPanels(count, Math.min(many, count), run.ring !== null);
  const others = run.openings.filter((one) => one.part !== part);
  const taken = new Set(others.map((one) => one.at));
  const left = at.filter((one) => taken.has(one));
  const isDoor = partOf(part)?.family === 'door';
  return (
    <details className="text-xs pt-1">
      <summary className="cursor-pointer">Spread over the panels</summary>
      <NumberField
        label="How many"
        whole
        min={1}
        max={count}
        value={Math.min(many, count)}
        disabled={disabled}
        onCommit={(to) => to !== null && setMany(to)}
      />
      <SelectField
        label="Of"
        value={part}
        options={partChoices(LET_IN, part)}
        disabled={disabled}
        onCommit={setPart}
      />
      {!isDoor && (
        <NumberField
          label="Courses below"
          whole
          min={0}
          max={40}
          value={sill}
          disabled={disabled}
          onCommit={(to) => to !== null && setSill(to)}
        />
      )}
      <p className={apart.length > 1 ? 'text-warning' : 'ink-2'}>
        {apart.length > 1 && '△ '}
        {apart.length === 0
          ? 'In the middle'
          : apart.length === 1
            ? `Every ${countOf(apart[0] ?? 0, 'panel')}`
            : `${apart.join(' or ')} panels apart: ${at.length} do not part ${count} evenly`}
        {left.length > 0 &&
          `; left out in ${left.length > 1 ? 'panels' : 'panel'} ${left.join(', ')}, which ${left.length > 1 ? 'have' : 'has'} something else`}
        .
      </p>
      <button
        type="button"
        className="btn btn-xs mt-1"
        disabled={disabled}
        onClick={() =>
          onPut([
            ...others,
            ...at.flatMap((one) =>
              taken.has(one)
                ? []
                : [{ at: one, part, sill: isDoor ? 0 : Math.max(leastSill(part), sill), niche: false }],
            ),
          ])
        }
      >
        Let them in
      </button>
    </details>
  );
}
