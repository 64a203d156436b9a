import { differenceInCalendarDays, parseISO } from 'date-fns';
import { MM_PER_STUD, formatPlates } from '@quarry/core/lattice';
import { footprintBounds } from '@quarry/core/relief';
import { STEPS, progressOf } from '@quarry/core/progress';
import { FIGURE_MM, metresOf, nearestRailScale, platesFor, studsFor } from '@quarry/core/scale';
import { displayOf } from '@quarry/core/scene';
import { useDisplay } from '../../data/useDisplay.tsx';
import { Basis, Empty, Heading, Line, Quantity } from '../../ui/parts.tsx';

/** What the brief comes to, worked out. */
export function Means() {
  const { scene } = useDisplay();
  const display = displayOf(scene);
  const bounds = footprintBounds(scene);
  const { ratio } = display;
  const figure = (FIGURE_MM * ratio) / 1000;
  const nearest = nearestRailScale(ratio);
  const metres = (studs: number) => metresOf(studs, ratio);
  const days = display.showDate ? differenceInCalendarDays(parseISO(display.showDate), new Date()) : null;
  const { sections, toGo } = progressOf(scene);
  const limits =
    display.limitW !== null && display.limitD !== null ? { w: display.limitW, d: display.limitD } : null;
  return (
    <section aria-labelledby="means">
      <Heading id="means">What this comes to</Heading>
      {!bounds && (
        <Empty title="No footprint yet">
          Draw one on the Plan; its true size at the scale then stands here.
        </Empty>
      )}
      <dl>
        {bounds && (
          <Line
            label="Scene"
            note={`${((bounds.w * MM_PER_STUD) / 1000).toFixed(2)} × ${((bounds.d * MM_PER_STUD) / 1000).toFixed(2)} m`}
          >
            {bounds.w} × {bounds.d} studs
          </Line>
        )}
        {bounds && (
          <Line label="It shows" note={`${((metres(bounds.w) * metres(bounds.d)) / 10_000).toFixed(2)} ha`}>
            {metres(bounds.w).toFixed(0)} × {metres(bounds.d).toFixed(0)} m
          </Line>
        )}
        {limits && bounds && (
          <Line label="Of the allowed footprint" note={`${limits.w} × ${limits.d} studs allowed`}>
            {((100 * bounds.w * bounds.d) / (limits.w * limits.d)).toFixed(0)} %
          </Line>
        )}
        <Line label="A figure stands for" note={`${FIGURE_MM} mm tall without hair`}>
          {figure.toFixed(2)} m
        </Line>
        <Line
          label="A door of 2.00 × 0.85 m is"
          note={`${(2000 / ratio).toFixed(1)} × ${(850 / ratio).toFixed(1)} mm`}
        >
          {formatPlates(platesFor(2, ratio))} × {studsFor(0.85, ratio).toFixed(1)} st
        </Line>
        <Line label="A storey of 3.00 m is">
          <Quantity value={Math.round(platesFor(3, ratio))} measure="plates" />
        </Line>
        <Line label="A car of 4.20 m is">{studsFor(4.2, ratio).toFixed(1)} studs</Line>
        <Line label="One stud stands for">{(metres(1) * 100).toFixed(0)} cm</Line>
        <Line label="Nearest model-rail scale" note={`${(100 * (ratio / nearest - 1)).toFixed(0)} % off`}>
          1:{nearest}
        </Line>
      </dl>
      <Basis>
        True size = built size × ratio; 8 mm a stud, 3.2 mm a plate. A figure is about 40 mm tall without hair
        and a common car about 4.2 m long (from memory); the rail scales are the nominal ones of NEM 010.
      </Basis>
      <Heading>Time</Heading>
      {days === null ? (
        <p className="ink-2">Set the show day to see the weeks left.</p>
      ) : (
        <dl>
          <Line label={days >= 0 ? 'Left to the show' : 'Since the show'} note={`${Math.abs(days)} days`}>
            {Math.floor(Math.abs(days) / 7)} weeks
          </Line>
          <Line label="Stages to go" note={`${sections} sections of ${STEPS} steps`}>
            {toGo.toFixed(1)}
          </Line>
          {days > 0 && <Line label="That is, a week">{(toGo / (days / 7)).toFixed(1)} stages</Line>}
        </dl>
      )}
    </section>
  );
}
