import { Plus } from 'lucide-react';
import { countOf, formatKg } from '@quarry/core/grid';
import { listOf } from '@quarry/core/document';
import { contentWord, type Shipment } from '@quarry/core/transport';
import { freshId, useDenialReason, useEdit, useScene } from '../../data/useDisplay.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { ThingForm } from './ThingForm.tsx';

/** A size to begin with, mm (our own plain figures). */
const BEGIN = { insideW: 380, insideD: 280, insideH: 220, maxKg: 12, ownKg: 1.2, bearsKg: 25 };

/** Crates by size, and what goes into each. */
export function CratesPart({ shipment, onPick }: { shipment: Shipment; onPick: (key: string) => void }) {
  const scene = useScene('crate');
  const edit = useEdit();
  const may = useDenialReason();
  const { say } = useMeasureFormat();
  const crates = listOf(scene, 'crate');
  const full = shipment.units.filter(({ holds }) => holds.length > 0);
  const isFixed = may({ op: 'add', kind: 'crate', id: 'x', data: { name: 'x', ...BEGIN } }) !== null;
  const mm = (value: number) => say(Math.round(value), 'mm').replace(/ mm$/, '');
  return (
    <>
      <Heading aside={full.length > 0 ? `${countOf(full.length, 'crate')} filled` : undefined}>
        Crates and boxes
      </Heading>
      {crates.length === 0 && (
        <Empty title="No crate yet">
          Parts that lift off, small buildings, trees and figures travel in crates. Add the sizes you have:
          what goes in which is worked out.
        </Empty>
      )}
      {crates.map(({ id, count, insideW, insideD, insideH }) => (
        <ThingForm
          key={id}
          kind="crate"
          id={id}
          aside={`${count} × ${mm(insideW)} × ${mm(insideD)} × ${say(insideH, 'mm')} · ${full.filter(({ key }) => key.startsWith(`crate-${id}-`)).length} filled`}
        />
      ))}
      <button
        type="button"
        className="btn btn-xs mt-1"
        disabled={isFixed}
        onClick={() =>
          void edit.add('added crates', 'crate', freshId('crate'), {
            name: `Crate ${String.fromCharCode(65 + (crates.length % 26))}`,
            count: 4,
            ...BEGIN,
          })
        }
      >
        <Plus size={12} aria-hidden /> Add a size of crate
      </button>
      {full.length > 0 && (
        <>
          <Heading>What is in which</Heading>
          <ul>
            {full.map(({ key, name, holds, grams }) => (
              <li key={key} className="border-b hair py-1">
                <button
                  type="button"
                  className="link link-hover text-left font-semibold"
                  onClick={() => onPick(key)}
                >
                  {name}
                </button>
                <span className="ink-2 text-xs block">
                  {holds.map(contentWord).join(', ')}; <span className="fig">{formatKg(grams)}</span>
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      <Basis>
        Each thing goes into the smallest crate that holds it with its padding, upright, either way round, in
        rows on its floor; things of the plan together, trees, figures, flags and signboards by section. A
        figure is taken as 24 × 24 × 48 mm and 4 g, a tree by its crown and height (guesses of ours). What
        fits no crate travels without.
      </Basis>
    </>
  );
}
