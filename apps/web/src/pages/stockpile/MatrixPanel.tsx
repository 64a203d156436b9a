import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { FAMILIES, colourName, type Family } from '@quarry/core/catalogue';
import { useDisplay } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { CheckField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, Loading } from '../../ui/parts.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { rowsOf } from './rows.ts';

interface Cell {
  qty: number;
  short: number;
  late: number;
}

/** Colours down, families across: where shortages glow. */
export function MatrixPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const materials = useDerived(({ materials }) => materials);
  const [onlyShort, setOnlyShort] = useState(false);
  const navigate = useNavigate();
  const { cells, families, colours } = useMemo(() => {
    const found = new Map<string, Cell>();
    const byFamily = new Map<Family, number>();
    const byColour = new Map<string, Cell>();
    for (const { colour, family, qty, short, late } of materials ? rowsOf(scene, materials.rows) : []) {
      for (const [map, key] of [
        [found, `${colour} ${family}`],
        [byColour, colour],
      ] as const) {
        const cell = map.get(key) ?? { qty: 0, short: 0, late: 0 };
        map.set(key, { qty: cell.qty + qty, short: cell.short + short, late: cell.late + late });
      }
      byFamily.set(family, (byFamily.get(family) ?? 0) + qty);
    }
    return {
      cells: found,
      families: [...byFamily].toSorted((a, b) => b[1] - a[1]).map(([family]) => family),
      colours: [...byColour].toSorted((a, b) => b[1].short - a[1].short || b[1].qty - a[1].qty),
    };
  }, [scene, materials]);
  if (!materials) return <Loading what="Counting what the plan needs" />;
  if (colours.length === 0)
    return (
      <div className="p-4">
        <Empty title="Nothing is needed yet">
          Lay ground on the Plan or bring a list, and it shows here by colour.
        </Empty>
      </div>
    );
  const shown = onlyShort ? colours.filter(([, { short, late }]) => short + late > 0) : colours;
  return (
    <div className="p-4">
      <div className="flex items-end gap-6 pb-2">
        <Heading aside="pieces short of pieces needed">Shortages by colour and family</Heading>
        <div className="w-44">
          <CheckField label="Only what is short" value={onlyShort} onCommit={setOnlyShort} />
        </div>
      </div>
      <DataTable
        label="Pieces short by colour and family"
        strip
        rows={shown}
        keyOf={([colour]) => colour}
        columns={[
          {
            head: 'Colour',
            cell: ([colour]) => (
              <>
                <Swatch colour={colour} /> {colourName(colour)}
              </>
            ),
          },
          ...families.map((family) => ({
            head: FAMILIES[family].word,
            number: true as const,
            cell: ([colour]: (typeof shown)[number]) => (
              <MatrixCell
                cell={cells.get(`${colour} ${family}`)}
                label={`${FAMILIES[family].word} in ${colourName(colour)}`}
                onOpen={() =>
                  void navigate(`?sheet=needs&family=${family}&q=${encodeURIComponent(colourName(colour))}`)
                }
              />
            ),
          })),
          {
            head: 'all',
            number: true,
            cell: ([, all]) => (all.short > 0 ? all.short : all.qty).toLocaleString('en'),
            tone: ([, all]) => (all.short > 0 ? 'error' : 'quiet'),
          },
        ]}
      />
      <Basis>
        Each square is the share of its pieces that nothing covers: the fuller the bar, the more is short.
        Ochre: it is on order but comes after the day it is needed. A figure alone is a need that is covered.
      </Basis>
    </div>
  );
}

function MatrixCell({ cell, label, onOpen }: { cell: Cell | undefined; label: string; onOpen: () => void }) {
  if (!cell) return null;
  const { qty, short, late } = cell;
  const share = Math.max(short > 0 ? 0.12 : 0, short / qty);
  return (
    <button
      type="button"
      className="relative w-full min-w-14 h-6 px-1.5 text-right border hair cursor-pointer hover:border-base-content overflow-hidden"
      aria-label={`${label}: ${short.toLocaleString('en')} short and ${late.toLocaleString('en')} late of ${qty.toLocaleString('en')}`}
      onClick={onOpen}
    >
      <span
        aria-hidden
        className="absolute inset-y-0 left-0 bg-error/25"
        style={{ width: short > 0 ? `${100 * share}%` : 0, display: short > 0 ? 'block' : 'none' }}
      />
      {late > 0 && <span aria-hidden className="absolute inset-x-0 bottom-0 h-0.5 bg-warning" />}
      <span className={`relative fig ${short > 0 ? 'font-semibold' : 'ink-2'}`}>
        {short > 0 ? short.toLocaleString('en') : qty.toLocaleString('en')}
      </span>
    </button>
  );
}
