import { Printer } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { fileName } from '@quarry/core/formats';
import { findsOf, storyOf, totalsOf, type Total } from '@quarry/core/history';
import { displayOf, type Scene } from '@quarry/core/document';
import { api } from '../../data/api.ts';
import { useDisplay, useLink, useScene } from '../../data/useDisplay.tsx';
import { save } from '../../ui/save.ts';
import { Basis, DefinitionRow, Heading } from '../../ui/parts.tsx';
import { usePaper } from '../../data/sheets.ts';
import { useDerived } from '../../workers/useDerived.ts';

type ToldScene = Parameters<typeof totalsOf>[0] & Pick<Scene, 'version'>;

/** What visitors are told: the numbers, the story, and what they may look for; printed as their guide. */
export function VisitorsPart() {
  const scene = useScene<keyof ToldScene>(
    'character',
    'figure',
    'plot',
    'hill',
    'module',
    'person',
    'session',
    'way',
    'track',
  );
  const version = useDisplay(({ version: shown }) => shown?.id ?? null);
  const pieces = useDerived(({ materials }) =>
    materials ? materials.needs.reduce((sum, { qty }) => sum + qty, 0) : null,
  );
  const totals = totalsOf(scene, pieces);
  const finds = findsOf(scene);
  return (
    <section aria-labelledby="visitors" className="pt-4">
      <Heading id="visitors" aside={version === null ? undefined : scene.version[version]?.name}>
        For visitors
      </Heading>
      <dl>
        {totals.map((total) => (
          <DefinitionRow key={total.word} label={total.word}>
            {numberOf(total)}
          </DefinitionRow>
        ))}
      </dl>
      {finds.length > 0 && (
        <>
          <Heading>What they may look for</Heading>
          <ul>
            {finds.map(({ word, count, where }) => (
              <li key={word} className="border-b hair py-1">
                <b className="fig">{count}</b> {word}{' '}
                <span className="ink-2 text-xs">in {where.join(', ')}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="pt-2">
        <PrintButton scene={scene} totals={totals} />
      </p>
      <Basis>
        Small scenes with a number are the story, in that order; names of characters are told where the public
        may read them. What is looked for is counted of characters that are in hand and in a scene. The public
        page tells the same{pieces === null ? '; pieces are told once they are counted' : ''}.
      </Basis>
    </section>
  );
}

const numberOf = ({ count, unit }: Total): string => `${count.toLocaleString('en')}${unit ? ` ${unit}` : ''}`;

function PrintButton({ scene, totals }: { scene: ToldScene; totals: readonly Total[] }) {
  const { id } = useLink();
  const paper = usePaper();
  const [isBusy, setBusy] = useState(false);
  const print = async () => {
    setBusy(true);
    const title = 'Visitors’ guide';
    try {
      save(
        await api.lists(id, { title, sections: guideLists(scene, totals) }, paper),
        fileName([displayOf(scene).name, title], 'pdf'),
      );
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <button type="button" className="btn btn-xs bg-base-100" disabled={isBusy} onClick={() => void print()}>
      <Printer size={12} aria-hidden /> Print the visitors’ guide
    </button>
  );
}

/** The guide as lists: the story, what to find with boxes to tick, and the numbers. */
function guideLists(scene: ToldScene, totals: readonly Total[]) {
  const story = storyOf(scene);
  const finds = findsOf(scene);
  return [
    {
      ...{ head: 'The story', note: '', tick: false },
      columns: [
        { head: '', share: 6, align: 'right' as const },
        { head: '', share: 40 },
        { head: '', share: 90 },
      ],
      rows: story.map(({ order, name, story: text, cast }) => [
        String(order),
        name,
        [text, cast.length > 0 ? `With ${cast.join(', ')}.` : ''].filter(Boolean).join(' '),
      ]),
    },
    {
      ...{ head: 'Can you find them?', note: 'Tick what you have found.', tick: true },
      columns: [
        { head: '', share: 10, align: 'right' as const },
        { head: '', share: 90 },
      ],
      rows: finds.map(({ word, count }) => [String(count), word]),
    },
    {
      ...{ head: 'In numbers', note: '', tick: false },
      columns: [
        { head: '', share: 25, align: 'right' as const },
        { head: '', share: 75 },
      ],
      rows: totals.map((total) => [numberOf(total), total.word]),
    },
  ].filter(({ rows }) => rows.length > 0);
}
