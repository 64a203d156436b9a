import { useState } from 'react';
import { Plus } from 'lucide-react';
import { useSearchParams } from 'react-router';
import {
  FINISHES,
  PALETTE,
  COLOUR_VISIONS,
  COLOUR_VISION_WORDS,
  colourOf,
  deltaESeen,
  labOf,
  nearColours,
  simulateVision,
  type Colour,
  type ColourVision,
} from '@quarry/core/catalogue';
import { listOf } from '@quarry/core/document';
import { present } from '@quarry/core/grid';
import { FIRST_COLOUR } from '../../ui/fieldSpec.ts';
import { freshId, useEdit, useIsPlanner, useScene } from '../../data/useDisplay.tsx';
import { Basis, Empty, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { CustomGrounds } from './CustomGrounds.tsx';
import { LeavesPart } from './LeavesPart.tsx';
import { RecipeSheet } from './RecipeSheet.tsx';
import { later } from '../../ui/later.tsx';

const PaintedBoard = later(
  () => import('./PaintedBoard.tsx').then((board) => board.PaintedBoard),
  'Opening the board',
);

/** The palette, what is near to what and to whose eyes, and the recipes that ground is made by. */
export function ColoursPanel() {
  const scene = useScene('recipe');
  const plans = useIsPlanner();
  const edit = useEdit();
  const [chosen, setChosen] = useState('slate');
  const [sight, setSight] = useState<ColourVision>('usual');
  const [recipeId, setRecipeId] = useState<string | null>(null);
  const [onBoard, setOnBoard] = useState(false);
  const [query, setQuery] = useSearchParams();
  const { part } = PARTS.find((one) => one.part === query.get('part')) ?? PARTS[0];
  const recipes = listOf(scene, 'recipe');
  const recipe = recipes.find(({ id }) => id === recipeId) ?? recipes[0] ?? null;
  const colour = present(colourOf(chosen) ?? colourOf(FIRST_COLOUR), 'a colour');
  const add = () => {
    const id = freshId('recipe');
    if (
      edit.add('began a recipe', 'recipe', id, {
        name: 'New recipe',
        ground: 'grass',
        tones: [
          { colour: 'moss', share: 3 },
          { colour: 'fern', share: 1 },
        ],
      })
    )
      setRecipeId(id);
  };
  return (
    <div className="p-4 grid gap-8 xl:grid-cols-[330px_minmax(0,1fr)] items-start">
      <section aria-label="Palette">
        <div className="flex items-center gap-2 pb-1">
          <h2 className="font-semibold text-[13px] flex-1">Palette</h2>
          <select
            className="select select-xs w-32"
            aria-label="Seen with"
            value={sight}
            onChange={(event) =>
              setSight(COLOUR_VISIONS.find((one) => one === event.currentTarget.value) ?? 'usual')
            }
          >
            {COLOUR_VISIONS.map((one) => (
              <option key={one} value={one}>
                {COLOUR_VISION_WORDS[one]}
              </option>
            ))}
          </select>
        </div>
        {FINISHES.map((finish) => (
          <div
            key={finish}
            role="group"
            aria-label={finish}
            className="grid grid-cols-8 sm:grid-cols-12 gap-0.5 pb-1.5"
          >
            {PALETTE.filter((one) => one.finish === finish).map((one) => (
              <button
                key={one.id}
                type="button"
                aria-label={one.name}
                aria-pressed={one.id === chosen}
                title={one.name}
                className={`h-7 cursor-pointer border ${one.id === chosen ? 'border-base-content outline outline-2 outline-base-content' : 'border-base-content/30'}`}
                style={{
                  background:
                    finish === 'clear'
                      ? `linear-gradient(135deg, #fff 35%, ${simulateVision(one.hex, sight)} 35%)`
                      : simulateVision(one.hex, sight),
                }}
                onClick={() => setChosen(one.id)}
              />
            ))}
          </div>
        ))}
        <ColourSheet colour={colour} sight={sight} />
      </section>
      <div>
        <div className="join flex-wrap pb-2" role="group" aria-label="What colours are for">
          {PARTS.map((one) => (
            <button
              key={one.part}
              type="button"
              className={`btn btn-xs join-item ${part === one.part ? 'btn-neutral' : ''}`}
              aria-pressed={part === one.part}
              onClick={() => setQuery({ sheet: 'colours', part: one.part }, { replace: true })}
            >
              {one.word}
            </button>
          ))}
        </div>
        {part === 'grounds' && <CustomGrounds />}
        {part === 'leaves' && <LeavesPart />}
        <section aria-label="Recipes" hidden={part !== 'recipes'}>
          <div className="flex items-center gap-2 pb-1">
            <select
              className="select select-xs w-52"
              aria-label="Recipe"
              value={recipe?.id ?? ''}
              onChange={(event) => setRecipeId(event.currentTarget.value)}
            >
              {recipes.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
            {plans && (
              <button type="button" className="btn btn-xs" onClick={add}>
                <Plus size={12} aria-hidden /> New
              </button>
            )}
          </div>
          <button
            type="button"
            className="btn btn-xs mb-1"
            aria-pressed={onBoard}
            onClick={() => setOnBoard(!onBoard)}
          >
            {onBoard ? 'Back to the recipe' : 'Show all ground on the board'}
          </button>
          {onBoard ? (
            <div className="h-[460px] border hair">
              <PaintedBoard />
            </div>
          ) : recipe ? (
            <RecipeSheet key={recipe.id} recipe={recipe} plans={plans} />
          ) : (
            <Empty title="No recipe yet">
              A recipe says in which colours ground is covered, and what lies scattered on it.
            </Empty>
          )}
        </section>
      </div>
    </div>
  );
}

/** What the right of the page shows. */
const PARTS = [
  { part: 'recipes', word: 'Recipes for ground' },
  { part: 'grounds', word: 'Custom grounds' },
  { part: 'leaves', word: 'Leaves by month' },
] as const;

function ColourSheet({ colour, sight }: { colour: Colour; sight: ColourVision }) {
  const { l, a, b } = labOf(colour.hex);
  const confused = PALETTE.filter((one) => one.id !== colour.id && one.finish === colour.finish)
    .map((one) => ({
      one,
      usual: deltaESeen(colour, one, 'usual'),
      seen: Math.min(...COLOUR_VISIONS.map((each) => deltaESeen(colour, one, each))),
    }))
    .filter(({ usual, seen }) => seen < 5 && usual > 10)
    .toSorted((p, q) => p.seen - q.seen);
  return (
    <>
      <h3 className="font-bold text-base pt-1">
        <Swatch colour={colour.id} size={16} /> {colour.name}
      </h3>
      <dl>
        <DefinitionRow label="sRGB">{colour.hex}</DefinitionRow>
        <DefinitionRow label="Lab (D65)">
          {l.toFixed(1)} {a.toFixed(1)} {b.toFixed(1)}
        </DefinitionRow>
      </dl>
      <Heading aside={sight === 'usual' ? 'difference' : `difference to ${COLOUR_VISION_WORDS[sight]} eyes`}>
        Nearest
      </Heading>
      <ul className="text-xs">
        {nearColours(colour.id, 5).map(({ colour: one, deltaE }) => (
          <li key={one.id} className="flex items-center gap-2 border-b hair py-0.5">
            <span
              className="inline-block w-16 h-4 border border-base-content/30"
              style={{
                background: `linear-gradient(90deg, ${simulateVision(colour.hex, sight)} 50%, ${simulateVision(one.hex, sight)} 50%)`,
              }}
              aria-hidden
            />
            <span className="flex-1">{one.name}</span>
            <span className="fig">
              {(sight === 'usual' ? deltaE : deltaESeen(colour, one, sight)).toFixed(1)}
            </span>
          </li>
        ))}
      </ul>
      {confused.length > 0 && (
        <p className="text-xs pt-1">
          <b>Not told apart by some visitors:</b>{' '}
          {confused
            .slice(0, 6)
            .map(({ one }) => one.name)
            .join(', ')}
          .
        </p>
      )}
      <Basis>
        Differences are CIEDE2000 (CIE 142:2001): below 1 nobody sees one, about 5 is seen side by side, above
        10 it is another colour. Colour blindness is simulated at full strength (Machado, Oliveira, Fernandes
        2009). Colours are this program’s own.
      </Basis>
    </>
  );
}
