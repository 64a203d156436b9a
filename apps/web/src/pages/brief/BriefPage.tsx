import { differenceInCalendarDays, parseISO } from 'date-fns';
import { Plus, Trash2 } from 'lucide-react';
import { MM_PER_PLATE, MM_PER_STUD, formatPlates } from '@quarry/core/lattice';
import { footprintBounds } from '@quarry/core/relief';
import {
  KINDS_OF_DISPLAY,
  SCHOOLS,
  STAGES,
  displayOf,
  listOf,
  type Display,
  type Entity,
} from '@quarry/core/scene';
import { freshId, useDisplay, useEdit, useMay } from '../../data/useDisplay.tsx';
import { DateField, NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, Line, Quantity } from '../../ui/parts.tsx';

const SCHOOL_WORDS: Record<(typeof SCHOOLS)[number], string> = {
  height: 'By figure height',
  width: 'By figure width',
  rail: 'Model-rail ratio',
  small: 'Small scale',
  eye: 'By eye',
};
/** Height of a figure without hair, mm (from memory). */
const FIGURE_MM = 40;
/** Published nominal scales (NEM 010), for orientation beside one's own. */
const NEM_010 = [22.5, 32, 45, 64, 87, 120, 160, 220];

export function BriefPage() {
  const { scene } = useDisplay();
  const may = useMay();
  const display = displayOf(scene);
  const disabled = may({ op: 'patch', kind: 'display', id: 'display', v: display.v, set: {} }) !== null;
  return (
    <div className="p-4 grid gap-x-8 gap-y-2 md:grid-cols-2 xl:grid-cols-[1fr_1.1fr_1fr] items-start max-w-[1400px]">
      <div className="flex flex-col gap-5">
        <What display={display} disabled={disabled} />
        <Limits display={display} disabled={disabled} />
      </div>
      <div className="flex flex-col gap-5">
        <Levels disabled={disabled} />
        <Passages disabled={disabled} />
        <People disabled={disabled} />
      </div>
      <div>
        <Means />
      </div>
    </div>
  );
}

function useSet() {
  const edit = useEdit();
  const { scene } = useDisplay();
  return (label: string, fields: Partial<Display>) => edit.patch(label, 'display', displayOf(scene), fields);
}

interface Part {
  display: Display;
  disabled: boolean;
}

function What({ display, disabled }: Part) {
  const set = useSet();
  return (
    <section aria-labelledby="what">
      <Heading id="what">What is shown</Heading>
      <TextField
        label="Name"
        required
        value={display.name}
        disabled={disabled}
        onCommit={(name) => set('renamed the display', { name })}
      />
      <SelectField
        label="Kind"
        value={display.kind}
        disabled={disabled}
        options={KINDS_OF_DISPLAY.map((value) => ({ value, word: value[0].toUpperCase() + value.slice(1) }))}
        onCommit={(kind) => set('changed the kind', { kind })}
      />
      <SelectField
        label="Scale is chosen"
        value={display.school}
        disabled={disabled}
        options={SCHOOLS.map((value) => ({ value, word: SCHOOL_WORDS[value] }))}
        onCommit={(school) => set('changed the school of scale', { school })}
      />
      <NumberField
        label="Ratio 1 :"
        value={display.ratio}
        min={1}
        max={2000}
        disabled={disabled}
        onCommit={(ratio) => set('changed the scale', { ratio: ratio ?? 45 })}
      />
      <TextField
        label="Show"
        value={display.showName}
        disabled={disabled}
        onCommit={(showName) => set('named the show', { showName })}
      />
      <DateField
        label="Show day"
        value={display.showDate}
        disabled={disabled}
        onCommit={(showDate) => set('moved the show day', { showDate })}
      />
      <DateField
        label="Begun"
        value={display.startDate}
        disabled={disabled}
        onCommit={(startDate) => set('moved the start', { startDate })}
      />
      <TextField
        label="Money is counted in"
        required
        max={4}
        value={display.currency}
        disabled={disabled}
        onCommit={(currency) => set('changed the currency', { currency })}
      />
      <TextField
        label="House rules and notes"
        long
        max={2000}
        value={display.notes}
        disabled={disabled}
        placeholder="Wind, season, colour policy, backs, glue …"
        onCommit={(notes) => set('changed the house rules', { notes })}
      />
    </section>
  );
}

function Limits({ display, disabled }: Part) {
  const set = useSet();
  const studs = { measure: 'studs', disabled } as const;
  return (
    <section aria-labelledby="limits">
      <Heading id="limits">Limits</Heading>
      <NumberField
        label="Footprint at most, width"
        unit="studs"
        optional="no limit"
        whole
        value={display.limitW}
        min={1}
        max={4096}
        disabled={disabled}
        onCommit={(limitW) => set('changed the footprint limit', { limitW })}
      />
      <NumberField
        label="Footprint at most, depth"
        unit="studs"
        optional="no limit"
        whole
        value={display.limitD}
        min={1}
        max={4096}
        disabled={disabled}
        onCommit={(limitD) => set('changed the footprint limit', { limitD })}
      />
      <NumberField
        label="Height at most"
        unit="plates"
        optional="no limit"
        whole
        value={display.limitHeight}
        min={1}
        max={3000}
        disabled={disabled}
        hint={
          display.limitHeight === null
            ? undefined
            : `${formatPlates(display.limitHeight)}, ${(display.limitHeight * MM_PER_PLATE).toFixed(1)} mm`
        }
        onCommit={(limitHeight) => set('changed the height limit', { limitHeight })}
      />
      <QuantityField
        label="Overhang at most"
        value={display.overhang}
        min={0}
        max={64}
        {...studs}
        onCommit={(overhang) => set('changed the overhang', { overhang })}
      />
      <QuantityField
        label="Largest module"
        value={display.moduleMaxW}
        min={8}
        max={4096}
        step={1}
        {...studs}
        onCommit={(moduleMaxW) => set('changed the largest module', { moduleMaxW })}
      />
      <QuantityField
        label="by"
        value={display.moduleMaxD}
        min={8}
        max={4096}
        step={1}
        {...studs}
        onCommit={(moduleMaxD) => set('changed the largest module', { moduleMaxD })}
      />
    </section>
  );
}

function Levels({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const set = useSet();
  const display = displayOf(scene);
  const levels = listOf(scene, 'level').sort((a, b) => b.height - a.height);
  const change = (level: Entity<'level'>, what: string, fields: Partial<Entity<'level'>>) =>
    edit.patch(`${what} level ${level.name}`, 'level', level, fields);
  return (
    <section aria-labelledby="levels">
      <Heading id="levels" aside="above the table top">
        Levels
      </Heading>
      <NumberField
        label="Agreed step between levels"
        unit="plates"
        optional="none"
        whole
        value={display.levelStep}
        min={1}
        max={3000}
        disabled={disabled}
        hint={display.levelStep === null ? undefined : formatPlates(display.levelStep)}
        onCommit={(levelStep) => set('agreed on a step', { levelStep })}
      />
      {levels.length === 0 && (
        <Empty title="No level yet">
          Name the heights the scene is made of, such as water, street and upper yard; pads then refer to
          them.
        </Empty>
      )}
      {levels.map((level, i) => {
        const below = levels[i + 1];
        const rise = below ? level.height - below.height : null;
        const fits = rise === null || display.levelStep === null || rise % display.levelStep === 0;
        return (
          <div key={level.id} className={ROW} role="group" aria-label={`Level ${level.name}`}>
            <TextField
              bare
              label="Level name"
              required
              value={level.name}
              disabled={disabled}
              onCommit={(name) => change(level, 'renamed', { name })}
            />
            <span className={`text-xs text-right ${fits ? 'ink-2' : 'text-warning'}`}>
              {rise !== null && `${formatPlates(rise)} above ${below.name}${fits ? '' : ', off step'}`}
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
          </div>
        );
      })}
      <AddButton
        disabled={disabled}
        onClick={() =>
          edit.add('added a level', 'level', freshId('level'), {
            name: `Level ${levels.length + 1}`,
            height: (levels[0]?.height ?? -12) + (display.levelStep ?? 15),
          })
        }
      >
        Add a level
      </AddButton>
    </section>
  );
}

function Passages({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const passages = listOf(scene, 'passage').sort((a, b) => a.width - b.width);
  return (
    <section aria-labelledby="passages">
      <Heading id="passages" aside="clear width and height">
        Doors and vehicles to pass
      </Heading>
      {passages.map((passage) => {
        const change = (fields: Partial<Entity<'passage'>>) =>
          edit.patch(`changed the ${passage.name}`, 'passage', passage, fields);
        return (
          <div
            key={passage.id}
            className="grid grid-cols-[minmax(0,1fr)_auto_auto_auto] items-center gap-1 border-b hair"
            role="group"
            aria-label={passage.name}
          >
            <TextField
              bare
              label="Passage"
              required
              value={passage.name}
              disabled={disabled}
              hint={
                <span className="block text-left pl-1">
                  a module of {Math.floor((passage.width + 0.2) / MM_PER_STUD)} studs passes
                </span>
              }
              onCommit={(name) => change({ name })}
            />
            <QuantityField
              bare
              hint=""
              label={`Clear width of ${passage.name}`}
              value={passage.width}
              measure="mm"
              min={1}
              max={40_000}
              disabled={disabled}
              onCommit={(width) => change({ width })}
            />
            <QuantityField
              bare
              hint=""
              label={`Clear height of ${passage.name}`}
              value={passage.height}
              measure="mm"
              min={1}
              max={40_000}
              disabled={disabled}
              onCommit={(height) => change({ height })}
            />
            <RemoveButton
              what={passage.name}
              disabled={disabled}
              onClick={() => edit.remove(`removed the ${passage.name}`, 'passage', passage.id, passage.v)}
            />
          </div>
        );
      })}
      <AddButton
        disabled={disabled}
        onClick={() =>
          edit.add('added a passage', 'passage', freshId('passage'), {
            name: 'new door',
            width: 800,
            height: 2000,
          })
        }
      >
        Add a passage
      </AddButton>
    </section>
  );
}

function People({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const people = listOf(scene, 'person');
  return (
    <section aria-labelledby="people">
      <Heading id="people">People</Heading>
      {people.map((person) => (
        <div
          key={person.id}
          className="grid grid-cols-[2rem_minmax(0,1fr)_minmax(0,1fr)_auto] items-center gap-1 border-b hair"
          role="group"
          aria-label={person.name}
        >
          <span className="fig text-xs">{person.initials}</span>
          <TextField
            bare
            label="Name of the person"
            required
            value={person.name}
            disabled={disabled}
            onCommit={(name) => edit.patch(`renamed ${person.name}`, 'person', person, { name })}
          />
          <span className="ink-2 text-xs text-right truncate">
            {[
              person.town,
              ...listOf(scene, 'section')
                .filter(({ owner }) => owner === person.id)
                .map(({ letter }) => `section ${letter}`),
            ]
              .filter(Boolean)
              .join(' · ')}
          </span>
          <RemoveButton
            what={person.name}
            disabled={disabled}
            onClick={() => edit.remove(`removed ${person.name}`, 'person', person.id, person.v)}
          />
        </div>
      ))}
      <AddButton
        disabled={disabled}
        onClick={() =>
          edit.add('added a person', 'person', freshId('person'), {
            name: `Builder ${people.length + 1}`,
            initials: `B${(people.length + 1) % 10}`,
          })
        }
      >
        Add a person
      </AddButton>
    </section>
  );
}

const ROW = 'grid grid-cols-[minmax(5rem,1fr)_minmax(0,1.4fr)_auto_auto] items-center gap-1 border-b hair';

/** What the brief comes to, worked out. */
function Means() {
  const { scene } = useDisplay();
  const display = displayOf(scene);
  const bounds = footprintBounds(scene);
  const { ratio } = display;
  const figure = (FIGURE_MM * ratio) / 1000;
  const nearest = NEM_010.reduce((best, scale) =>
    Math.abs(Math.log(scale / ratio)) < Math.abs(Math.log(best / ratio)) ? scale : best,
  );
  const studsOf = (metres: number) => (metres * 1000) / ratio / MM_PER_STUD;
  const days = display.showDate ? differenceInCalendarDays(parseISO(display.showDate), new Date()) : null;
  const sections = listOf(scene, 'section');
  const toGo = sections.reduce((sum, { stage }) => sum + STAGES.length - 1 - STAGES.indexOf(stage), 0);
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
          <Line
            label="It shows"
            note={`${((bounds.w * bounds.d * MM_PER_STUD ** 2 * ratio ** 2) / 1e10).toFixed(2)} ha`}
          >
            {((bounds.w * MM_PER_STUD * ratio) / 1000).toFixed(0)} ×{' '}
            {((bounds.d * MM_PER_STUD * ratio) / 1000).toFixed(0)} m
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
          {formatPlates(2000 / ratio / MM_PER_PLATE)} × {studsOf(0.85).toFixed(1)} st
        </Line>
        <Line label="A storey of 3.00 m is">
          <Quantity value={Math.round(3000 / ratio / MM_PER_PLATE)} measure="plates" />
        </Line>
        <Line label="A car of 4.20 m is">{studsOf(4.2).toFixed(1)} studs</Line>
        <Line label="One stud stands for">{((MM_PER_STUD * ratio) / 10).toFixed(0)} cm</Line>
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
          <Line label="Stages to go" note={`${sections.length} sections of ${STAGES.length - 1} steps`}>
            {toGo}
          </Line>
          {days > 0 && <Line label="That is, a week">{(toGo / (days / 7)).toFixed(1)} stages</Line>}
        </dl>
      )}
    </section>
  );
}

function AddButton({
  children,
  disabled,
  onClick,
}: {
  children: string;
  disabled: boolean;
  onClick: () => void;
}) {
  return (
    <button type="button" className="btn btn-xs mt-1" disabled={disabled} onClick={onClick}>
      <Plus size={12} aria-hidden /> {children}
    </button>
  );
}

function RemoveButton({ what, disabled, onClick }: { what: string; disabled: boolean; onClick: () => void }) {
  return (
    <button
      type="button"
      className="btn btn-xs btn-ghost btn-square"
      disabled={disabled}
      aria-label={`Remove ${what}`}
      title={`Remove ${what}`}
      onClick={onClick}
    >
      <Trash2 size={12} aria-hidden />
    </button>
  );
}
