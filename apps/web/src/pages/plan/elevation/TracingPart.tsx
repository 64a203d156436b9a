import { useRef } from 'react';
import { toast } from 'sonner';
import { MM_PER_PLATE } from '@quarry/core/grid';
import { TRACING_WIDE, scaledTracing, type ElevationPoint } from '@quarry/core/structures';
import { MAX_PICTURE_PIXELS, decodePicture, encodePicture } from '../../../data/pictures.ts';
import type { KeptTracing } from '../../../data/tracings.ts';
import { QuantityField } from '../../../ui/fields.tsx';

/** The photograph below a front: laid, placed, scaled by two of its points, and taken away. */
export function TracingPart({
  tracing,
  length,
  points,
  isMeasuring,
  onChange,
  onMeasure,
}: {
  tracing: KeptTracing | null;
  /** Length of the side, studs: as wide a photograph is laid at first. */
  length: number;
  /** The points pressed so far. */
  points: readonly ElevationPoint[];
  isMeasuring: boolean;
  onChange: (tracing: KeptTracing | null) => void;
  /** Begins to take two points, or ends it. */
  onMeasure: (on: boolean) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const lay = async (file: File | undefined) => {
    const image = file ? await decodePicture(file) : null;
    const encoded = image && encodePicture(image, MAX_PICTURE_PIXELS);
    if (!file) return;
    if (!image || !encoded) toast.error(`“${file.name}” is no picture that this browser can read.`);
    else onChange({ image: encoded, wide: length, tall: image.height / image.width, left: 0, up: 0 });
  };
  const [first, second] = points;
  return (
    <section aria-label="Photograph below" className="max-w-lg">
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/webp"
        className="hidden"
        aria-label="A photograph of the front"
        onChange={(event) => {
          void lay(event.currentTarget.files?.[0]);
          event.currentTarget.value = '';
        }}
      />
      <p className="flex flex-wrap gap-1 pb-1">
        <button type="button" className="btn btn-xs" onClick={() => input.current?.click()}>
          {tracing ? 'Another photograph …' : 'A photograph below …'}
        </button>
        {tracing && (
          <>
            <button
              type="button"
              className={`btn btn-xs ${isMeasuring ? 'btn-active' : ''}`}
              aria-pressed={isMeasuring}
              onClick={() => onMeasure(!isMeasuring)}
            >
              Scale by two points
            </button>
            <button type="button" className="btn btn-xs" onClick={() => onChange(null)}>
              Take it away
            </button>
          </>
        )}
      </p>
      {isMeasuring && !second && (
        <p className="ink-2 text-xs" role="status">
          Press {first ? 'the second point' : 'two points'} of the photograph whose distance you know, such as
          the foot and the head of a door.
        </p>
      )}
      {isMeasuring && tracing && first && second && (
        <QuantityField
          label="They are apart by"
          measure="plates"
          min={1}
          max={3000}
          value={Math.round(Math.hypot(first.x - second.x, first.y - second.y) / MM_PER_PLATE)}
          onCommit={(plates) => {
            onChange({ ...tracing, ...scaledTracing(tracing, [first, second], plates * MM_PER_PLATE) });
            onMeasure(false);
          }}
        />
      )}
      {tracing && (
        <>
          <QuantityField
            label="Photograph, wide"
            measure="studs"
            min={TRACING_WIDE.min}
            max={TRACING_WIDE.max}
            value={tracing.wide}
            onCommit={(wide) => onChange({ ...tracing, wide })}
          />
          <QuantityField
            label="From the left"
            measure="studs"
            min={-2000}
            max={2000}
            value={tracing.left}
            onCommit={(left) => onChange({ ...tracing, left })}
          />
          <QuantityField
            label="Its lower edge at"
            measure="plates"
            min={-3000}
            max={3000}
            value={tracing.up}
            onCommit={(up) => onChange({ ...tracing, up })}
          />
          <p className="ink-2 text-[11px] py-1">It is kept in this browser and sent nowhere.</p>
        </>
      )}
    </section>
  );
}
