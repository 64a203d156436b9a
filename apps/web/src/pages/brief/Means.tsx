import { MM_PER_STUD, formatPercent } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { metresOf } from '@quarry/core/scale';
import { displayOf } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { Basis, Empty, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';

/** What the brief comes to, worked out. */
export function Means() {
  const scene = useScene('display', 'footprint');
  const { say, area } = useMeasureFormat();
  const display = displayOf(scene);
  const bounds = footprintBounds(scene);
  const { ratio, limitW, limitD } = display;
  const metres = (studs: number) => metresOf(studs, ratio);
  return (
    <section aria-labelledby="means">
      <Heading id="means">What this comes to</Heading>
      {!bounds && (
        <Empty title="No footprint yet">
          Draw one on the Plan; its true size at the scale then stands here.
        </Empty>
      )}
      {bounds && (
        <dl>
          <DefinitionRow
            label="Scene"
            note={`${say(bounds.w * MM_PER_STUD, 'mm')} × ${say(bounds.d * MM_PER_STUD, 'mm')}`}
          >
            {bounds.w} × {bounds.d} studs
          </DefinitionRow>
          <DefinitionRow label={`It shows, at 1:${ratio}`} note={area(metres(bounds.w) * metres(bounds.d))}>
            {say(Math.round(metres(bounds.w) * 10) / 10, 'm')} ×{' '}
            {say(Math.round(metres(bounds.d) * 10) / 10, 'm')}
          </DefinitionRow>
          {limitW !== null && limitD !== null && (
            <DefinitionRow label="Of the allowed footprint" note={`${limitW} × ${limitD} studs allowed`}>
              {formatPercent((bounds.w * bounds.d) / (limitW * limitD))}
            </DefinitionRow>
          )}
          <DefinitionRow label="One stud stands for">
            {say(Math.round(metres(1) * 100) / 100, 'm')}
          </DefinitionRow>
        </dl>
      )}
      <Basis>True size = built size × ratio; 8 mm a stud, 3.2 mm a plate.</Basis>
    </section>
  );
}
