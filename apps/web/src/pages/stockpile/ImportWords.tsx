import { CATALOGUE, PALETTE, colourName, partName } from '@quarry/core/catalogue';
import { countOf } from '@quarry/core/grid';
import type { UnknownWord } from '@quarry/core/materials';
import { Heading } from '../../ui/parts.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { ownPartId, type WordMeaning } from './takeIn.ts';

/** Unknown words of a list: mapped once, remembered for later lists. */
export function ImportWords({
  unknown,
  taught,
  onTeach,
}: {
  unknown: readonly UnknownWord[];
  taught: ReadonlyMap<string, WordMeaning>;
  onTeach: (word: { about: 'part' | 'colour'; word: string }, means: string) => void;
}) {
  const choices = {
    part: CATALOGUE.map(({ id }) => ({ id, word: partName(id) })),
    colour: PALETTE.map(({ id, name }) => ({ id, word: name })),
  };
  const rows = [
    ...[...taught.values()].map((one) => ({ ...one, rows: null, offers: [] as string[] })),
    ...unknown.slice(0, 40).map((one) => ({ ...one, means: '' })),
  ];
  return (
    <section aria-label="Words to explain" className="border hair p-2 mb-2 max-w-2xl">
      <Heading aside="remembered for every later list">What do these words mean?</Heading>
      <ul className="text-xs">
        {rows.map((one) => (
          <li
            key={`${one.about} ${one.word}`}
            className="flex flex-wrap items-center gap-2 border-b hair py-1"
          >
            <span className="w-48 truncate" title={one.word}>
              {one.about} “{one.word}”
              {one.rows !== null && <span className="ink-2"> on {countOf(one.rows, 'row')}</span>}
            </span>
            {one.offers.map((id) => (
              <button key={id} type="button" className="btn btn-xs" onClick={() => onTeach(one, id)}>
                <Swatch colour={id} /> {colourName(id)}
              </button>
            ))}
            <select
              aria-label={`What ${one.about} “${one.word}” means`}
              className="select select-xs w-44"
              value={one.means}
              onChange={(event) => onTeach(one, event.currentTarget.value)}
            >
              <option value="">not said</option>
              {one.about === 'part' && <option value={ownPartId(one.word)}>a part of our own</option>}
              {choices[one.about].map(({ id, word }) => (
                <option key={id} value={id}>
                  {word}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ul>
      {unknown.length > 40 && <p className="ink-2 text-xs">{unknown.length - 40} more words after these.</p>}
    </section>
  );
}
