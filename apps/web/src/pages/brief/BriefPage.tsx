import { MM_PER_PLATE, formatPlates } from '@quarry/core/lattice';
import { KINDS_OF_DISPLAY, SCHOOLS, displayOf, type Display } from '@quarry/core/scene';
import { useDisplay, useMay } from '../../data/useDisplay.tsx';
import { DateField, NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { ModuleSize } from '../../ui/ModuleSize.tsx';
import { Heading } from '../../ui/parts.tsx';
import { Means } from './Means.tsx';
import { Levels, Passages, People } from './lists.tsx';
import { useSetDisplay } from './useSetDisplay.ts';

const SCHOOL_WORDS: Record<(typeof SCHOOLS)[number], string> = {
  height: 'By figure height',
  width: 'By figure width',
  rail: 'Model-rail ratio',
  small: 'Small scale',
  eye: 'By eye',
};

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

interface Part {
  display: Display;
  disabled: boolean;
}

function What({ display, disabled }: Part) {
  const set = useSetDisplay();
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
  const set = useSetDisplay();
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
      <ModuleSize
        display={display}
        disabled={disabled}
        onSet={(fields) => set('changed the largest module', fields)}
      />
    </section>
  );
}
