import { MM_PER_PLATE, MM_PER_STUD, formatPlates } from '@quarry/core/grid';
import { TRUE_SIZES, fitLength, type TrueSize } from '@quarry/core/scale';
import { DataTable } from '../../ui/DataTable.tsx';
import { Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useSize } from '../../ui/useSize.ts';

/** Room between two things, mm as built. */
const GAP = 14;

/** Things everybody knows, drawn beside each other at the display's scale on the lattice, and their sizes in a table. */
export function LineUp({ ratio }: { ratio: number }) {
  const { rough } = useMeasureFormat();
  const [host, { width }] = useSize<HTMLDivElement>();
  const built = TRUE_SIZES.filter(({ id }) => id !== 'track').map((thing) => ({
    thing,
    w: (thing.length * 1000) / ratio,
    h: (thing.height * 1000) / ratio,
  }));
  const total = built.reduce((sum, { w }) => sum + w + GAP, GAP);
  const tall = Math.max(...built.map(({ h }) => h)) + 12;
  const scale = width > 0 ? Math.min(width / total, 150 / tall) : 0;
  let at = GAP;
  const placed = built.map((one) => {
    const x = at;
    at += one.w + GAP;
    return { ...one, x };
  });
  return (
    <section aria-labelledby="lineup" className="min-w-0">
      <Heading id="lineup" aside="a line each 8 studs across and each 5 bricks up">
        Side by side at 1:{ratio}
      </Heading>
      <div ref={host} className="border hair bg-base-100">
        {scale > 0 && (
          <svg
            width={width - 2}
            height={tall * scale + 16}
            role="img"
            aria-label={`Common things at 1:${ratio}, to scale`}
            className="block text-base-content"
          >
            <Grid width={width - 2} height={tall * scale} scale={scale} />
            {placed.map(({ thing, x, w, h }) => (
              <g key={thing.id} transform={`translate(${x * scale} ${(tall - h) * scale})`}>
                <Outline thing={thing} w={w * scale} h={h * scale} />
                {w * scale > 26 && (
                  <text
                    x={(w * scale) / 2}
                    y={h * scale + 12}
                    textAnchor="middle"
                    fontSize="10"
                    fill="currentColor"
                  >
                    {thing.name}
                  </text>
                )}
              </g>
            ))}
          </svg>
        )}
      </div>
      <DataTable
        label="True and built sizes"
        rows={TRUE_SIZES.map((thing) => ({
          thing,
          long: fitLength(thing.length, ratio, 'stud'),
          high: fitLength(thing.height, ratio, 'plate'),
        }))}
        keyOf={({ thing }) => thing.id}
        columns={[
          { head: 'Thing', cell: ({ thing }) => thing.name },
          {
            head: 'True size',
            number: true,
            cell: ({ thing }) => `${rough(thing.length)} × ${rough(thing.height)}`,
          },
          {
            head: 'Built, exact',
            number: true,
            cell: ({ long, high }) => `${long.exact.toFixed(1)} st × ${high.exact.toFixed(1)} p`,
            tone: () => 'quiet',
          },
          {
            head: 'On the grid',
            number: true,
            cell: ({ long, high }) => `${long.count} × ${formatPlates(high.count)}`,
          },
          { head: 'Where the true size comes from', cell: ({ thing }) => thing.source, tone: () => 'quiet' },
        ]}
      />
    </section>
  );
}

function Grid({ width, height, scale }: { width: number; height: number; scale: number }) {
  const [across, up] = [8 * MM_PER_STUD * scale, 15 * MM_PER_PLATE * scale];
  const lines: string[] = [];
  for (let x = across; x < width; x += across) lines.push(`M${x} 0V${height}`);
  for (let y = height - up; y > 0; y -= up) lines.push(`M0 ${y}H${width}`);
  return (
    <>
      <path d={lines.join('')} className="stroke-base-300" strokeWidth="0.7" fill="none" />
      <path d={`M0 ${height}H${width}`} stroke="currentColor" strokeWidth="1.2" />
    </>
  );
}

/** A plain outline of our own drawing. */
function Outline({ thing, w, h }: { thing: TrueSize; w: number; h: number }) {
  const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 1.1 };
  const solid = { fill: 'currentColor', fillOpacity: 0.08, stroke: 'currentColor', strokeWidth: 1.1 };
  const wheel = (x: number, r: number) => <circle key={x} cx={x} cy={h - r} r={r} {...line} />;
  if (thing.id === 'figure')
    return (
      <>
        <circle cx={w / 2} cy={h * 0.08} r={h * 0.075} {...solid} />
        <path d={`M${w * 0.1} ${h * 0.2}H${w * 0.9}L${w * 0.75} ${h}H${w * 0.25}Z`} {...solid} />
      </>
    );
  if (thing.id === 'door')
    return (
      <>
        <rect width={w} height={h} {...solid} />
        <circle cx={w * 0.82} cy={h * 0.52} r={1} {...line} />
      </>
    );
  if (thing.id === 'storey')
    return (
      <>
        <rect width={w} height={h} {...solid} />
        <rect x={w * 0.15} y={h * 0.3} width={w * 0.28} height={h * 0.4} {...line} />
        <rect x={w * 0.57} y={h * 0.3} width={w * 0.28} height={h * 0.4} {...line} />
      </>
    );
  if (thing.id === 'car') {
    const r = h * 0.21;
    return (
      <>
        <path
          d={`M0 ${h - r}V${h * 0.5}L${w * 0.2} ${h * 0.45}L${w * 0.35} 0H${w * 0.75}L${w * 0.9} ${h * 0.45}H${w}V${h - r}Z`}
          {...solid}
        />
        {[w * 0.2, w * 0.8].map((x) => wheel(x, r))}
      </>
    );
  }
  if (thing.id === 'bus') {
    const r = h * 0.15;
    return (
      <>
        <rect width={w} height={h - r} {...solid} />
        <rect x={w * 0.03} y={h * 0.15} width={w * 0.94} height={h * 0.3} {...line} />
        {[w * 0.22, w * 0.76].map((x) => wheel(x, r))}
      </>
    );
  }
  if (thing.id === 'locomotive') {
    const r = h * 0.11;
    return (
      <>
        <path d={`M0 ${h - r}V${h * 0.45}H${w * 0.3}V0H${w * 0.62}V${h * 0.45}H${w}V${h - r}Z`} {...solid} />
        {[0.1, 0.2, 0.3, 0.7, 0.8, 0.9].map((part) => wheel(w * part, r))}
      </>
    );
  }
  return (
    <>
      <path d={`M${w * 0.46} ${h}V${h * 0.6}M${w * 0.54} ${h}V${h * 0.6}`} {...line} />
      <ellipse cx={w / 2} cy={h * 0.36} rx={w / 2} ry={h * 0.36} {...solid} />
    </>
  );
}
