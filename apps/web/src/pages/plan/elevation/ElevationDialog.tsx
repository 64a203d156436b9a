import { useMemo, useState } from 'react';
import { CATALOGUE, partName } from '@quarry/core/catalogue';
import { countOf, formatPlates, present } from '@quarry/core/grid';
import { SIDES, SIDE_WORDS, type Change, type Entity, type Side } from '@quarry/core/document';
import {
  baysAt,
  elevationOf,
  frontLength,
  raisedBy,
  readRhythm,
  ridgeOf,
  withBay,
  withCopies,
  withRhythm,
  withSideOf,
  withStoreyHeight,
  writeRhythm,
  recessFaces,
  type ElevationPoint,
  type Face,
  type FrontPlace,
  type PlacedBay,
} from '@quarry/core/structures';
import { useDenialReason, useDisplay, useEdit } from '../../../data/useDisplay.tsx';
import { useVersionBeside } from '../../../data/versions.ts';
import { useSetFields } from '../../../ui/EntityForm.tsx';
import { NumberField, OptionalQuantityField, SelectField, TextField } from '../../../ui/fields.tsx';
import { Basis, DefinitionRow, Dialog } from '../../../ui/parts.tsx';
import { Tabs } from '../../../ui/Tabs.tsx';
import { capital } from '../../../ui/words.ts';
import { VersionBesideField } from '../../../ui/VersionBesideField.tsx';
import { useDerived } from '../../../workers/useDerived.ts';
import { ElevationDrawing, sidesFrom } from './ElevationDrawing.tsx';
import { StandsInPart } from './StandsInPart.tsx';
import { TracingPart } from './TracingPart.tsx';
import { useTracing } from './useTracing.ts';
import { frontsBeside, inVersion } from './frontsBeside.ts';

const PLAIN = 'plain';
const LET_IN = CATALOGUE.filter(
  ({ family }) => family === 'window' || family === 'door' || family === 'arch',
);
const OPTIONS = [
  { value: PLAIN, word: 'Plain wall' },
  ...LET_IN.map(({ id }) => ({ value: id, word: capital(partName(id)) })),
];

/** The fronts of a building, side by side round it: drawn to scale, divided into bays by typing and pressing. */
export function ElevationDialog({
  plot,
  disabled,
  onClose,
}: {
  plot: Entity<'plot'>;
  disabled: boolean;
  onClose: () => void;
}) {
  const scene = useDisplay(({ scene }) => scene);
  const ground = useDerived(({ ground }) => ground);
  const [asked, setFace] = useState<Face>({ side: plot.front, recess: null });
  const faces = [
    ...sidesFrom(plot.front).map((side): Face => ({ side, recess: null })),
    ...recessFaces(plot),
  ];
  // Somebody else may take a recess away meanwhile.
  const face = present(faces.find((one) => faceId(one) === faceId(asked)) ?? faces[0], 'a front');
  const { side, recess } = face;
  const [picked, setPicked] = useState<{ storey: number; index: number | null }>({ storey: 1, index: null });
  const [isStreet, setIsStreet] = useState(false);
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const elevation = useMemo(() => elevationOf(plot, side, recess), [plot, side, recess]);
  const beside = useMemo(
    () => (isStreet && recess === null ? frontsBeside(scene, ground?.relief ?? null, plot, side) : []),
    [isStreet, scene, ground, plot, side, recess],
  );
  const { beside: version, own: _own, ...choice } = useVersionBeside();
  const otherwise = useMemo(
    () =>
      version && recess === null
        ? inVersion(version.scene, version.name, plot, side, elevation.length)
        : null,
    [version, plot, side, recess, elevation.length],
  );
  const [tracing, setTracing] = useTracing(`${plot.id} ${faceId(face)}`);
  // Points of the photograph that are pressed; null: none is asked for.
  const [points, setPoints] = useState<ElevationPoint[] | null>(null);
  const storey = Math.max(1, Math.min(picked.storey, elevation.storeys.length));
  const place: FrontPlace = { side, recess, storey };
  const change = (verb: string, bays: typeof plot.bays) => set(verb, { bays });
  return (
    <Dialog title={`Fronts of ${plot.name}`} open onClose={onClose} wide>
      <Tabs
        label="Sides"
        look="line"
        open={faceId(face)}
        onOpen={(to) => {
          setFace(faces.find((one) => faceId(one) === to) ?? face);
          setPoints(null);
        }}
        tabs={faces.map((one) => ({
          id: faceId(one),
          word: <span className="px-2">{faceWord(one, plot.front)}</span>,
        }))}
      />
      <ElevationDrawing
        elevation={elevation}
        beside={otherwise ? [otherwise] : beside}
        picked={{ storey, index: picked.index }}
        tracing={tracing}
        points={points ?? []}
        disabled={disabled}
        onPick={(at, index) => setPicked({ storey: at, index })}
        onPoint={points && points.length < 2 ? (point) => setPoints([...points, point]) : null}
        onHeight={(at, height) =>
          set('changed the storeys of', {
            storeyHeights: withStoreyHeight(plot.storeyHeights, at, height),
          })
        }
      />
      <div className="grid sm:grid-cols-2 gap-x-6">
        <StoreyFields
          plot={plot}
          place={place}
          count={elevation.storeys.length}
          courses={elevation.storeys[storey - 1]?.courses ?? 0}
          left={elevation.fronts.find((front) => front.storey === storey)?.left ?? null}
          disabled={disabled}
          onStorey={(at) => setPicked({ storey: at, index: null })}
          onHeights={(storeyHeights) => set('changed the storeys of', { storeyHeights })}
          onChange={change}
        />
        <div>
          <BayFields plot={plot} place={place} index={picked.index} disabled={disabled} onChange={change}>
            {elevation.fronts.find((front) => front.storey === storey)?.bays[picked.index ?? -1] ?? null}
          </BayFields>
          <TracingPart
            tracing={tracing}
            length={elevation.length}
            points={points ?? []}
            isMeasuring={points !== null}
            onChange={setTracing}
            onMeasure={(on) => setPoints(on ? [] : null)}
          />
        </div>
      </div>
      {recess === null && (
        <>
          <button
            type="button"
            className={`btn btn-xs mb-1 ${isStreet ? 'btn-active' : ''}`}
            aria-pressed={isStreet}
            onClick={() => setIsStreet(!isStreet)}
          >
            With the fronts beside it
          </button>
          <VersionBesideField label="As it is in another version" choice={choice} />
          {version && !otherwise && <p className="ink-2 text-xs">It does not stand in “{version.name}”.</p>}
          {isStreet && <CopyToRow plot={plot} side={side} beside={beside} />}
          {isStreet && (
            <RidgesBeside
              plot={plot}
              beside={beside}
              disabled={disabled}
              onRaise={(fields) => set('raised', fields)}
            />
          )}
        </>
      )}
      <Basis>
        As seen from outside, to scale: 8 mm a stud, 3.2 mm a plate. Each storey has as many courses of bricks
        as fit between two floors, with plates over them; courses interlock at the corners and joints do not
        lie over joints but beside openings. What is let in stands in the middle of its bay, in whole courses.
        Bays that leave a rest share it at both ends.
      </Basis>
    </Dialog>
  );
}

const faceId = ({ side, recess }: Face): string => (recess === null ? side : `${side} ${recess}`);

/** A side with the street, and what of a recess faces where. */
const faceWord = ({ side, recess }: Face, street: Side): string =>
  recess === null
    ? `${capital(SIDE_WORDS[side])}${side === street ? ' · street' : ''}`
    : `Recess ${recess}, facing ${SIDE_WORDS[side]}`;

/** The act that gives the fronts beside this one that are as long all of its bays. */
function CopyToRow({
  plot,
  side,
  beside,
}: {
  plot: Entity<'plot'>;
  side: Side;
  beside: ReturnType<typeof frontsBeside>;
}) {
  const plots = useDisplay(({ scene }) => scene.plot);
  const edit = useEdit();
  const may = useDenialReason();
  const changes = beside.flatMap(({ id }): Change[] => {
    const other = plots[id];
    if (!other || frontLength(other, side) !== frontLength(plot, side)) return [];
    return [
      { op: 'patch', kind: 'plot', id, v: other.v, set: { bays: withSideOf(other.bays, plot.bays, side) } },
    ];
  });
  const denied = changes.map(may).find((reason) => reason !== null) ?? null;
  const has = plot.bays.some((front) => front.side === side && front.recess === null);
  return (
    <button
      type="button"
      className="btn btn-xs mb-1 ml-1"
      disabled={changes.length === 0 || !has || denied !== null}
      title={denied ?? (changes.length === 0 ? 'None beside it is as long' : undefined)}
      onClick={() =>
        edit.change(`gave ${countOf(changes.length, 'front')} the bays of ${plot.name}`, changes)
      }
    >
      Copy to fronts as long ({changes.length})
    </button>
  );
}

/** How far the ridges beside it are above its own, and the act that raises it to meet one. */
function RidgesBeside({
  plot,
  beside,
  disabled,
  onRaise,
}: {
  plot: Entity<'plot'>;
  beside: ReturnType<typeof frontsBeside>;
  disabled: boolean;
  onRaise: (fields: { height: number; eaves: number | null }) => void;
}) {
  if (beside.length === 0) return <p className="ink-2 text-xs py-1">No front stands in its row.</p>;
  const own = ridgeOf(plot);
  return (
    <dl className="max-w-lg">
      {beside.map(({ id, name, up, elevation }) => {
        const by = up + elevation.high - own;
        const raised = raisedBy(plot, by);
        return (
          <DefinitionRow key={id} label={`Ridge of ${name}`}>
            {by === 0 ? (
              'as high'
            ) : (
              <>
                {formatPlates(Math.abs(by))} {by > 0 ? 'higher' : 'lower'}{' '}
                <button
                  type="button"
                  className="btn btn-xs ml-2"
                  disabled={disabled || raised === null}
                  title={raised === null ? 'Nothing of its walls would be left' : undefined}
                  aria-label={`Meet the ridge of ${name}`}
                  onClick={() => raised && onRaise(raised)}
                >
                  Meet
                </button>
              </>
            )}
          </DefinitionRow>
        );
      })}
    </dl>
  );
}

interface EditProps {
  plot: Entity<'plot'>;
  place: FrontPlace;
  disabled: boolean;
  onChange: (verb: string, bays: Entity<'plot'>['bays']) => void;
}

/** How a storey of a side is divided, and where else it goes. */
function StoreyFields({
  plot,
  place,
  count,
  courses,
  left,
  disabled,
  onStorey,
  onHeights,
  onChange,
}: EditProps & {
  count: number;
  courses: number;
  /** Studs that no bay takes; null: no bays. */
  left: number | null;
  onStorey: (storey: number) => void;
  onHeights: (heights: Entity<'plot'>['storeyHeights']) => void;
}) {
  const { bays } = plot;
  const own = baysAt(bays, place);
  const storeys = Array.from({ length: count }, (_, i) => i + 1);
  const copy = (word: string, to: readonly FrontPlace[]) => (
    <button
      type="button"
      className="btn btn-xs"
      disabled={disabled || own.length === 0}
      onClick={() => onChange('copied bays of', withCopies(bays, place, to))}
    >
      {word}
    </button>
  );
  return (
    <section aria-label="Storey">
      <SelectField
        label="Storey"
        value={String(place.storey)}
        options={storeys.map((one) => ({
          value: String(one),
          word: one === 1 ? '1, on the ground' : String(one),
        }))}
        hint={countOf(courses, 'course')}
        onCommit={(value) => onStorey(Number(value))}
      />
      <OptionalQuantityField
        label="Height of the storey"
        measure="plates"
        min={1}
        max={3000}
        none="even share"
        value={plot.storeyHeights[place.storey - 1] ?? null}
        disabled={disabled}
        onCommit={(height) => onHeights(withStoreyHeight(plot.storeyHeights, place.storey, height))}
      />
      <TextField
        label="Bays, from the left"
        value={writeRhythm(own.map(({ wide }) => wide))}
        placeholder="3 × 8"
        disabled={disabled}
        hint={restWords(left)}
        check={(text) => {
          const read = text.trim() === '' ? null : readRhythm(text);
          return read && !read.ok ? read.error : null;
        }}
        onCommit={(text) => {
          const read = readRhythm(text);
          onChange('divided a front of', withRhythm(bays, place, read.ok ? read.widths : []));
        }}
      />
      <p className="flex flex-wrap gap-1 py-2">
        {copy(
          'Copy to all storeys',
          storeys.map((storey) => ({ ...place, storey })),
        )}
        {copy(
          'Copy to all sides',
          SIDES.map((side) => ({ side, recess: null, storey: place.storey })),
        )}
      </p>
    </section>
  );
}

const restWords = (left: number | null): string => {
  if (left === null) return 'studs, such as 3 × 8 or 6 2 6 2 6';
  if (left < 0) return `${countOf(-left, 'stud')} wider than the front`;
  return left === 0 ? 'nothing is left over' : `${countOf(left, 'stud')} left, at both ends`;
};

/** What is let into the bay in hand. */
function BayFields({
  plot,
  place,
  index,
  disabled,
  onChange,
  children: placed,
}: EditProps & { index: number | null; children: PlacedBay | null }) {
  const { bays } = plot;
  const bay = index === null ? undefined : baysAt(bays, place)[index];
  if (index === null || !bay)
    return (
      <p className="ink-2 text-xs py-2">
        {baysAt(bays, place).length === 0
          ? 'This storey is plain on this side. Say its bays, then press one in the drawing.'
          : 'Press a bay in the drawing to let a window, a door or an arch into it.'}
      </p>
    );
  const set = (change: Partial<typeof bay>) =>
    onChange('changed a bay of', withBay(bays, place, index, change));
  return (
    <section aria-label={`Bay ${index + 1}`}>
      <SelectField
        label={`Bay ${index + 1}, ${countOf(bay.wide, 'stud')}`}
        value={bay.part ?? PLAIN}
        options={OPTIONS}
        disabled={disabled}
        onCommit={(part) => set({ part: part === PLAIN ? null : part })}
      />
      {bay.part !== null && (
        <NumberField
          label="Sill"
          unit="courses"
          whole
          min={0}
          max={40}
          value={bay.sill}
          disabled={disabled}
          onCommit={(sill) => set({ sill: sill ?? 0 })}
        />
      )}
      {bay.part?.startsWith('arch') && (
        <NumberField
          label="Opening, with its arch"
          unit="courses"
          whole
          min={1}
          max={40}
          value={bay.high}
          disabled={disabled}
          onCommit={(high) => set({ high: high ?? 6 })}
        />
      )}
      {placed && placed.fault !== null && (
        <p role="status" className="text-warning text-xs py-1">
          △ Left out: {placed.fault}.
        </p>
      )}
      {placed?.opening && <StandsInPart plot={plot} bay={placed} opening={placed.opening} />}
      {placed?.isOff && (
        <p className="ink-2 text-xs py-1">It stands half a stud left of the middle of its bay.</p>
      )}
    </section>
  );
}
