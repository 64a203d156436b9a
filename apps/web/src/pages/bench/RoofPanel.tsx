import {
  partName,
  type Part,
  SLOPES,
  pitchOfSlope,
  raiseToMeet,
  roofOf,
  roofPieces,
  runOfSlope,
  slopesLike,
  type Roof,
} from '@quarry/core/catalogue';
import { MM_PER_PLATE, MM_PER_STUD, countOf, formatPlates, present } from '@quarry/core/grid';
import { DataTable } from '../../ui/DataTable.tsx';
import { OptionalQuantityField, QuantityField, SelectField } from '../../ui/fields.tsx';
import { DefinitionRow, Heading, Quantity } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { Calculator, Sketch, SketchText } from './Calculator.tsx';
import { PutButtons } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST: { span: number; length: number; pitch: string; meet: number | null } = {
  ...{ span: 16, length: 24, pitch: 'slope-2x2-45', meet: null },
};
const isFirst = isLike(FIRST);

/** One slope of each pitch: the widest, of which the fewest are needed. */
const PITCHES: readonly Part[] = SLOPES.filter((slope) => slopesLike(slope)[0] === slope);
const pitchWord = (slope: Part): string => `${slope.angle}°, truly ${pitchOfSlope(slope).toFixed(0)}°`;
const courseWord = (courses: number): string => `${courses} ${courses === 1 ? 'course' : 'courses'}`;

/** A roof of two sides by the slopes that exist: courses, ridge, what stays open at the top, and its slopes. */
export function RoofPanel() {
  const [values, set] = useKept('bench roof', FIRST, isFirst);
  const { span, length, meet } = values;
  const slope = present(
    PITCHES.find(({ id }) => id === values.pitch) ?? PITCHES.find(({ angle }) => angle === 45),
    'a slope of 45°',
  );
  const roof = roofOf(span, slope);
  const lines = roofPieces(roof, slope, Math.max(1, Math.round(length)));
  const closing = roof.courses - roof.plainCourses;
  const raise = meet === null ? null : raiseToMeet(roof, meet);
  const name = `Roof of ${span} × ${length} studs`;
  const text =
    `${name}, ${slope.angle}°: ${courseWord(roof.courses)} a side, ridge ${formatPlates(roof.ridgePlates)} over the ` +
    `eaves, ${roof.leftStuds} studs open at the top. ${lines.map(({ part, qty }) => `${qty} × ${partName(part)}`).join(', ')}.`;
  const studs = (key: 'span' | 'length', label: string, step: number) => (
    <QuantityField
      label={label}
      measure="studs"
      step={step}
      min={1}
      max={500}
      value={values[key]}
      onCommit={(to) => set({ ...values, [key]: Math.round(to / step) * step })}
    />
  );
  return (
    <Calculator
      label="Roof"
      fields={
        <>
          {studs('span', 'Span, eaves to eaves', 0.5)}
          {studs('length', 'Length along the ridge', 1)}
          <SelectField
            label="Pitch"
            value={slope.id}
            options={PITCHES.map((one) => ({ value: one.id, word: pitchWord(one) }))}
            onCommit={(to) => set({ ...values, pitch: to })}
          />
          <OptionalQuantityField
            label="Ridge to meet, over the eaves"
            measure="plates"
            min={0}
            max={3000}
            none="none"
            value={meet}
            onCommit={(to) => set({ ...values, meet: to })}
          />
        </>
      }
      drawing={<RoofDrawing roof={roof} slope={slope} span={span} meet={meet} />}
      basis={
        <>
          A slope keeps one row of studs for the course over it, so that each course lies in by its depth less
          a stud: span = 2 × run × courses + what stays open. Slopes are counted the fewest to a course,
          without bond between courses and without what closes the ridge.
        </>
      }
      acts={<PutButtons answer={{ name, text, lines }} />}
    >
      <Heading>Answer</Heading>
      <dl>
        <DefinitionRow
          label="Courses, each side"
          note={closing > 0 && `upper ${closing}: two-sided slopes, or tiles`}
        >
          {roof.courses}
        </DefinitionRow>
        <DefinitionRow label="Ridge over the eaves">
          <Quantity value={roof.ridgePlates} measure="plates" />
        </DefinitionRow>
        <DefinitionRow label="Open at the top">
          <Quantity value={roof.leftStuds} measure="studs" />
        </DefinitionRow>
        {raise && (
          <DefinitionRow label="To meet the other ridge">
            {raise.missing === 0
              ? 'they meet'
              : raise.missing > 0
                ? `raise by ${countOf(raise.bricks, 'brick')} and ${countOf(raise.plates, 'plate')}`
                : `△ ${formatPlates(-raise.missing)} too high`}
          </DefinitionRow>
        )}
        {lines.map(({ part, qty }) => (
          <DefinitionRow key={part} label={partName(part)}>
            {qty}
          </DefinitionRow>
        ))}
      </dl>
      <Heading>By other pitches</Heading>
      <DataTable
        label="The same span by other pitches"
        rows={PITCHES.map((one) => ({ one, roof: roofOf(span, one) }))}
        keyOf={({ one }) => one.id}
        isPicked={({ one }) => one === slope}
        columns={[
          { head: 'Pitch', cell: ({ one }) => pitchWord(one) },
          { head: 'Courses', number: true, cell: ({ roof }) => roof.courses },
          { head: 'Ridge', number: true, cell: ({ roof }) => formatPlates(roof.ridgePlates) },
          { head: 'Open, studs', number: true, cell: ({ roof }) => roof.leftStuds },
        ]}
      />
    </Calculator>
  );
}

/** The gable: its courses as steps of slopes, what stays open, and the ridge that is to be met. */
function RoofDrawing({
  roof,
  slope,
  span,
  meet,
}: {
  roof: Roof;
  slope: Part;
  span: number;
  meet: number | null;
}) {
  const run = runOfSlope(slope) * MM_PER_STUD;
  const rise = slope.h * MM_PER_PLATE;
  const wide = span * MM_PER_STUD;
  const high = Math.max(rise, roof.courses * rise, (meet ?? 0) * MM_PER_PLATE);
  const size = Math.max(wide, high) / 34;
  const courses = Array.from({ length: roof.plainCourses }, (_, i) => i);
  const closed = Array.from({ length: roof.courses - roof.plainCourses }, (_, i) => i + roof.plainCourses);
  const side = (i: number, flip: (x: number) => number) =>
    [
      { x: i * run, y: -i * rise },
      { x: (i + 1) * run, y: -(i + 1) * rise },
      { x: Math.min((i + 1) * run + MM_PER_STUD, wide / 2), y: -(i + 1) * rise },
      { x: Math.min((i + 1) * run + MM_PER_STUD, wide / 2), y: -i * rise },
    ]
      .map(({ x, y }) => `${flip(x)},${y}`)
      .join(' ');
  return (
    <Sketch
      label={`A gable ${span} studs wide of ${courseWord(roof.courses)}`}
      box={{ x: -size * 2, y: -high - 3 * size, w: wide + 4 * size, d: high + 7 * size }}
    >
      {courses.map((i) => (
        <g key={i} className="fill-base-200">
          <polygon points={side(i, (x) => x)} />
          <polygon points={side(i, (x) => wide - x)} />
        </g>
      ))}
      {closed.map((i) => (
        <polygon
          key={i}
          className="fill-warning/25"
          points={`${i * run},${-i * rise} ${(i + 1) * run},${-(i + 1) * rise} ${wide - (i + 1) * run},${-(i + 1) * rise} ${wide - i * run},${-i * rise}`}
        />
      ))}
      <line x1={-size} x2={wide + size} y1={0} y2={0} strokeWidth={2.4} />
      {meet !== null && (
        <line
          x1={-size}
          x2={wide + size}
          y1={-meet * MM_PER_PLATE}
          y2={-meet * MM_PER_PLATE}
          className="text-secondary"
          strokeDasharray="6 4"
        />
      )}
      <SketchText x={wide / 2} y={-high - size} size={size}>
        ridge {formatPlates(roof.ridgePlates)} · {roof.leftStuds} studs open
      </SketchText>
      <SketchText x={wide / 2} y={2 * size} size={size}>
        {span} studs · {wide} mm
      </SketchText>
    </Sketch>
  );
}
