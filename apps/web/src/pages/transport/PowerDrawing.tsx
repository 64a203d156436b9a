import { boundsOf, containsPoint, type Rect } from '@quarry/core/grid';
import { listOf, wallCorners, type Scene } from '@quarry/core/document';
import type { CircuitReport, MainsLead, Power } from '@quarry/core/power';
import { currentContents, frameOf, pointToScene } from '@quarry/core/venue';
import { sceneAtShow } from '@quarry/core/transport';

/** Studs kept free about what is drawn. */
const AIR = 12;
/** Dashes by which cables differ, by their number; the number stands at each, so that colour is not needed. */
const DASHES = ['', '6 3', '2 3', '9 3 2 3', '12 4', '4 2 1 2'];

interface DrawingProps {
  scene: Scene;
  power: Power;
  /** The circuit that is looked at. */
  picked: string | null;
  /** What is put where one clicks; null: nothing. */
  onPut: ((at: { x: number; y: number }) => void) | null;
  onPick: (circuit: string | null) => void;
}

/** The display from above with its cables, what they feed, where they part, and the leads to the room’s outlets. */
export function PowerDrawing({ scene, power, picked, onPut, onPick }: DrawingProps) {
  const there = sceneAtShow(scene);
  const frame = frameOf(there);
  const toStuds = (at: { x: number; y: number }) => pointToScene(frame, at);
  const outlets = [...currentContents(there, 'socket'), ...currentContents(there, 'extension')];
  const spots = [...listOf(scene, 'supply'), ...listOf(scene, 'device')];
  const drawn = [...listOf(scene, 'footprint'), ...spots.map(({ x, y }): Rect => ({ x, y, w: 0, d: 0 }))];
  const box = drawn.length > 0 ? boundsOf(drawn) : { x: 0, y: 0, w: 0, d: 0 };
  const view = { x: box.x - AIR, y: box.y - AIR, w: box.w + 2 * AIR, d: box.d + 2 * AIR };
  const words = Math.max(view.w, view.d) * 0.016;
  const put = (event: React.MouseEvent<SVGSVGElement>) => {
    const matrix = event.currentTarget.getScreenCTM();
    if (!onPut || !matrix) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    onPut({ x: Math.round(at.x * 2) / 2, y: Math.round(at.y * 2) / 2 });
  };
  return (
    <svg
      viewBox={`${view.x} ${view.y} ${view.w} ${view.d}`}
      className={`w-full max-h-full min-h-64 ${onPut ? 'cursor-crosshair' : ''}`}
      role="group"
      aria-label="Light and power from above"
      onClick={put}
    >
      <Ground scene={scene} words={words} />
      {power.leads.map((lead) => (
        <Lead key={`${lead.kind} ${lead.id}`} lead={lead} toStuds={toStuds} />
      ))}
      {outlets.map(({ id, name, x, y }) => (
        <Outlet key={id} name={name} at={toStuds({ x, y })} view={view} words={words} />
      ))}
      {power.circuits.map((report, i) => (
        <Cable
          key={report.circuit.id}
          report={report}
          number={i + 1}
          words={words}
          isFaint={picked !== null && picked !== report.circuit.id}
          onPick={() => onPick(picked === report.circuit.id ? null : report.circuit.id)}
        />
      ))}
      {power.dark.map(({ id, name, x, y }) => (
        <circle
          key={id}
          cx={x}
          cy={y}
          r={words * 0.5}
          className="fill-base-100 stroke-current"
          strokeWidth={0.4}
        >
          <title>{`${name}: fed by nothing`}</title>
        </circle>
      ))}
      {listOf(scene, 'supply').map(({ id, name, x, y }) => (
        <g key={id}>
          <rect
            x={x - words}
            y={y - words * 0.6}
            width={words * 2}
            height={words * 1.2}
            className="fill-base-100 stroke-current"
            strokeWidth={0.5}
          />
          <text x={x} y={y} dy="0.35em" textAnchor="middle" fontSize={words} className="fig fill-current">
            + −
          </text>
          <Label x={x} y={y - words} words={words}>
            {pluggedWord(
              name,
              power.leads.find((one) => one.kind === 'supply' && one.id === id),
            )}
          </Label>
        </g>
      ))}
      {power.circuits.map((report, i) => (
        <Badge key={report.circuit.id} report={report} number={i + 1} words={words} />
      ))}
    </svg>
  );
}

/** A supply with the outlet it goes into, which may lie far beyond the drawing. */
const pluggedWord = (name: string, lead: MainsLead | undefined) =>
  lead?.outlet ? `${name} → ${lead.outlet.name}` : name;

/** Modules with their names, and the outlines of buildings. */
function Ground({ scene, words }: { scene: Scene; words: number }) {
  return (
    <g pointerEvents="none">
      {listOf(scene, 'footprint').map(({ id, x, y, w, d }) => (
        <rect
          key={id}
          x={x}
          y={y}
          width={w}
          height={d}
          className="fill-base-100 stroke-current"
          strokeWidth={0.5}
        />
      ))}
      {listOf(scene, 'plot').map((plot) => (
        <polygon
          key={plot.id}
          points={wallCorners(plot)
            .map(({ x, y }) => `${x},${y}`)
            .join(' ')}
          className="fill-base-content/5 stroke-base-content/40"
          strokeWidth={0.3}
        />
      ))}
      {listOf(scene, 'module').map(({ id, name, x, y, w, d, bases }) => (
        <g key={id}>
          {(bases.length > 0 ? [] : [{ x, y, w, d }]).map((one) => (
            <rect
              key="whole"
              x={one.x}
              y={one.y}
              width={one.w}
              height={one.d}
              fill="none"
              className="stroke-primary"
              strokeWidth={0.5}
            />
          ))}
          {outlineOf(bases).map(([a, b], i) => (
            <line
              key={i}
              x1={a.x}
              y1={a.y}
              x2={b.x}
              y2={b.y}
              className="stroke-primary"
              strokeWidth={0.5}
              strokeDasharray="5 1.5 1 1.5"
            />
          ))}
          <text x={x + 1} y={y + words * 1.2} fontSize={words} className="fill-primary font-semibold">
            {name}
          </text>
        </g>
      ))}
    </g>
  );
}

/** Sides of bases that no other base of the module lies at. */
function outlineOf(bases: readonly Rect[]): [Point, Point][] {
  const sides = bases.flatMap(({ x, y, w, d }): [Point, Point][] => [
    [
      { x, y },
      { x: x + w, y },
    ],
    [
      { x, y: y + d },
      { x: x + w, y: y + d },
    ],
    [
      { x, y },
      { x, y: y + d },
    ],
    [
      { x: x + w, y },
      { x: x + w, y: y + d },
    ],
  ]);
  const isInside = (x: number, y: number) => bases.some((base) => containsPoint(base, x, y));
  // A side is the module’s where only one of the two strips along it belongs to the module.
  return sides.filter(([a, b]) => {
    const [mx, my] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
    return a.y === b.y
      ? isInside(mx, my - 0.25) !== isInside(mx, my + 0.25)
      : isInside(mx - 0.25, my) !== isInside(mx + 0.25, my);
  });
}

interface Point {
  x: number;
  y: number;
}

/** One circuit: its wires, its number where it begins, connectors, places without one, and what it feeds. */
function Cable({
  report,
  number,
  words,
  isFaint,
  onPick,
}: {
  report: CircuitReport;
  number: number;
  words: number;
  isFaint: boolean;
  onPick: () => void;
}) {
  const { circuit, wires, devices, used, partings } = report;
  // Cables that go the same way lie side by side.
  const aside = asideOf(number, words);
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Circuit ${number}, ${circuit.name}`}
      className={`group cursor-pointer outline-none ${isFaint ? 'opacity-30 focus-visible:opacity-100' : ''}`}
      onClick={(event) => {
        event.stopPropagation();
        onPick();
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onPick();
      }}
    >
      {wires.map(({ from, to, points }) => (
        <polyline
          key={`${from} ${to}`}
          points={points.map(({ x, y }) => `${x},${y}`).join(' ')}
          fill="none"
          className="stroke-secondary group-focus-visible:stroke-primary group-focus-visible:[stroke-width:1.6]"
          transform={`translate(${aside} ${aside})`}
          strokeWidth={0.8}
          strokeDasharray={DASHES[(number - 1) % DASHES.length]}
        />
      ))}
      {devices.map(({ device: { id, name, x, y, use } }) => (
        <circle
          key={id}
          cx={x}
          cy={y}
          r={words * (use === 'light' ? 0.35 : 0.5)}
          className="fill-primary stroke-base-100"
          strokeWidth={0.3}
        >
          <title>{name}</title>
        </circle>
      ))}
      {used.map(({ x, y }) => (
        <rect
          key={`${x} ${y}`}
          x={x - words * 0.35}
          y={y - words * 0.35}
          width={words * 0.7}
          height={words * 0.7}
          className="fill-base-100 stroke-secondary"
          strokeWidth={0.5}
        >
          <title>Connector</title>
        </rect>
      ))}
      {partings.map(({ x, y }) => (
        <g key={`${x} ${y}`}>
          <circle cx={x} cy={y} r={words * 0.6} className="fill-base-100 stroke-error" strokeWidth={0.5} />
          <text x={x} y={y} dy="0.35em" textAnchor="middle" fontSize={words} className="fill-error font-bold">
            !
          </text>
          <title>No connector at this seam</title>
        </g>
      ))}
    </g>
  );
}

/** How far a cable is drawn beside its way. */
const asideOf = (number: number, words: number) => (((number - 1) % 3) - 1) * words * 0.3;

/** The number of a circuit, on the longest part of its cable. */
function Badge({ report, number, words }: { report: CircuitReport; number: number; words: number }) {
  const at = spotOn(
    report.wires.map(({ points }) => points),
    0.2 + 0.3 * ((number - 1) % 3),
  );
  const aside = asideOf(number, words);
  return (
    at && (
      <g pointerEvents="none" transform={`translate(${at.x + aside} ${at.y + aside})`}>
        <circle r={words * 0.75} className="fill-secondary" />
        <text dy="0.35em" textAnchor="middle" fontSize={words} className="fig fill-base-100">
          {number}
        </text>
      </g>
    )
  );
}

/** A point of the longest straight part of some lines; null: there are none. @param share of it from its beginning */
function spotOn(lines: readonly (readonly Point[])[], share: number): Point | null {
  const parts = lines.flatMap((points) => points.slice(1).map((b, i) => ({ a: points[i] ?? b, b })));
  const long = ({ a, b }: { a: Point; b: Point }) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
  const [first, ...others] = parts;
  if (!first) return null;
  const { a, b } = others.reduce((one, other) => (long(other) > long(one) ? other : one), first);
  return { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) };
}

/** The straight way of a lead to its outlet. */
function Lead({ lead, toStuds }: { lead: MainsLead; toStuds: (at: Point) => Point }) {
  if (!lead.outlet) return null;
  const [a, b] = [toStuds(lead.from), toStuds(lead.outlet.at)];
  return (
    <line
      x1={a.x}
      y1={a.y}
      x2={b.x}
      y2={b.y}
      className={lead.isCrossing ? 'stroke-error' : 'stroke-base-content/60'}
      strokeWidth={0.5}
      strokeDasharray="1 1.5"
    >
      <title>{`Lead of ${lead.name}`}</title>
    </line>
  );
}

/** An outlet of the room, where it is near enough to be on the drawing. */
function Outlet({ name, at, view, words }: { name: string; at: Point; view: Rect; words: number }) {
  const isSeen = at.x >= view.x && at.y >= view.y && at.x <= view.x + view.w && at.y <= view.y + view.d;
  if (!isSeen) return null;
  return (
    <g>
      <circle
        cx={at.x}
        cy={at.y}
        r={words * 0.6}
        className="fill-base-100 stroke-current"
        strokeWidth={0.4}
      />
      <circle cx={at.x} cy={at.y} r={words * 0.15} className="fill-current" />
      <Label x={at.x} y={at.y - words * 0.4} words={words}>
        {name}
      </Label>
    </g>
  );
}

function Label({ x, y, words, children }: { x: number; y: number; words: number; children: string }) {
  return (
    <text
      x={x}
      y={y - words * 0.4}
      textAnchor="middle"
      fontSize={words}
      className="fill-current stroke-base-200"
      strokeWidth={words * 0.25}
      paintOrder="stroke"
      pointerEvents="none"
    >
      {children}
    </text>
  );
}
