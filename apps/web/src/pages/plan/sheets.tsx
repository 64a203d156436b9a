import { MM, formatMm, formatPlates, outerSize, type Rect } from '@quarry/core/lattice';
import { metresOf } from '@quarry/core/scale';
import { heightRange } from '@quarry/core/relief';
import {
  COLOUR_POLICIES,
  GROUNDS,
  MAX_STUDS,
  STAGES,
  displayOf,
  listOf,
  padsInOrder,
  type Entity,
  type Module,
  type Pad,
  type Plot,
  type Section,
} from '@quarry/core/scene';
import { wayOf, widestOf } from '@quarry/core/site';
import { useDisplay, useEdit, useMay } from '../../data/useDisplay.tsx';
import { CheckField, NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Heading, Line, Quantity } from '../../ui/parts.tsx';
import { basesInWords, capital } from '../../ui/words.ts';
import { useSurvey } from '../../workers/survey.tsx';

type Place = Rect & { name: string };

/** Name, place and size: the same for everything measured in studs. */
function PlaceFields({
  place: { name, x, y, w, d },
  step,
  disabled,
  set,
}: {
  place: Place;
  step: number;
  disabled: boolean;
  set: (what: string, fields: Partial<Place>) => void;
}) {
  const common = { measure: 'studs', step, disabled } as const;
  return (
    <>
      <TextField
        label="Name"
        required
        value={name}
        disabled={disabled}
        onCommit={(value) => set('renamed', { name: value })}
      />
      <QuantityField
        label="Width, east"
        value={w}
        min={step}
        max={MAX_STUDS}
        {...common}
        onCommit={(value) => set('resized', { w: value })}
      />
      <QuantityField
        label="Depth, south"
        value={d}
        min={step}
        max={MAX_STUDS}
        {...common}
        onCommit={(value) => set('resized', { d: value })}
      />
      <QuantityField
        label="From west"
        value={x}
        min={-MAX_STUDS}
        max={MAX_STUDS}
        {...common}
        onCommit={(value) => set('moved', { x: value })}
      />
      <QuantityField
        label="From north"
        value={y}
        min={-MAX_STUDS}
        max={MAX_STUDS}
        {...common}
        onCommit={(value) => set('moved', { y: value })}
      />
    </>
  );
}

export function FootprintSheet({ part, disabled }: { part: Entity<'footprint'>; disabled: boolean }) {
  const edit = useEdit();
  return (
    <PlaceFields
      place={part}
      step={1}
      disabled={disabled}
      set={(what, fields) => edit.patch(`${what} ${part.name}`, 'footprint', part, fields)}
    />
  );
}

const wordsOf = <T extends string>(list: readonly T[]) =>
  list.map((value) => ({ value, word: capital(value) }));

export function PadSheet({ pad, disabled }: { pad: Pad; disabled: boolean }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const set = (what: string, fields: Partial<Pad>) => edit.patch(`${what} ${pad.name}`, 'pad', pad, fields);
  const height = (scene.level[pad.level]?.height ?? 0) + pad.offset;
  const pads = padsInOrder(scene);
  return (
    <>
      <PlaceFields place={pad} step={0.5} disabled={disabled} set={set} />
      <SelectField
        label="Level"
        value={pad.level}
        disabled={disabled}
        options={listOf(scene, 'level').map(({ id, name, height: at }) => ({
          value: id,
          word: `${name}, ${formatPlates(at)}`,
        }))}
        onCommit={(level) => set('changed the level of', { level })}
      />
      <QuantityField
        label="Above it"
        value={pad.offset}
        measure="plates"
        min={-3000}
        max={3000}
        disabled={disabled}
        onCommit={(offset) => set('raised', { offset })}
      />
      <Line label="Ground at">
        <Quantity value={height} measure="plates" />
      </Line>
      <SelectField
        label="Ground"
        value={pad.ground}
        disabled={disabled}
        options={wordsOf(GROUNDS)}
        onCommit={(ground) => set('changed the ground of', { ground })}
      />
      <SelectField
        label="Shape"
        value={pad.shape}
        disabled={disabled}
        options={wordsOf(['rect', 'oval'] as const).map(({ value, word }) => ({
          value,
          word: value === 'rect' ? 'Rectangle' : word,
        }))}
        onCommit={(shape) => set('reshaped', { shape })}
      />
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
    </>
  );
}

export function PlotSheet({ plot, disabled }: { plot: Plot; disabled: boolean }) {
  const { scene } = useDisplay();
  const { survey } = useSurvey();
  const edit = useEdit();
  const { ratio, kind } = displayOf(scene);
  const set = (what: string, fields: Partial<Plot>) =>
    edit.patch(`${what} ${plot.name}`, 'plot', plot, fields);
  const range = survey ? heightRange(survey.relief, plot) : null;
  const inside = Math.max(0, plot.w - 2) * Math.max(0, plot.d - 2);
  const metres = (studs: number) => metresOf(studs, ratio).toFixed(1);
  return (
    <>
      <PlaceFields place={plot} step={0.5} disabled={disabled} set={set} />
      <QuantityField
        label="Height"
        value={plot.height}
        measure="plates"
        min={1}
        max={3000}
        disabled={disabled}
        onCommit={(height) => set('changed the height of', { height })}
      />
      <NumberField
        label="Storeys"
        value={plot.storeys}
        min={0}
        max={60}
        whole
        disabled={disabled}
        onCommit={(storeys) => set('changed the storeys of', { storeys: storeys ?? 0 })}
      />
      <SelectField
        label="Mount"
        value={plot.mount}
        disabled={disabled}
        options={[
          { value: 'pinned', word: 'Pinned to the ground' },
          { value: 'jumpers', word: 'On jumpers' },
          { value: 'loose', word: 'Loose on plates' },
        ]}
        onCommit={(mount) => set('changed the mount of', { mount })}
      />
      <CheckField
        label="A seam may cut it"
        value={plot.mayCut}
        disabled={disabled}
        onCommit={(mayCut) => set('changed', { mayCut })}
      />
      <CheckField
        label="Street front"
        value={plot.streetFront}
        disabled={disabled}
        onCommit={(streetFront) => set('changed', { streetFront })}
      />
      {kind === 'vignette' && (
        <QuantityField
          label="Stands out from"
          value={plot.overhangFrom}
          measure="plates"
          min={0}
          max={3000}
          disabled={disabled}
          onCommit={(overhangFrom) => set('changed', { overhangFrom })}
        />
      )}
      <Heading>At 1:{ratio}</Heading>
      <dl>
        <Line label="Real size">
          {metres(plot.w)} × {metres(plot.d)} m
        </Line>
        <Line
          label="Inside, one-stud walls"
          note={`${(inside * metresOf(1, ratio) ** 2).toFixed(0)} m² a floor`}
        >
          {inside.toLocaleString('en')} studs
        </Line>
        {range && (
          <Line label="Stands on">
            {formatPlates(range.high)}
            {range.low !== range.high && ` (lowest ${formatPlates(range.low)})`}
          </Line>
        )}
        {range && (
          <Line label="Roof at">
            <Quantity value={range.high + plot.height} measure="plates" />
          </Line>
        )}
      </dl>
    </>
  );
}

export function SectionSheet({ section }: { section: Section }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const may = useMay();
  const set = (what: string, fields: Partial<Section>) =>
    edit.patch(`${what} section ${section.letter}`, 'section', section, fields);
  const forbids = (fields: Record<string, unknown>) =>
    may({ op: 'patch', kind: 'section', id: section.id, v: section.v, set: fields }) !== null;
  const plan = forbids({ name: section.name });
  return (
    <>
      <PlaceFields place={section} step={0.5} disabled={plan} set={set} />
      <TextField
        label="Letter"
        required
        max={2}
        value={section.letter}
        disabled={plan}
        onCommit={(letter) => set('lettered', { letter })}
      />
      <SelectField
        label="Owner"
        value={section.owner ?? ''}
        disabled={plan}
        options={[
          { value: '', word: 'Nobody yet' },
          ...listOf(scene, 'person').map(({ id, name }) => ({ value: id, word: name })),
        ]}
        onCommit={(owner) => set('gave away', { owner: owner === '' ? null : owner })}
      />
      <SelectField
        label="Colours"
        value={section.colour ?? ''}
        disabled={plan}
        options={[{ value: '', word: 'As the house rules' }, ...wordsOf(COLOUR_POLICIES)]}
        onCommit={(colour) => set('set the colours of', { colour: colour === '' ? null : colour })}
      />
      <SelectField
        label="Stage"
        value={section.stage}
        disabled={forbids({ stage: section.stage })}
        options={wordsOf(STAGES)}
        onCommit={(stage) => set('moved the stage of', { stage, stageDone: 0 })}
      />
      <NumberField
        label="Of this stage"
        unit="%"
        value={section.stageDone}
        min={0}
        max={100}
        whole
        disabled={forbids({ stageDone: 0 })}
        onCommit={(stageDone) => set('moved', { stageDone: stageDone ?? 0 })}
      />
      <Line label="Area">{(section.w * section.d).toLocaleString('en')} studs</Line>
    </>
  );
}

export function ModuleSheet({ module }: { module: Module }) {
  const { scene } = useDisplay();
  const { survey } = useSurvey();
  const range = survey ? heightRange(survey.relief, module) : null;
  const sides = [outerSize(module.w) / MM, outerSize(module.d) / MM].sort((a, b) => a - b);
  const passage = wayOf(scene).sort((a, b) => widestOf(a) - widestOf(b))[0];
  const owners = listOf(scene, 'section').filter(
    (section) =>
      section.x < module.x + module.w &&
      module.x < section.x + section.w &&
      section.y < module.y + module.d &&
      module.y < section.y + section.d,
  );
  return (
    <dl>
      <Line label="Size" note={`${outerSize(module.w) / MM} × ${outerSize(module.d) / MM} mm outside`}>
        {module.w} × {module.d} st
      </Line>
      <Line label="Stands at">
        {module.x}, {module.y}
      </Line>
      {range && (
        <Line label="Ground">
          {formatPlates(range.low)} to {formatPlates(range.high)}
        </Line>
      )}
      <Line label="Bases">{basesInWords(module.bases) || 'none'}</Line>
      <Line label="Sections">{owners.map(({ letter }) => letter).join(', ') || 'none'}</Line>
      {passage && (
        <Line
          label="Tightest passage"
          note={`${formatMm(Math.abs(widestOf(passage) - sides[0]) * MM)} ${sides[0] > widestOf(passage) ? 'too narrow' : 'to spare'}`}
        >
          {passage.name} {formatMm(widestOf(passage) * MM)}
        </Line>
      )}
    </dl>
  );
}
