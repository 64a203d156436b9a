import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { CATALOGUE, PALETTE, colourName, partName } from '@quarry/core/catalogue';
import { counted } from '@quarry/core/lattice';
import {
  COLUMN_USES,
  aliasKey,
  aliasesOf,
  guessColumns,
  readRows,
  type ColumnUse,
  type UnknownWord,
} from '@quarry/core/ledger';
import { MAX_LINES, listOf, mergeLines, type Change } from '@quarry/core/scene';
import { freshId, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { Heading } from '../../ui/parts.tsx';
import { Swatch } from '../../ui/Swatch.tsx';
import { readTable } from './readTable.ts';

const USES: Record<ColumnUse, string> = {
  part: 'part',
  colour: 'colour',
  qty: 'quantity',
  price: 'price',
  place: 'drawer',
  none: 'not used',
};
const OWN_PART = 'own-';
/** An id for a part nobody makes by family and size, from what it is called. */
const ownPartId = (word: string) =>
  `${OWN_PART}${
    word
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 30) || 'part'
  }`;
type Into = 'need' | 'kit' | 'stock';
const INTO: Record<Into, string> = { need: 'a list of what is needed', kit: 'a kit', stock: 'drawers' };

/** A pasted or brought list: say what its columns and words are, see which rows are bad, take it. */
export function ImportSheet({ onDone }: { onDone: (list: string | null) => void }) {
  const scene = useDisplay(({ scene }) => scene);
  const { person } = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const [table, setTable] = useState<{ name: string; rows: string[][] } | null>(null);
  const [columns, setColumns] = useState<ColumnUse[]>([]);
  const [taught, setTaught] = useState<
    ReadonlyMap<string, { about: 'part' | 'colour'; word: string; means: string }>
  >(new Map());
  const [name, setName] = useState('');
  const [into, setInto] = useState<Into>('need');
  const [section, setSection] = useState('');
  const [text, setText] = useState('');
  const own = useMemo(() => new Set(Object.keys(scene.partType)), [scene.partType]);
  const aliases = useMemo(() => {
    const all = aliasesOf(scene);
    for (const [key, { means }] of taught) all.set(key, means);
    return all;
  }, [scene, taught]);
  const read = useMemo(
    () => (table ? readRows(table.rows.slice(1), columns, aliases, own) : null),
    [table, columns, aliases, own],
  );
  const open = async (from: File | string, word: string) => {
    try {
      const rows = await readTable(from);
      if (rows.length < 2) throw new Error(`${word}: there is no row under its heading.`);
      setTable({ name: word, rows });
      setColumns(guessColumns(rows[0]));
      setName(word.replace(/\.[a-z]+$/i, '').slice(0, 80));
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  useEffect(() => setTaught(new Map()), [table]);
  const take = () => {
    if (!read) return;
    const lines = read.lines.map(({ part, colour, qty }) => ({ part, colour, qty }));
    const remembered: Change[] = [...taught.values()].map(({ about, word, means }) => ({
      ...{ op: 'add', kind: 'alias', id: freshId('alias') },
      data: { about, word: word.slice(0, 120), means },
    }));
    // A part of one's own is known by what people call it.
    const mine = [...taught.values()].filter(
      ({ about, means }) => about === 'part' && means.startsWith(OWN_PART),
    );
    for (const { word, means } of mine)
      if (!scene.partType[means])
        remembered.push({
          ...{ op: 'add', kind: 'partType', id: means },
          data: { family: 'special', name: word.slice(0, 80) },
        });
    const id = freshId('partList');
    const changes: Change[] =
      into === 'stock'
        ? read.lines.map(({ part, colour, qty, place }) => ({
            ...{ op: 'add', kind: 'lot', id: freshId('lot') },
            data: { part, colour, qty, owner: person, place },
          }))
        : [
            {
              ...{ op: 'add', kind: 'partList', id },
              data: {
                name: name.trim() || 'List',
                use: into,
                section: section === '' ? null : section,
                owner: into === 'kit' ? person : null,
                lines: mergeLines(lines),
              },
            },
          ];
    if (
      edit.change(`brought ${table?.name ?? 'a list'}: ${read.lines.length} lines`, [
        ...changes,
        ...remembered,
      ])
    )
      onDone(into === 'stock' ? null : id);
  };
  const most = into === 'stock' ? 4000 : MAX_LINES;
  return (
    <section aria-label="Bring a list">
      <Heading>Bring a list</Heading>
      {!table && (
        <div className="grid gap-3 max-w-prose">
          <label>
            <span className="block ink-2 text-xs">A file: CSV or XLSX, with a heading</span>
            <input
              type="file"
              accept=".csv,.tsv,.txt,.xlsx"
              className="file-input file-input-sm w-full"
              onChange={(event) => {
                const file = event.currentTarget.files?.[0];
                if (file) void open(file, file.name);
              }}
            />
          </label>
          <label>
            <span className="block ink-2 text-xs">Or paste rows here, with a heading</span>
            <textarea
              className="textarea textarea-sm w-full fig"
              rows={8}
              placeholder={'part,colour,qty\nbrick 2x4,Slate,120'}
              value={text}
              onChange={(event) => setText(event.currentTarget.value)}
            />
          </label>
          <button
            type="button"
            className="btn btn-xs justify-self-start"
            disabled={text.trim() === ''}
            onClick={() => void open(text, 'Pasted list')}
          >
            Read it
          </button>
        </div>
      )}
      {table && read && (
        <>
          <p className="pb-1">
            <b>{table.name}</b>: {counted(read.rows, 'row')} {read.rows === 1 ? 'makes' : 'make'}{' '}
            {counted(read.lines.length, 'line')} of{' '}
            {read.lines.reduce((sum, { qty }) => sum + qty, 0).toLocaleString('en')} pieces.{' '}
            {read.bad.length > 0 && (
              <span className="text-error">
                {counted(read.bad.length, 'row')} {read.bad.length === 1 ? 'is' : 'are'} left out.
              </span>
            )}
          </p>
          <div className="overflow-x-auto">
            <table className="text-xs border-collapse mb-2">
              <caption className="sr-only">The first rows, with what each column says</caption>
              <thead>
                <tr>
                  {table.rows[0].map((head, i) => (
                    <th key={i} scope="col" className="text-left pr-2 font-normal">
                      <span className="block ink-2 truncate max-w-36">{head}</span>
                      <select
                        aria-label={`What the column ${head} says`}
                        className="select select-xs w-28"
                        value={columns[i] ?? 'none'}
                        onChange={(event) => {
                          const use = COLUMN_USES.find((one) => one === event.currentTarget.value) ?? 'none';
                          setColumns(
                            table.rows[0].map((_, k) =>
                              k === i
                                ? use
                                : columns[k] === use && use !== 'none'
                                  ? 'none'
                                  : (columns[k] ?? 'none'),
                            ),
                          );
                        }}
                      >
                        {COLUMN_USES.map((use) => (
                          <option key={use} value={use}>
                            {USES[use]}
                          </option>
                        ))}
                      </select>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {table.rows.slice(1, 5).map((row, i) => (
                  <tr key={i} className="border-b hair">
                    {table.rows[0].map((_, k) => (
                      <td key={k} className="pr-2 max-w-36 truncate">
                        {row[k]}
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {(read.unknown.length > 0 || taught.size > 0) && (
            <Words
              unknown={read.unknown}
              taught={taught}
              onTeach={(word, means) => {
                const next = new Map(taught);
                if (means === '') next.delete(aliasKey(word.about, word.word));
                else next.set(aliasKey(word.about, word.word), { about: word.about, word: word.word, means });
                setTaught(next);
              }}
            />
          )}
          {read.bad.length > 0 && (
            <details className="text-xs py-1">
              <summary className="cursor-pointer text-error">Rows that are left out, and why</summary>
              <ul className="max-h-40 overflow-auto">
                {read.bad.slice(0, 500).map(({ row, reason }) => (
                  <li key={row} className="border-b hair">
                    row <span className="fig">{row}</span>: {reason}
                  </li>
                ))}
                {read.bad.length > 500 && <li>and {read.bad.length - 500} more</li>}
              </ul>
            </details>
          )}
          <div className="flex flex-wrap items-end gap-2 pt-2">
            <label>
              <span className="block ink-2 text-xs">Take it as</span>
              <select
                className="select select-xs w-48"
                value={into}
                onChange={(event) =>
                  setInto(
                    event.currentTarget.value === 'kit'
                      ? 'kit'
                      : event.currentTarget.value === 'stock'
                        ? 'stock'
                        : 'need',
                  )
                }
              >
                {(['need', 'kit', 'stock'] as const).map((one) => (
                  <option key={one} value={one}>
                    {INTO[one]}
                  </option>
                ))}
              </select>
            </label>
            {into !== 'stock' && (
              <label>
                <span className="block ink-2 text-xs">Called</span>
                <input
                  className="input input-xs w-44"
                  maxLength={80}
                  value={name}
                  onChange={(event) => setName(event.currentTarget.value)}
                />
              </label>
            )}
            {into === 'need' && (
              <label>
                <span className="block ink-2 text-xs">For section</span>
                <select
                  className="select select-xs w-40"
                  value={section}
                  onChange={(event) => setSection(event.currentTarget.value)}
                >
                  <option value="">none</option>
                  {listOf(scene, 'section').map(({ id, letter, name: word }) => (
                    <option key={id} value={id}>
                      {letter}, {word}
                    </option>
                  ))}
                </select>
              </label>
            )}
            <button
              type="button"
              className="btn btn-xs btn-primary"
              disabled={read.lines.length === 0 || read.lines.length > most}
              onClick={take}
            >
              Take {counted(read.lines.length, 'line')}
            </button>
            <button type="button" className="btn btn-xs btn-ghost" onClick={() => setTable(null)}>
              Another list
            </button>
          </div>
          {read.lines.length > most && (
            <p className="text-error text-xs">
              {read.lines.length.toLocaleString('en')} lines; {INTO[into]} take at most{' '}
              {most.toLocaleString('en')} at once.
            </p>
          )}
        </>
      )}
    </section>
  );
}

/** Words nobody knows yet: say what they mean once, and every later list is read with it. */
function Words({
  unknown,
  taught,
  onTeach,
}: {
  unknown: readonly UnknownWord[];
  taught: ReadonlyMap<string, { about: 'part' | 'colour'; word: string; means: string }>;
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
              {one.about} «{one.word}»
              {one.rows !== null && <span className="ink-2"> on {counted(one.rows, 'row')}</span>}
            </span>
            {one.offers.map((id) => (
              <button key={id} type="button" className="btn btn-xs" onClick={() => onTeach(one, id)}>
                <Swatch colour={id} /> {colourName(id)}
              </button>
            ))}
            <select
              aria-label={`What ${one.about} «${one.word}» means`}
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
