import { useEffect, useMemo, useRef, useState } from 'react';
import { Plus } from 'lucide-react';
import { countOf, formatMm, formatPlates, PLATE } from '@quarry/core/grid';
import { colourName, colourOf } from '@quarry/core/catalogue';
import { PATCH_SIDE, groundPatch } from '@quarry/core/masonry';
import {
  FIXED_GROUNDS,
  COVER_SURFACES,
  CUSTOM_GROUNDS,
  GROUND_HATCHES,
  freeGroundId,
  listOf,
  type CustomGround,
  type Ground,
} from '@quarry/core/document';
import { studsOfGround } from '@quarry/core/terrain';
import { SWATCH, fillGround } from '../../board/legendEntries.ts';
import { PALETTES } from '../../board/palette.ts';
import { useDisplay, useEdit, useIsPlanner, useScene } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { EntityFields } from '../../ui/EntityForm.tsx';
import { COLOUR_CHOICES, PALETTE_CHOICES, field } from '../../ui/fieldSpec.ts';
import { NumberField, OptionalQuantityField, SelectField } from '../../ui/fields.tsx';
import { Basis, DefinitionRow, Empty, Heading } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { PartColour, Swatch } from '../../ui/Swatch.tsx';
import { useDerived } from '../../workers/useDerived.ts';

const FIELDS = [
  field.text('name', 'Name'),
  field.choice('like', 'Judged as', FIXED_GROUNDS),
  field.choice('surface', 'Covered with', COVER_SURFACES, {
    natural: 'Plates, slopes where it falls',
    plates: 'Plates',
    tiles: 'Tiles',
  }),
  { as: 'choice' as const, key: 'colour', label: 'Colour', options: PALETTE_CHOICES },
  {
    as: 'choice' as const,
    key: 'side',
    label: 'Sides that show',
    options: PALETTE_CHOICES,
    optional: 'as its cover',
  },
  field.choice(
    'hatch',
    'Hatch on the plan',
    GROUND_HATCHES.filter((hatch) => hatch !== 'dashes'),
  ),
];
const MAX_LAYERS = 6;
const COLUMNS = '1fr 64px 112px 24px';

/** Grounds that the display describes itself, beside those of every display: snow, mud, molten rock, clear water. */
export function CustomGrounds() {
  const scene = useScene('customGround');
  const edit = useEdit();
  const plans = useIsPlanner();
  const [chosen, setChosen] = useState<string | null>(null);
  const grounds = listOf(scene, 'customGround');
  const ground = grounds.find(({ id }) => id === chosen) ?? grounds[0] ?? null;
  const free = freeGroundId(scene);
  const add = () => {
    if (free === null) return;
    const data = {
      name: 'Snow',
      colour: 'chalk',
      layers: [{ colour: 'chalk', plates: 1, upTo: null }],
      hatch: 'flakes' as const,
    };
    if (edit.add('described a ground', 'customGround', free, data)) setChosen(free);
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 pb-1">
        {grounds.length > 0 && (
          <select
            className="select select-xs w-52"
            aria-label="Custom ground"
            value={ground?.id ?? ''}
            onChange={(event) => setChosen(event.currentTarget.value)}
          >
            {grounds.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        )}
        {plans && (
          <button
            type="button"
            className="btn btn-xs"
            disabled={free === null}
            title={free === null ? `A display has at most ${CUSTOM_GROUNDS.length}` : undefined}
            onClick={add}
          >
            <Plus size={12} aria-hidden /> New ground
          </button>
        )}
      </div>
      {ground ? (
        <div className="grid gap-8 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,300px)] items-start">
          <GroundForm key={ground.id} ground={ground} plans={plans} />
          <AsBuilt ground={ground} />
        </div>
      ) : (
        <Empty title="No custom ground yet">
          Describe snow, mud, molten rock or clear water over a floor: pads, hills, water and ways can then be
          of it, and its layers are counted.
        </Empty>
      )}
    </>
  );
}

function GroundForm({ ground, plans }: { ground: CustomGround; plans: boolean }) {
  const edit = useEdit();
  const set = (verb: string, layers: CustomGround['layers']) =>
    edit.patch(`${verb} of ${ground.name}`, 'customGround', ground, { layers });
  return (
    <div>
      <EntityFields picked={{ kind: 'customGround', id: ground.id }} fields={FIELDS} disabled={!plans} />
      <Rows
        id="layers"
        title="Layers under its cover, the top one first"
        columns={COLUMNS}
        words={['Colour', { right: 'Plates' }, { right: 'On ground up to' }]}
        add={{
          word: 'Layer',
          disabled: !plans || ground.layers.length >= MAX_LAYERS,
          onClick: () =>
            set('added a layer', [...ground.layers, { colour: ground.colour, plates: 1, upTo: null }]),
        }}
      >
        {ground.layers.map((layer, i) => {
          const put = (fields: Partial<typeof layer>) =>
            set(
              'changed a layer',
              ground.layers.map((one, k) => (k === i ? { ...one, ...fields } : one)),
            );
          return (
            <Row key={i} label={`Layer ${i + 1}`} columns={COLUMNS}>
              <span className="flex items-center gap-2">
                <Swatch colour={layer.colour} />
                <SelectField
                  bare
                  label={`Colour of layer ${i + 1}`}
                  value={layer.colour}
                  options={COLOUR_CHOICES}
                  disabled={!plans}
                  onCommit={(colour) => put({ colour })}
                />
              </span>
              <NumberField
                bare
                whole
                label={`Plates of layer ${i + 1}`}
                value={layer.plates}
                min={1}
                max={60}
                disabled={!plans}
                onCommit={(plates) => put({ plates: plates ?? 1 })}
              />
              <OptionalQuantityField
                bare
                label={`Layer ${i + 1} on ground up to`}
                measure="plates"
                value={layer.upTo}
                none="any height"
                min={-3000}
                max={3000}
                disabled={!plans}
                onCommit={(upTo) => put({ upTo })}
              />
              <RemoveButton
                what={`layer ${i + 1}`}
                disabled={!plans}
                onClick={() =>
                  set(
                    'removed a layer',
                    ground.layers.filter((_, k) => k !== i),
                  )
                }
              />
            </Row>
          );
        })}
      </Rows>
      {plans && (
        <button
          type="button"
          className="btn btn-xs btn-ghost mt-2"
          onClick={() =>
            edit.remove(`removed the ground ${ground.name}`, 'customGround', ground.id, ground.v)
          }
        >
          Remove this ground
        </button>
      )}
    </div>
  );
}

/** Height of a plate in the drawing of the layers, px; a tall ground is drawn smaller. */
const PLATE_PX = 12;
const MAX_PX = 180;

/** What a ground comes to: its layers to scale, its hatch, its studs on the plan, and the pieces of a patch. */
function AsBuilt({ ground }: { ground: CustomGround }) {
  const scene = useDisplay(({ scene: now }) => now);
  const relief = useDerived(({ ground: compiled }) => compiled?.relief ?? null);
  const id: Ground = CUSTOM_GROUNDS.find((one) => one === ground.id) ?? CUSTOM_GROUNDS[0];
  const { lines, pieces, thick } = useMemo(() => groundPatch(scene, id), [scene, id]);
  const studs = relief ? studsOfGround(relief, id) : null;
  const px = Math.min(PLATE_PX, MAX_PX / thick);
  const bands = [
    { colour: ground.colour, plates: 1, word: 'cover' },
    ...ground.layers.map((layer) => ({
      ...layer,
      word: layer.upTo === null ? '' : `on ground up to ${formatPlates(layer.upTo)}`,
    })),
  ];
  return (
    <section aria-label="As it is built">
      <Heading aside={`${formatPlates(thick)} = ${formatMm(thick * PLATE)}`}>
        {ground.layers.some(({ upTo }) => upTo !== null)
          ? 'From the top down, where it is deepest'
          : 'From the top down'}
      </Heading>
      <ul className="border border-base-content">
        {bands.map(({ colour, plates, word }, i) => (
          <li
            key={i}
            className="flex items-center gap-2 border-b last:border-b-0 hair text-xs"
            style={{ minHeight: Math.max(18, plates * px) }}
          >
            <span
              className="self-stretch w-24 border-r hair"
              style={{ background: colourOf(colour)?.hex ?? 'transparent' }}
              aria-hidden
            />
            <span className="fig">{formatPlates(plates)}</span>
            <span>
              {colourName(colour)} {word && <span className="ink-2">{word}</span>}
            </span>
          </li>
        ))}
      </ul>
      <dl className="pt-2">
        <DefinitionRow label="Hatch on the plan">
          <PlanSwatch ground={id} />
        </DefinitionRow>
        <DefinitionRow
          label="On the plan"
          note={studs === 0 ? 'choose it as the ground of a pad, a hill or water' : undefined}
        >
          {studs === null ? '…' : countOf(studs, 'stud')}
        </DefinitionRow>
        <DefinitionRow label={`${PATCH_SIDE} × ${PATCH_SIDE} studs of it`}>
          {countOf(pieces, 'piece')}
        </DefinitionRow>
      </dl>
      <ul className="text-xs">
        {lines.map(({ part, colour, qty }) => (
          <li key={`${part} ${colour}`} className="flex justify-between gap-2 border-b hair py-0.5">
            <PartColour part={part} colour={colour} />
            <span className="fig">{qty}</span>
          </li>
        ))}
      </ul>
      <Basis>
        Counted as level ground on a brick, as everywhere: layers of three plates and more are laid as bricks
        from their foot up. Where ground falls, slopes take the place of the upper layers; where it is thinner
        than its layers, the lowest are left out and a finding says so. A recipe for this ground sets the
        tones of its cover.
      </Basis>
    </section>
  );
}

/** A ground as the plan hatches it. */
function PlanSwatch({ ground }: { ground: Ground }) {
  const scene = useScene('customGround');
  const { theme } = useView();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx) return;
    ctx.clearRect(0, 0, SWATCH.w, SWATCH.h);
    fillGround(ctx, scene, ground, PALETTES[theme]);
  }, [scene, ground, theme]);
  return <canvas ref={canvas} width={SWATCH.w} height={SWATCH.h} className="inline-block" aria-hidden />;
}
