import { KINDS_OF_DISPLAY, displayOf } from '@quarry/core/scene';
import { useDisplay } from '../../data/useDisplay.tsx';
import { NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { ModuleSize } from '../../ui/ModuleSize.tsx';
import { Heading } from '../../ui/parts.tsx';
import { CityQuestions, DioramaQuestions } from './KindQuestions.tsx';
import { HouseRules } from './HouseRules.tsx';
import { Levels } from './Levels.tsx';
import { Means } from './Means.tsx';
import { RuleCard } from './RuleCard.tsx';
import { useSetDisplay } from './useSetDisplay.ts';

/** What is shown, within which limits, by which rules. */
export function RulesSheet({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const { kind } = displayOf(scene);
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2 xl:grid-cols-3 items-start">
      <div className="flex flex-col gap-4">
        <What disabled={disabled} />
        {kind === 'city' && <CityQuestions disabled={disabled} />}
        {kind === 'diorama' && <DioramaQuestions disabled={disabled} />}
        <Means />
      </div>
      <div className="flex flex-col gap-4">
        {kind === 'vignette' && <RuleCard disabled={disabled} />}
        <Limits disabled={disabled} />
        <Levels disabled={disabled} />
      </div>
      <HouseRules disabled={disabled} />
    </div>
  );
}

function What({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const display = displayOf(scene);
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
      <TextField
        label="Money is counted in"
        required
        max={4}
        value={display.currency}
        disabled={disabled}
        onCommit={(currency) => set('changed the currency', { currency })}
      />
    </section>
  );
}

function Limits({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const display = displayOf(scene);
  const set = useSetDisplay();
  return (
    <section aria-labelledby="limits">
      <Heading id="limits">Limits</Heading>
      {display.kind !== 'vignette' && <FootprintLimit disabled={disabled} />}
      <QuantityField
        label="Over a table edge at most"
        value={display.overhang}
        measure="studs"
        min={0}
        max={64}
        disabled={disabled}
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

/** Size of the ground and height allowed: on the limits of a display, and on a vignette's rule card. */
export function FootprintLimit({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const display = displayOf(scene);
  const set = useSetDisplay();
  const studs = { unit: 'studs', optional: 'no limit', whole: true, min: 1, max: 4096, disabled } as const;
  return (
    <>
      <NumberField
        label="Footprint at most, width"
        value={display.limitW}
        {...studs}
        onCommit={(limitW) => set('changed the footprint limit', { limitW })}
      />
      <NumberField
        label="Footprint at most, depth"
        value={display.limitD}
        {...studs}
        onCommit={(limitD) => set('changed the footprint limit', { limitD })}
      />
      <HeightLimit disabled={disabled} />
    </>
  );
}

function HeightLimit({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const { limitHeight } = displayOf(scene);
  const set = useSetDisplay();
  return limitHeight === null ? (
    <NumberField
      label="Height at most"
      unit="plates"
      optional="no limit"
      whole
      value={null}
      min={1}
      max={3000}
      disabled={disabled}
      onCommit={(value) => set('set a height limit', { limitHeight: value })}
    />
  ) : (
    <div className="flex items-center gap-1">
      <div className="flex-1">
        <QuantityField
          label="Height at most"
          value={limitHeight}
          measure="plates"
          min={1}
          max={3000}
          disabled={disabled}
          onCommit={(value) => set('changed the height limit', { limitHeight: value })}
        />
      </div>
      <button
        type="button"
        className="link link-hover ink-2 text-xs"
        disabled={disabled}
        onClick={() => set('took the height limit away', { limitHeight: null })}
      >
        no limit
      </button>
    </div>
  );
}
