import { displayOf } from '@quarry/core/scene';
import { useDisplay } from '../../data/useDisplay.tsx';
import { NumberField, QuantityField } from '../../ui/fields.tsx';
import { useSetDisplay } from './useSetDisplay.ts';

/** Size of the ground and height allowed: on the limits of a display, and on a vignette's rule card. */
export function FootprintLimit({ disabled }: { disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
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
  const scene = useDisplay(({ scene }) => scene);
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
