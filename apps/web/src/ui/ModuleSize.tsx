import { MAX_STUDS, type Display } from '@quarry/core/document';
import { QuantityField } from './fields.tsx';
import { useMeasureFormat } from './useMeasureFormat.ts';

/**
 * The largest module, either way round, with the reason it was agreed: asked on the Brief and on Cut. Typed again, the
 * reason no longer holds.
 */
export function ModuleSize({
  display,
  disabled,
  onSet,
}: {
  display: Display;
  disabled: boolean;
  onSet: (fields: Partial<Display>) => void;
}) {
  const { tell } = useMeasureFormat();
  const common = { measure: 'studs', step: 1, min: 8, max: MAX_STUDS, disabled } as const;
  return (
    <>
      <QuantityField
        label="Module at most"
        value={display.moduleMaxW}
        {...common}
        onCommit={(moduleMaxW) => onSet({ moduleMaxW, moduleReason: '' })}
      />
      <QuantityField
        label="by"
        value={display.moduleMaxD}
        {...common}
        onCommit={(moduleMaxD) => onSet({ moduleMaxD, moduleReason: '' })}
      />
      {display.moduleReason && <p className="ink-2 text-xs py-1">{tell(display.moduleReason)}</p>}
    </>
  );
}
