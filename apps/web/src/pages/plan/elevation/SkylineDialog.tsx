import { useState } from 'react';
import { ANY_COLOUR, colourOf } from '@quarry/core/catalogue';
import { MM_PER_PLATE, MM_PER_STUD, formatPlates } from '@quarry/core/grid';
import { SIDE_WORDS, type Side } from '@quarry/core/document';
import { skylineSides, type Skyline, type SkylineFront } from '@quarry/core/structures';
import { useDisplay } from '../../../data/useDisplay.tsx';
import { useVersionBeside } from '../../../data/versions.ts';
import { useView } from '../../../data/view.ts';
import { DataTable } from '../../../ui/DataTable.tsx';
import { Basis, Dialog } from '../../../ui/parts.tsx';
import { Tabs } from '../../../ui/Tabs.tsx';
import { useMeasureFormat } from '../../../ui/useMeasureFormat.ts';
import { VersionBesideField } from '../../../ui/VersionBesideField.tsx';
import { useWorkerQuery } from '../../../workers/useWorkerQuery.ts';
import { Pieces, painted } from './ElevationDrawing.tsx';

/** Less of a front that is seen is marked, percent. */
const HIDDEN = 50;
const percent = (share: number): number => Math.round(100 * share);

/** The whole display from one of its sides, front behind front, to scale. */
export function SkylineDialog({ onClose }: { onClose: () => void }) {
  const scene = useDisplay(({ scene }) => scene);
  const pick = useView(({ pick }) => pick);
  const sides = skylineSides(scene);
  const [side, setSide] = useState<Side>(sides[0] ?? 's');
  const skyline = useWorkerQuery((core) => core.skyline(side), `skyline ${side}`);
  const { beside, own, ...choice } = useVersionBeside();
  const other = useWorkerQuery(
    beside && ((core) => core.skylineIn(beside.scene, side)),
    `skyline ${side} ${choice.value}`,
  );
  const { say } = useMeasureFormat();
  return (
    <Dialog title="Street elevation" open onClose={onClose} wide>
      <Tabs
        label="Sides"
        look="line"
        open={side}
        onOpen={setSide}
        tabs={sides.map((id) => ({
          id,
          word: <span className="px-2">From the {SIDE_WORDS[id]}</span>,
        }))}
      />
      {skyline?.side === side ? (
        <>
          <VersionBesideField label="Beside it" choice={choice} />
          <div className={beside ? 'grid gap-2 grid-rows-2' : ''}>
            {beside && (
              <figure>
                <figcaption className="text-xs font-semibold pt-1">{beside.name}</figcaption>
                {other?.side === side ? (
                  <SkylineDrawing skyline={other} high={Math.max(other.high, skyline.high)} />
                ) : (
                  <p className="ink-2 py-4 text-center" role="status">
                    Drawing the fronts of {beside.name} …
                  </p>
                )}
              </figure>
            )}
            <figure>
              {beside && <figcaption className="text-xs font-semibold pt-1">{own}</figcaption>}
              <SkylineDrawing
                skyline={skyline}
                high={beside && other ? Math.max(other.high, skyline.high) : skyline.high}
              />
            </figure>
          </div>
          <DataTable
            label="Fronts from the left"
            rows={skyline.fronts.toSorted((a, b) => a.left - b.left)}
            keyOf={({ id }) => id}
            columns={[
              {
                head: 'From the left',
                cell: ({ id, name }) => (
                  <button
                    type="button"
                    className="link link-hover"
                    onClick={() => {
                      onClose();
                      pick({ kind: 'plot', id });
                    }}
                  >
                    {name}
                  </button>
                ),
              },
              { head: 'Stands at', number: true, cell: ({ foot }) => formatPlates(foot) },
              { head: 'Walls up to', number: true, cell: ({ walls }) => formatPlates(walls) },
              {
                head: 'Ridge at',
                number: true,
                cell: ({ ridge }) => `${formatPlates(ridge)} · ${say(ridge * MM_PER_PLATE, 'mm')}`,
              },
              {
                head: 'Seen of its front',
                number: true,
                cell: ({ seen }) =>
                  percent(seen) < HIDDEN ? (
                    <span className="text-warning font-semibold">△ {percent(seen)} %</span>
                  ) : (
                    `${percent(seen)} %`
                  ),
              },
            ]}
          />
        </>
      ) : (
        <p className="ink-2 py-8 text-center" role="status">
          Drawing the fronts …
        </p>
      )}
      <Basis>
        Square from the side, without perspective: heights above the datum as they stand, the highest ground
        behind each stud as a line, the ground at the edge filled. Seen: the share of a front from its foot to
        its ridge that lies behind no building nearer to this side. Buildings turned off the grid are drawn
        plain; trees, figures and decks are left out.
      </Basis>
    </Dialog>
  );
}

/** @param high height of the drawing, plates: two that are compared have the same */
function SkylineDrawing({
  skyline: { side, length, ground, edge, fronts },
  high,
}: {
  skyline: Skyline;
  high: number;
}) {
  const [w, h] = [length * MM_PER_STUD, high * MM_PER_PLATE];
  const y = (plates: number) => (high - plates) * MM_PER_PLATE;
  const lineOf = (heights: readonly number[]) =>
    heights.map((height, i) => `L${i * MM_PER_STUD} ${y(height)}H${(i + 1) * MM_PER_STUD}`).join('');
  const margin = w / 60;
  return (
    <svg
      viewBox={[-margin, -margin, w + 2 * margin, h + 2 * margin].join(' ')}
      className="w-full max-h-[42vh]"
      role="img"
      aria-label={`The display from the ${SIDE_WORDS[side]}, ${fronts.length} fronts`}
    >
      <path
        d={`M0 ${h}${lineOf(ground)}L${w} ${h}Z`}
        strokeWidth={0.8}
        vectorEffect="non-scaling-stroke"
        className="fill-base-200 stroke-base-content/60"
      />
      {fronts.map((front) => (
        <Front key={front.id} front={front} y={y} />
      ))}
      <path
        d={`M0 ${h}${lineOf(edge)}L${w} ${h}Z`}
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
        className="fill-base-300 stroke-base-content"
      />
    </svg>
  );
}

function Front({ front, y }: { front: SkylineFront; y: (plates: number) => number }) {
  const { name, left, length, foot, walls, ridge, pieces, colour, roofColour } = front;
  const x = left * MM_PER_STUD;
  const wide = length * MM_PER_STUD;
  const paint = (id: string) => painted(id === ANY_COLOUR ? undefined : colourOf(id)?.hex);
  const box = (from: number, to: number) => ({ x, y: y(to), width: wide, height: y(from) - y(to) });
  return (
    <g>
      <title>{name}</title>
      {pieces.length === 0 && ridge > walls && (
        <rect
          {...box(walls, ridge)}
          style={paint(roofColour)}
          strokeWidth={0.8}
          vectorEffect="non-scaling-stroke"
          className="fill-base-200 stroke-base-content"
        />
      )}
      <rect
        {...box(foot, walls)}
        style={paint(colour)}
        strokeWidth={0.8}
        vectorEffect="non-scaling-stroke"
        className="fill-base-100 stroke-base-content"
      />
      <g transform={`translate(${x} ${y(ridge)})`}>
        <Pieces pieces={pieces} high={ridge - foot} />
      </g>
    </g>
  );
}
