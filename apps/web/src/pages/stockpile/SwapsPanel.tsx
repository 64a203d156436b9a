import { useMemo, useState } from 'react';
import { coloursNamed, colourName, partName, partNamed } from '@quarry/core/catalogue';
import { piecesTyped, waitingPlaceholders } from '@quarry/core/materials';
import { footprintBounds } from '@quarry/core/terrain';
import { displayOf, listOf } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { dayWord } from '../../ui/words.ts';
import { today } from '../../ui/days.ts';
import { useSupplies } from './useSupplies.ts';

/** What was built in a wrong colour, the seen ones first, and what replaces it. */
export function SwapsPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const supplies = useSupplies();
  const edit = useEdit();
  const may = useDenialReason();
  const display = displayOf(scene);
  const waiting = useMemo(
    () => waitingPlaceholders(scene, footprintBounds(scene), display.viewedSides, supplies),
    [scene, display.viewedSides, supplies],
  );
  const swapped = listOf(scene, 'placeholder').filter((one) => one.swapped !== null);
  return (
    <div className="p-4 grid gap-8 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_300px] items-start max-w-[1200px]">
      <section aria-label="Placeholders">
        <Heading aside={`${swapped.length} swapped so far`}>To be swapped, the seen ones first</Heading>
        {waiting.length === 0 && (
          <Empty title="No placeholder stands">
            Built something in a wrong colour until the right one comes? Note it here, and it is not
            forgotten.
          </Empty>
        )}
        <ul>
          {waiting.map(({ placeholder: one, seen, mayStay, depth, here, coming, comes }) => {
            const section = one.section === null ? null : scene.section[one.section];
            const locked = may({ op: 'patch', kind: 'placeholder', id: one.id, v: one.v, set: {} });
            return (
              <li key={one.id} className="border-b hair py-2 flex items-start gap-3" data-swap={one.id}>
                <span className="flex items-center gap-1 pt-0.5">
                  <Swatch colour={one.stands} size={16} />
                  <span aria-hidden>→</span>
                  <Swatch colour={one.colour} size={16} />
                </span>
                <div className="flex-1">
                  <p>
                    {one.qty} × {partName(one.part)}: stands in {colourName(one.stands)}, should be{' '}
                    {colourName(one.colour)}
                  </p>
                  <p className="ink-2 text-xs">
                    {section ? `${section.letter}, ${section.name}` : 'no section'} at{' '}
                    <span className="fig">
                      {one.x}, {one.y}
                    </span>
                    {one.built && ` · since ${dayWord(one.built)}`}
                    {one.notes && ` · ${one.notes}`}
                  </p>
                  <p className="text-xs">
                    {seen === null ? (
                      <span className="ink-2">viewed sides are not set</span>
                    ) : seen ? (
                      <b>seen: {Math.round(depth)} studs from the viewers</b>
                    ) : (
                      <span className="ink-2">deep in: {Math.round(depth)} studs from the viewers</span>
                    )}
                    {' · '}
                    {mayStay && 'may stay by the colour rule · '}
                    {here === one.qty && <span className="text-success">what replaces it is here</span>}
                    {coming > 0 &&
                      `${coming} to come, ${comes ? `on the way for ${dayWord(comes)}` : 'no day known'}`}
                    {coming > 0 && here + coming < one.qty && ' · '}
                    {here + coming < one.qty && (
                      <span className="text-error">{one.qty - here - coming} not ordered yet</span>
                    )}
                  </p>
                </div>
                <button
                  type="button"
                  className="btn btn-xs"
                  disabled={locked !== null}
                  title={locked ?? undefined}
                  onClick={() =>
                    edit.patch(
                      `swapped ${one.qty} × ${partName(one.part)} for ${colourName(one.colour)}`,
                      'placeholder',
                      one,
                      {
                        swapped: today(),
                      },
                    )
                  }
                >
                  Swapped
                </button>
              </li>
            );
          })}
        </ul>
        <Basis>
          Seen: within 48 studs of a side that visitors look at (a default of ours, about an arm’s length),
          the nearest first. “May stay”: the section’s rule, or the display’s, leaves colours free, or mixes
          old and new tones and the two differ by at most 10 (CIEDE2000). What is here in everybody’s drawers
          and kits in the right colour, and what comes with orders, is given to the first of the list first.
        </Basis>
      </section>
      <AddPlaceholder />
    </div>
  );
}

function AddPlaceholder() {
  const scene = useScene('section');
  const { role, person } = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const own = listOf(scene, 'section').filter(({ owner }) => role !== 'builder' || owner === person);
  const [fields, setFields] = useState({
    part: '',
    stands: '',
    colour: '',
    qty: '1',
    section: own[0]?.id ?? '',
    notes: '',
  });
  const [error, setError] = useState<string | null>(null);
  if (role === 'viewer' || own.length === 0) return null;
  const add = () => {
    const part = partNamed(fields.part);
    const [stands, colour] = [fields.stands, fields.colour].map((word) => coloursNamed(word).exact);
    const pieces = piecesTyped(fields.qty);
    if (!part) return setError(`Part: “${fields.part}” is not known; type for instance plate 2x4.`);
    if (!stands) return setError(`Stands in: “${fields.stands}” is no colour of the palette.`);
    if (!colour) return setError(`Should be: “${fields.colour}” is no colour of the palette.`);
    if (!pieces.ok) return setError(pieces.error);
    const { qty } = pieces;
    const at = scene.section[fields.section] ?? own[0];
    if (!at) return;
    const done = edit.add(
      `noted a placeholder: ${qty} × ${partName(part.id)}`,
      'placeholder',
      freshId('placeholder'),
      {
        ...{
          part: part.id,
          colour: colour.id,
          stands: stands.id,
          qty,
          section: at.id,
          notes: fields.notes,
        },
        ...{ x: Math.round(at.x + at.w / 2), y: Math.round(at.y + at.d / 2), built: today() },
      },
    );
    if (!done) return;
    setError(null);
    setFields({ ...fields, part: '', notes: '' });
  };
  const set = (key: keyof typeof fields) => (value: string) => setFields({ ...fields, [key]: value });
  return (
    <form
      aria-label="Note a placeholder"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <Heading>Note one</Heading>
      {(
        [
          ['part', 'Part', 'plate 2x4'],
          ['stands', 'Stands in', 'Pebble'],
          ['colour', 'Should be', 'Slate'],
          ['qty', 'Pieces', '1'],
          ['notes', 'Where', 'south roof, second row'],
        ] as const
      ).map(([key, label, example]) => (
        <label key={key} className="flex items-center gap-2 border-b hair py-1">
          <span className="flex-1">{label}</span>
          <input
            className="input input-xs w-40"
            placeholder={example}
            maxLength={200}
            value={fields[key]}
            onChange={(event) => set(key)(event.currentTarget.value)}
          />
        </label>
      ))}
      <label className="flex items-center gap-2 border-b hair py-1">
        <span className="flex-1">Section</span>
        <select
          className="select select-xs w-40"
          value={fields.section}
          onChange={(event) => set('section')(event.currentTarget.value)}
        >
          {own.map(({ id, letter, name }) => (
            <option key={id} value={id}>
              {letter}, {name}
            </option>
          ))}
        </select>
      </label>
      <p role="alert" className="text-error text-xs">
        {error}
      </p>
      <button type="submit" className="btn btn-xs mt-1">
        Note it
      </button>
    </form>
  );
}
