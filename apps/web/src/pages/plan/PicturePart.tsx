import type { Entity } from '@quarry/core/document';
import { useView } from '../../data/view.ts';
import { QuantityField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';
import { useSetFields } from '../../ui/EntityForm.tsx';

/** Scales a picture by two of its points whose true distance is known. */
export function PicturePart({ picture, disabled }: { picture: Entity<'picture'>; disabled: boolean }) {
  const { measured, takeTool } = useView();
  const set = useSetFields({ kind: 'picture', id: picture.id });
  const length = measured ? Math.hypot(measured.b.x - measured.a.x, measured.b.y - measured.a.y) : 0;
  return (
    <>
      <Heading>Scale by two points</Heading>
      <p className="ink-2 text-xs pb-1">
        Measure between two points of the picture, then type how far apart they really are on the plan.
      </p>
      <button type="button" className="btn btn-xs" disabled={disabled} onClick={() => takeTool('measure')}>
        Measure (M)
      </button>
      {measured && length > 0 && (
        <QuantityField
          label="They are apart"
          value={Math.round(length * 2) / 2}
          measure="studs"
          min={0.5}
          max={4096}
          disabled={disabled}
          onCommit={(apart) => {
            const by = apart / length;
            // The first point stays where it is.
            const round = (value: number) => Number(value.toFixed(3));
            set('scaled', {
              x: round(measured.a.x + (picture.x - measured.a.x) * by),
              y: round(measured.a.y + (picture.y - measured.a.y) * by),
              w: round(picture.w * by),
              d: round(picture.d * by),
            });
          }}
        />
      )}
    </>
  );
}
