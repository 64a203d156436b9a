import { KINDS_OF_DISPLAY, displayOf } from '@quarry/core/document';
import { capital } from '../../ui/words.ts';
import { useScene } from '../../data/useDisplay.tsx';
import { QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { ModuleSize } from '../../ui/ModuleSize.tsx';
import { Heading } from '../../ui/parts.tsx';
import { CityQuestions, ViewedFrom } from './KindQuestions.tsx';
import { FootprintLimit } from './FootprintLimit.tsx';
import { HouseRules } from './HouseRules.tsx';
import { Levels } from './Levels.tsx';
import { Means } from './Means.tsx';
import { CardVerdict, RuleCard } from './RuleCard.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

/** What is shown, within which limits, by which rules. */
export function RulesSheet({ disabled }: { disabled: boolean }) {
  const scene = useScene('display');
  const { kind } = displayOf(scene);
  return (
    <div className="grid gap-x-8 gap-y-4 md:grid-cols-2 xl:grid-cols-3 items-start">
      <div className="flex flex-col gap-4">
        <What disabled={disabled} />
        {kind === 'city' && <CityQuestions disabled={disabled} />}
        {kind !== 'city' && <ViewedFrom disabled={disabled} />}
        {kind === 'vignette' && <CardVerdict />}
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
  const scene = useScene('display');
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
        options={KINDS_OF_DISPLAY.map((value) => ({ value, word: capital(value) }))}
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
  const scene = useScene('display');
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
