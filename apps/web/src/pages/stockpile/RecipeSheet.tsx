import { useMemo } from 'react';
import { colourOf, partName, partNamed } from '@quarry/core/catalogue';
import { accentsOf, bendCounts, countsOf, scatterOrder } from '@quarry/core/masonry';
import { groundName, groundsOf, type Recipe } from '@quarry/core/document';
import { useEdit, useScene } from '../../data/useDisplay.tsx';
import {
  NumberField,
  OptionalQuantityField,
  QuantityField,
  SelectField,
  TextField,
} from '../../ui/fields.tsx';
import { Basis, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { PALETTE_CHOICES } from '../../ui/fieldSpec.ts';
import { sectionOptions } from '../../ui/picks.ts';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { ToneRows } from './ToneRows.tsx';
import { useSupplies } from './useSupplies.ts';

const ACCENT_COLUMNS = '112px minmax(72px,1fr) 52px 42px 56px 24px';

interface RecipeProps {
  recipe: Recipe;
  plans: boolean;
}

/** Sets fields of a recipe, with the words for the history. */
function useSetRecipe(recipe: Recipe) {
  const edit = useEdit();
  return (what: string, fields: Partial<Recipe>) =>
    edit.patch(`${what} of ${recipe.name}`, 'recipe', recipe, fields);
}

/** A recipe with its tones and accents, and a patch of it as it is laid. */
export function RecipeSheet({ recipe, plans }: RecipeProps) {
  const edit = useEdit();
  const set = useSetRecipe(recipe);
  return (
    <div className="grid gap-8 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_minmax(0,300px)] items-start">
      <div>
        <RecipeFields recipe={recipe} plans={plans} />
        <ToneRows
          title="Cover, the base first"
          tones={recipe.tones}
          disabled={!plans}
          onChange={(what, tones) => set(what, { tones })}
        />
        <Accents recipe={recipe} plans={plans} />
        {plans && (
          <button
            type="button"
            className="btn btn-xs btn-ghost mt-2"
            onClick={() => edit.remove(`removed the recipe ${recipe.name}`, 'recipe', recipe.id, recipe.v)}
          >
            Remove this recipe
          </button>
        )}
      </div>
      <Preview
        recipe={recipe}
        onBend={
          plans
            ? (shares) =>
                set('bent to stock the tones', {
                  tones: recipe.tones.map((tone, i) => ({ ...tone, share: shares[i] ?? tone.share })),
                })
            : null
        }
      />
    </div>
  );
}

/** Where it holds, and what shows at its sides. */
function RecipeFields({ recipe, plans }: RecipeProps) {
  const scene = useScene('section', 'customGround');
  const set = useSetRecipe(recipe);
  return (
    <>
      <TextField
        label="Name"
        required
        value={recipe.name}
        disabled={!plans}
        onCommit={(name) => set('renamed', { name })}
      />
      <SelectField
        label="Ground"
        value={recipe.ground}
        options={groundsOf(scene).map((value) => ({ value, word: groundName(scene, value) }))}
        disabled={!plans}
        onCommit={(ground) => set('changed the ground', { ground })}
      />
      <SelectField
        label="Where"
        value={recipe.section ?? ''}
        options={sectionOptions(scene, 'everywhere')}
        disabled={!plans}
        onCommit={(section) => set('moved', { section: section === '' ? null : section })}
      />
      <OptionalQuantityField
        label="From this height up"
        measure="plates"
        value={recipe.above}
        none="any height"
        min={-3000}
        max={3000}
        disabled={!plans}
        onCommit={(above) => set('changed the height', { above })}
      />
      <SelectField
        label="Sides that show"
        value={recipe.side ?? ''}
        options={[{ value: '', word: 'as its base' }, ...PALETTE_CHOICES]}
        disabled={!plans}
        onCommit={(side) => set('changed the sides', { side: side === '' ? null : side })}
      />
      <NumberField
        label="May bend to stock by"
        unit="%"
        value={recipe.bend}
        min={0}
        max={100}
        disabled={!plans}
        onCommit={(bend) => set('changed the bend', { bend: bend ?? 0 })}
      />
    </>
  );
}

/** What lies scattered on it. */
function Accents({ recipe, plans }: RecipeProps) {
  const set = useSetRecipe(recipe);
  return (
    <Rows
      id="accents"
      title="Scattered on it"
      aside="the base shows through"
      columns={ACCENT_COLUMNS}
      words={['Part', 'Colour', { right: '% of studs' }, { right: 'Group' }, { right: 'Apart' }]}
      add={{
        word: 'Accent',
        disabled: !plans || recipe.accents.length >= 12,
        onClick: () =>
          set('added an accent', {
            accents: [
              ...recipe.accents,
              { part: 'plate-1x1', colour: 'willow', percent: 2, group: 3, apart: 4 },
            ],
          }),
      }}
    >
      {recipe.accents.map((accent, i) => {
        const put = (fields: Partial<typeof accent>) =>
          set('changed an accent', {
            accents: recipe.accents.map((one, k) => (k === i ? { ...one, ...fields } : one)),
          });
        return (
          <Row key={i} label={`Accent ${i + 1}`} columns={ACCENT_COLUMNS}>
            <TextField
              bare
              label={`Part of accent ${i + 1}`}
              value={partName(accent.part)}
              disabled={!plans}
              check={(text) =>
                partNamed(text) ? null : `“${text}” is no part; type for instance plate 1x1.`
              }
              onCommit={(text) => put({ part: partNamed(text)?.id ?? accent.part })}
            />
            <SelectField
              bare
              label={`Colour of accent ${i + 1}`}
              value={accent.colour}
              options={PALETTE_CHOICES}
              disabled={!plans}
              onCommit={(colour) => put({ colour })}
            />
            <NumberField
              bare
              label={`Percent of accent ${i + 1}`}
              value={accent.percent}
              min={0}
              max={60}
              disabled={!plans}
              onCommit={(percent) => put({ percent: percent ?? 0 })}
            />
            <NumberField
              bare
              whole
              label={`Group of accent ${i + 1}`}
              value={accent.group}
              min={1}
              max={5}
              disabled={!plans}
              onCommit={(group) => put({ group: group ?? 1 })}
            />
            <QuantityField
              bare
              measure="studs"
              hint={null}
              label={`Studs apart of accent ${i + 1}`}
              value={accent.apart}
              min={0}
              max={64}
              disabled={!plans}
              onCommit={(apart) => put({ apart })}
            />
            <RemoveButton
              what={`accent ${i + 1}`}
              disabled={!plans}
              onClick={() => set('removed an accent', { accents: recipe.accents.filter((_, k) => k !== i) })}
            />
          </Row>
        );
      })}
    </Rows>
  );
}

const SIDE = 32;

/** A patch of 32 × 32 studs as the recipe lays it, and how far it would bend to what is in stock. */
function Preview({ recipe, onBend }: { recipe: Recipe; onBend: ((shares: number[]) => void) | null }) {
  const supplies = useSupplies();
  const { cells, tally, order } = useMemo(() => {
    const studs = Array.from({ length: SIDE * SIDE }, (_, i) => i);
    const spread = scatterOrder(
      studs.map((i) => ({ x: i % SIDE, y: Math.floor(i / SIDE) })),
      recipe.seed,
    );
    const { accents, tally } = accentsOf(recipe, studs, SIDE, () => 1);
    return { order: spread, cells: accents, tally };
  }, [recipe]);
  const counts = countsOf(
    recipe.tones.map(({ share }) => share),
    SIDE * SIDE,
  );
  const stock = recipe.tones.map(({ colour }) =>
    supplies
      .filter((one) => one.colour === colour && one.part.startsWith('plate') && one.kind !== 'order')
      .reduce((sum, { qty }) => sum + qty, 0),
  );
  const bent = bendCounts(counts, stock, recipe.bend / 100);
  // From the last tone to the first, in the order of the scatter.
  const laid = recipe.tones
    .flatMap(({ colour }, i) => new Array<string>(counts[i] ?? 0).fill(colour))
    .toReversed();
  const tones = new Map(order.map((cell, i) => [cell, laid[i] ?? '']));
  const bentBy = (tone: number) => bent.bent[tone] ?? 0;
  const hex = (id: string) => colourOf(id)?.hex ?? '#888888';
  return (
    <div>
      <Heading aside="32 × 32 studs">As it is laid</Heading>
      <svg
        viewBox={`0 0 ${SIDE} ${SIDE}`}
        className="w-full max-w-80 border border-base-content"
        role="img"
        aria-label={`A patch of ${recipe.name}`}
      >
        {[...tones].map(([i, colour]) => (
          <rect key={i} x={i % SIDE} y={Math.floor(i / SIDE)} width={1.02} height={1.02} fill={hex(colour)} />
        ))}
        {cells.map(({ x, y, colour, part }, i) => {
          const long = part.includes('1x2') ? 2 : 1;
          return (
            <rect
              key={`a${i}`}
              x={x + 0.12}
              y={y + 0.12}
              width={long - 0.24}
              height={0.76}
              fill={hex(colour)}
              stroke="#22292e"
              strokeWidth={0.07}
            />
          );
        })}
      </svg>
      <dl>
        {recipe.tones.map(({ colour }, i) => (
          <DefinitionRow
            key={i}
            label={
              <>
                <Swatch colour={colour} /> {colourOf(colour)?.name ?? colour}
              </>
            }
            note={
              recipe.bend > 0 && bentBy(i) !== 0
                ? `bent to stock by ${bentBy(i) > 0 ? '+' : '−'}${Math.abs(bentBy(i))}`
                : undefined
            }
          >
            {counts[i]} studs
          </DefinitionRow>
        ))}
        {tally.map(({ part, colour, wanted, laid }, i) => (
          <DefinitionRow
            key={`t${i}`}
            label={
              <>
                <Swatch colour={colour} /> {partName(part)}
              </>
            }
            note={laid < wanted ? `${wanted - laid} found no room that far apart` : undefined}
          >
            {laid}
          </DefinitionRow>
        ))}
      </dl>
      {onBend && recipe.bend > 0 && bent.bent.some((by) => by !== 0) && (
        <button
          type="button"
          className="btn btn-xs mt-1"
          onClick={() => onBend(bent.counts.map((count) => Math.round((1000 * count) / (SIDE * SIDE)) / 10))}
        >
          Lay it as bent to stock
        </button>
      )}
      <Basis>
        Counts are shares of the whole, rounded so that they sum exactly; the rarest tone is scattered first.
        Places come from a blue-noise pattern (void and cluster, Ulichney 1993): even, without rows or clumps,
        the same for the same seed. Stock counts plates in drawers and kits, in studs of this patch.
      </Basis>
    </div>
  );
}
