import { countOf, lengthOfLine } from '@quarry/core/grid';
import {
  PERCENT_OF_STEPS,
  PERCENT_PER_PLATE,
  gradeLimit,
  heightOfStud,
  isClimbable,
  riseCard,
  steepest,
  wayProfile,
} from '@quarry/core/terrain';
import {
  EDGES,
  MAX_STUDS,
  SIDES,
  SIDE_WORDS,
  padLaid,
  padsInOrder,
  pointsOf,
  type Hill,
  type Hollow,
  type Pad,
  type Way,
} from '@quarry/core/document';
import { useDisplay, useEdit, useEntity } from '../../data/useDisplay.tsx';
import type { Picked } from '../../data/view.ts';
import { QuantityField, SelectField } from '../../ui/fields.tsx';
import { Basis, Heading, DefinitionRow, Quantity } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { capital } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { useSetFields } from '../../ui/EntityForm.tsx';

// What the data sheets of ground and ways have beyond their plain fields.

const EDGE_WORDS = {
  open: 'Open',
  cliff: 'Cliff',
  slope: 'Slope',
  wall: 'Wall',
  terrace: 'Terrace',
} as const;

export function PadPart({ pad, disabled }: { pad: Pad; disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const set = useSetFields({ kind: 'pad', id: pad.id });
  const pads = padsInOrder(scene);
  return (
    <>
      <DefinitionRow label="Ground at">
        <Quantity value={(scene.level[pad.level]?.height ?? 0) + pad.offset} measure="plates" />
      </DefinitionRow>
      <DefinitionRow label="Laid" note={`${pads.findIndex(({ id }) => id === pad.id) + 1} of ${pads.length}`}>
        <span className="join">
          <button
            type="button"
            className="btn btn-xs join-item"
            disabled={disabled || pads[0]?.id === pad.id}
            onClick={() => edit.change(`lowered in the order ${pad.name}`, padLaid(scene, pad.id, 'first'))}
          >
            First
          </button>
          <button
            type="button"
            className="btn btn-xs join-item"
            disabled={disabled || pads.at(-1)?.id === pad.id}
            onClick={() => edit.change(`raised in the order ${pad.name}`, padLaid(scene, pad.id, 'last'))}
          >
            Last, on top
          </button>
        </span>
      </DefinitionRow>
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
                  <QuantityField
                    measure="studs"
                    step={0.25}
                    hint={null}
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
  const set = useSetFields(picked);
  const relief = useDerived(({ ground }) => ground?.relief);
  const entity = useEntity(picked);
  const points = entity ? pointsOf(entity) : null;
  if (!entity || !points) return null;
  const isRing = 'ring' in entity && entity.ring !== null;
  const heights = picked.kind === 'way' || picked.kind === 'stream';
  const columns = heights ? '4.5rem 4.5rem minmax(0,1fr) 24px' : '1fr 1fr 24px';
  const change = (i: number, fields: object) =>
    set('redrew', { points: points.map((point, j) => (i === j ? { ...point, ...fields } : point)) });
  const heightOf = (point: object): number | null =>
    'z' in point && typeof point.z === 'number' ? point.z : null;
  const groundUnder = ({ x, y }: { x: number; y: number }) =>
    (relief && heightOfStud(relief, Math.floor(x), Math.floor(y))) ?? 0;
  const last = points.at(-1);
  return (
    <Rows
      id="points"
      title={isRing ? 'Its middle, and where its first panel faces' : 'Points'}
      aside={isRing ? undefined : `${lengthOfLine(points).toFixed(1)} studs long`}
      columns={columns}
      words={heights ? ['East', 'South', 'Height'] : ['East', 'South']}
      add={
        isRing
          ? undefined
          : {
              word: 'Point',
              disabled: disabled || points.length >= 200,
              onClick: () => last && set('lengthened', { points: [...points, { ...last, x: last.x + 8 }] }),
            }
      }
    >
      {points.map((point, i) => (
        <Row key={i} label={`Point ${i + 1}`} columns={columns}>
          {(['x', 'y'] as const).map((axis) => (
            <QuantityField
              key={axis}
              bare
              label={`Point ${i + 1}, ${axis === 'x' ? 'east' : 'south'}`}
              value={point[axis]}
              measure="studs"
              hint={null}
              min={-MAX_STUDS}
              max={MAX_STUDS}
              disabled={disabled}
              onCommit={(value) => change(i, { [axis]: value })}
            />
          ))}
          {heights && (
            <HeightCell
              label={`Point ${i + 1}, height`}
              value={heightOf(point)}
              ground={groundUnder(point)}
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
  ground,
  disabled,
  onCommit,
}: {
  label: string;
  value: number | null;
  /** Height of the ground there now: where holding begins, plates. */
  ground: number;
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
        onClick={() => onCommit(ground)}
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
        hint={null}
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
  const ground = useDerived(({ ground }) => ground);
  const relief = ground?.relief;
  // The ground that is there now has the way on it: its own surface is what is measured.
  const worst =
    relief &&
    steepest(
      wayProfile(isClimbable(way) ? way : { ...way, rise: 0, onSteep: 'follow' }, (x, y) =>
        heightOfStud(relief, Math.floor(x), Math.floor(y)),
      ),
    );
  if (!worst) return null;
  const limit = gradeLimit(way);
  return (
    <>
      <DefinitionRow
        label="Steepest stretch"
        note={`at ${worst.at.x.toFixed(0)}, ${worst.at.y.toFixed(0)} · limit ${limit} %`}
      >
        <span className={worst.grade > limit + PERCENT_PER_PLATE / 8 ? 'text-error font-semibold' : ''}>
          {worst.grade.toFixed(0)} %
        </span>
      </DefinitionRow>
      <Basis>
        Height over length along the middle of the way, over 8 studs: one plate a stud is {PERCENT_PER_PLATE}{' '}
        % (3.2 mm over 8 mm).
        {way.onSteep === 'steps' &&
          ` Where the ground is steeper than ${way.maxGrade} % there are steps: a brick up on two studs, ${PERCENT_OF_STEPS} %.`}
      </Basis>
    </>
  );
}

type Rising = Hill | Hollow;
const ENDS = [
  { name: 'One end', x: 'x1', y: 'y1' },
  { name: 'Other end', x: 'x2', y: 'y2' },
] as const;

/** The ridge of a hill (of a hollow: its deepest line) to be placed, and the numbers it comes to. */
export function RisePart({ picked, thing, disabled }: { picked: Picked; thing: Rising; disabled: boolean }) {
  const { say, sayAlso } = useMeasureFormat();
  const set = useSetFields(picked);
  const { x, y, w, d, ridge, shape, profile } = thing;
  const whole = 'height' in thing ? thing.height : thing.depth;
  const card = riseCard(thing, whole);
  const columns = '4.6rem minmax(0,1fr) minmax(0,1fr)';
  const peak = ridge.x1 === ridge.x2 && ridge.y1 === ridge.y2;
  const down = !('height' in thing);
  return (
    <>
      {profile !== 'sheer' && (
        <>
          <Heading aside="studs from west, from north">
            {peak ? (down ? 'Deepest point' : 'Peak') : down ? 'Deepest line' : 'Ridge'}
          </Heading>
          {ENDS.map((end) => (
            <Row key={end.name} label={end.name} columns={columns}>
              <span>{end.name}</span>
              <QuantityField
                measure="studs"
                step={0.25}
                hint={null}
                bare
                label={`${end.name} of the ridge, from west`}
                value={x + ridge[end.x] * w}
                min={x}
                max={x + w}
                disabled={disabled}
                onCommit={(at) => set('moved the ridge of', { ridge: { ...ridge, [end.x]: (at - x) / w } })}
              />
              <QuantityField
                measure="studs"
                step={0.25}
                hint={null}
                bare
                label={`${end.name} of the ridge, from north`}
                value={y + ridge[end.y] * d}
                min={y}
                max={y + d}
                disabled={disabled}
                onCommit={(at) => set('moved the ridge of', { ridge: { ...ridge, [end.y]: (at - y) / d } })}
              />
            </Row>
          ))}
        </>
      )}
      <Heading>What it comes to</Heading>
      <DefinitionRow label={down ? 'Reaches down' : 'Reaches'} note={sayAlso(card.reaches, 'plates')}>
        <span className={card.reaches < whole ? 'text-error font-semibold' : ''}>
          {say(card.reaches, 'plates')}
        </span>
      </DefinitionRow>
      {card.reaches < whole && (
        <p className="text-error text-xs py-1">
          No stud of it lies at its {peak ? 'peak' : 'ridge'}: move that inside the {shape}.
        </p>
      )}
      <DefinitionRow label="Lies on">{countOf(card.studs, 'stud')}</DefinitionRow>
      {card.terraces > 0 && profile !== 'sheer' && (
        <DefinitionRow label="Terraces">{card.terraces}</DefinitionRow>
      )}
      {profile === 'sheer' ? (
        <DefinitionRow label="Sides">sheer: {say(whole, 'plates')} at once</DefinitionRow>
      ) : (
        <>
          {card.sides.map(({ side, run, grade }) => (
            <DefinitionRow
              key={side}
              label={`Slope ${SIDE_WORDS[side]}`}
              note={`${say(whole, 'plates')} in ${run.toFixed(1)} studs`}
            >
              {grade === null ? 'sheer' : `${grade.toFixed(0)} %`}
            </DefinitionRow>
          ))}
          <Basis>
            Its {down ? 'depth' : 'height'} over the studs from its ridge to its border on that side: one
            plate a stud is {PERCENT_PER_PLATE} % (3.2 mm over 8 mm). Where the slope is not even, some of it
            is steeper; a rock face gains all of it in a quarter of the way.
          </Basis>
        </>
      )}
    </>
  );
}
