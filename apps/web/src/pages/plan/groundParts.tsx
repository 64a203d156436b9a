import {
  PERCENT_PER_PLATE,
  meanGrade,
  heightOfStud,
  lengthOfLine,
  steepest,
  wayProfile,
} from '@quarry/core/relief';
import {
  EDGES,
  MAX_STUDS,
  SIDES,
  SIDE_WORDS,
  padsInOrder,
  pointsOf,
  type Pad,
  type Way,
} from '@quarry/core/scene';
import { useDisplay } from '../../data/useDisplay.tsx';
import type { Picked } from '../../data/view.ts';
import { NumberField, QuantityField, SelectField } from '../../ui/fields.tsx';
import { Basis, Heading, Line, Quantity } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { useSay } from '../../ui/useSay.ts';
import { capital } from '../../ui/words.ts';
import { useSurvey } from '../../workers/survey.tsx';
import { useSetThing } from './ThingSheet.tsx';

/** What the data sheets of ground and ways have beyond their plain fields. */

const EDGE_WORDS = {
  open: 'Open',
  cliff: 'Cliff',
  slope: 'Slope',
  wall: 'Wall',
  terrace: 'Terrace',
} as const;

export function PadPart({ pad, disabled }: { pad: Pad; disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const set = useSetThing({ kind: 'pad', id: pad.id });
  const pads = padsInOrder(scene);
  return (
    <>
      <Line label="Ground at">
        <Quantity value={(scene.level[pad.level]?.height ?? 0) + pad.offset} measure="plates" />
      </Line>
      <Line label="Laid" note={`${pads.findIndex(({ id }) => id === pad.id) + 1} of ${pads.length}`}>
        <span className="join">
          <button
            type="button"
            className="btn btn-xs join-item"
            disabled={disabled || pads[0]?.id === pad.id}
            onClick={() => set('lowered in the order', { order: Math.max(0, (pads[0]?.order ?? 1) - 1) })}
          >
            First
          </button>
          <button
            type="button"
            className="btn btn-xs join-item"
            disabled={disabled || pads.at(-1)?.id === pad.id}
            onClick={() =>
              set('raised in the order', { order: Math.min(100_000, (pads.at(-1)?.order ?? 0) + 1) })
            }
          >
            Last, on top
          </button>
        </span>
      </Line>
      {pad.shape === 'rect' && (
        <>
          <Heading aside="studs a brick">Edges</Heading>
          {SIDES.map((side) => {
            const edge = pad.edges[side];
            const slopes = edge.kind === 'slope' || edge.kind === 'terrace';
            const change = (fields: Partial<typeof edge>) =>
              set('dressed an edge of', { edges: { ...pad.edges, [side]: { ...edge, ...fields } } });
            return (
              <Row key={side} label={`${SIDE_WORDS[side]} edge`} columns="3.2rem minmax(0,1fr) 4.5rem">
                <span>{capital(SIDE_WORDS[side])}</span>
                <SelectField
                  bare
                  label={`${capital(SIDE_WORDS[side])} edge`}
                  value={edge.kind}
                  disabled={disabled}
                  options={EDGES.map((value) => ({ value, word: EDGE_WORDS[value] }))}
                  onCommit={(kind) => change({ kind })}
                />
                {slopes ? (
                  <NumberField
                    bare
                    label={`${capital(SIDE_WORDS[side])} run, studs a brick`}
                    value={edge.run}
                    min={0.25}
                    max={64}
                    disabled={disabled}
                    onCommit={(run) => run !== null && change({ run })}
                  />
                ) : (
                  <span />
                )}
              </Row>
            );
          })}
        </>
      )}
    </>
  );
}

/** Where the points of a line are, to be typed; of ways and streams with the height each holds. */
export function PointsPart({ picked, disabled }: { picked: Picked; disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const set = useSetThing(picked);
  const entity = scene[picked.kind][picked.id];
  const points = entity ? pointsOf(entity) : null;
  if (!points) return null;
  const heights = picked.kind === 'way' || picked.kind === 'stream';
  const columns = heights ? '2.9rem 2.9rem minmax(0,1fr) 24px' : '1fr 1fr 24px';
  const change = (i: number, fields: object) =>
    set('drew anew', { points: points.map((point, j) => (i === j ? { ...point, ...fields } : point)) });
  const heightOf = (point: object): number | null =>
    'z' in point && typeof point.z === 'number' ? point.z : null;
  const last = points[points.length - 1];
  return (
    <Rows
      id="points"
      title="Points"
      aside={`${lengthOfLine(points).toFixed(1)} studs long`}
      columns={columns}
      words={heights ? ['East', 'South', 'Height'] : ['East', 'South']}
      add={{
        word: 'Point',
        disabled: disabled || points.length >= 200,
        onClick: () => set('lengthened', { points: [...points, { ...last, x: last.x + 8 }] }),
      }}
    >
      {points.map((point, i) => (
        <Row key={i} label={`Point ${i + 1}`} columns={columns}>
          {(['x', 'y'] as const).map((axis) => (
            <NumberField
              key={axis}
              bare
              label={`Point ${i + 1}, ${axis === 'x' ? 'east' : 'south'}`}
              value={point[axis]}
              min={-MAX_STUDS}
              max={MAX_STUDS}
              disabled={disabled}
              onCommit={(value) => value !== null && change(i, { [axis]: Math.round(value * 2) / 2 })}
            />
          ))}
          {heights && (
            <HeightCell
              label={`Point ${i + 1}, height`}
              value={heightOf(point)}
              disabled={disabled}
              onCommit={(z) => change(i, { z })}
            />
          )}
          <RemoveButton
            what={`point ${i + 1}`}
            disabled={disabled || points.length <= 2}
            onClick={() => set('shortened', { points: points.filter((_, j) => j !== i) })}
          />
        </Row>
      ))}
    </Rows>
  );
}

/** A height that is held, or a button to hold one; typed as 0, it can be let go of again beside it. */
function HeightCell({
  label,
  value,
  disabled,
  onCommit,
}: {
  label: string;
  value: number | null;
  disabled: boolean;
  onCommit: (value: number | null) => void;
}) {
  if (value === null)
    return (
      <button
        type="button"
        className="btn btn-xs h-6 font-normal"
        disabled={disabled}
        aria-label={`${label}: hold one`}
        onClick={() => onCommit(0)}
      >
        free
      </button>
    );
  return (
    <span className="flex items-center">
      <QuantityField
        bare
        label={label}
        value={value}
        measure="plates"
        min={-3000}
        max={3000}
        hint=" "
        disabled={disabled}
        onCommit={onCommit}
      />
      <button
        type="button"
        className="btn btn-xs btn-ghost px-1"
        disabled={disabled}
        aria-label={`${label}: let go`}
        title="Let go: as the points beside it say"
        onClick={() => onCommit(null)}
      >
        ×
      </button>
    </span>
  );
}

/** How steep a way comes out, and where. */
export function WayPart({ way }: { way: Way }) {
  const ground = useSurvey(({ ground }) => ground);
  const relief = ground?.relief;
  const worst =
    relief && steepest(wayProfile(way, (x, y) => heightOfStud(relief, Math.floor(x), Math.floor(y))));
  if (!worst) return null;
  return (
    <>
      <Line
        label="Steepest stretch"
        note={`at ${worst.at.x.toFixed(0)}, ${worst.at.y.toFixed(0)} · limit ${way.maxGrade} %`}
      >
        <span className={worst.grade > way.maxGrade ? 'text-error font-semibold' : ''}>
          {worst.grade.toFixed(0)} %
        </span>
      </Line>
      <Basis>
        Height over length along the middle of the way, over 8 studs: one plate a stud is {PERCENT_PER_PLATE}{' '}
        % (3.2 mm over 8 mm).
      </Basis>
    </>
  );
}

/** The ground's own numbers of a hill or a hollow. */
export function RisePart({ height, w, d }: { height: number; w: number; d: number }) {
  const { say, sayAlso } = useSay();
  const { grade, run } = meanGrade({ height, w, d });
  return (
    <>
      <Line
        label="Mean slope"
        note={`${say(height, 'plates')} in ${run.toFixed(1)} studs (${sayAlso(height, 'plates')})`}
      >
        {grade.toFixed(0)} %
      </Line>
      <Basis>
        Its height over half its lesser side: one plate a stud is {PERCENT_PER_PLATE} % (3.2 mm over 8 mm).
        Where the profile is not even, some of it is steeper.
      </Basis>
    </>
  );
}
