import { displayOf } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { OptionalQuantityField } from '../../ui/fields.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

/** Size of the ground and height allowed: on the limits of a display, and on a vignette's rule card. */
export function FootprintLimit({ disabled }: { disabled: boolean }) {
  const scene = useScene('display');
  const display = displayOf(scene);
  const set = useSetDisplay();
  const studs = { measure: 'studs', none: 'no limit', step: 1, min: 1, max: 4096, disabled } as const;
  return (
    <>
      <OptionalQuantityField
        label="Footprint at most, width"
        value={display.limitW}
        {...studs}
        onCommit={(limitW) => set('changed the footprint limit', { limitW })}
      />
      <OptionalQuantityField
        label="Footprint at most, depth"
        value={display.limitD}
        {...studs}
        onCommit={(limitD) => set('changed the footprint limit', { limitD })}
      />
      <OptionalQuantityField
        label="Height at most"
        value={display.limitHeight}
        measure="plates"
        none="no limit"
        min={1}
        max={3000}
        disabled={disabled}
        onCommit={(limitHeight) => set('changed the height limit', { limitHeight })}
      />
    </>
  );
}
