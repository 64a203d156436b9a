import { Command } from 'cmdk';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { centreOf } from '@quarry/core/grid';
import { KINDS, labelOf, listOf, type Kind } from '@quarry/core/document';
import { VENUE_KINDS } from '@quarry/core/venue';
import { useDisplay, useLink } from '../data/useDisplay.tsx';
import { useView } from '../data/view.ts';
import { useDerived } from '../workers/derived.tsx';
import { PAGES } from './pages.ts';

const THINGS = [
  'section',
  'module',
  'plot',
  'pad',
  'footprint',
  ...VENUE_KINDS,
] as const satisfies readonly Kind[];

/** Things that are shown on the Survey rather than on the Plan. */
const inRoom = (kind: Kind): boolean => VENUE_KINDS.some((one) => one === kind);

/** Sheets within the Brief. */
const SHEETS = [
  { word: 'Scale workbench', at: 'brief?sheet=scale' },
  { word: 'Space budget and vehicles', at: 'brief?sheet=space' },
  { word: 'Dates and people', at: 'brief?sheet=dates' },
] as const;

/** How many things of one kind the finder shows at once. */
const MAX_OF_A_KIND = 40;

/** Find or do anything: pages, acts, things of the scene and findings, by typing. */
export function Finder({
  open,
  onClose,
  onKeys,
  onFindings,
}: {
  open: boolean;
  onClose: () => void;
  onKeys: () => void;
  onFindings: () => void;
}) {
  const navigate = useNavigate();
  const link = useLink();
  const scene = useDisplay(({ scene }) => scene);
  const canUndo = useDisplay(({ canUndo }) => canUndo);
  const canRedo = useDisplay(({ canRedo }) => canRedo);
  const judgement = useDerived(({ judgement }) => judgement);
  const view = useView();
  const [search, setSearch] = useState('');
  const base = `/d/${link.id}`;
  // Thousands of things are narrowed down here, so that the list itself stays short.
  const word = search.trim().toLowerCase();
  const things = (open ? THINGS : []).flatMap((kind) =>
    listOf(scene, kind)
      .map((thing) => ({
        kind,
        id: thing.id,
        label: labelOf(scene, kind, thing.id),
        place: 'w' in thing && !inRoom(kind) ? centreOf(thing) : null,
      }))
      .filter(({ label }) => word === '' || `${KINDS[kind].word} ${label}`.toLowerCase().includes(word))
      .slice(0, MAX_OF_A_KIND),
  );
  const act = (run: () => void) => () => {
    onClose();
    run();
  };
  const show = (kind: Kind, id: string, place: { x: number; y: number } | null) => {
    view.show(place, { kind, id });
    void navigate(`${base}/${inRoom(kind) ? 'survey' : 'plan'}`);
  };
  const item = 'px-3 py-1.5 flex justify-between gap-4 cursor-pointer data-[selected=true]:bg-base-300';
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(next) => !next && onClose()}
      label="Find or do anything"
      overlayClassName="fixed inset-0 bg-black/30 z-40"
      contentClassName="fixed z-50 top-20 left-1/2 -translate-x-1/2 w-[34rem] max-w-[95vw] bg-base-100 border hair"
    >
      <Command.Input
        value={search}
        onValueChange={setSearch}
        placeholder="A page, a plot, a section, an act …"
        className="w-full px-3 py-2 bg-transparent border-b hair outline-none text-sm"
      />
      <Command.List className="max-h-96 overflow-auto pb-2">
        <Command.Empty className="px-3 py-3 ink-2">Nothing is called that.</Command.Empty>
        <Command.Group heading={<GroupName>Go to</GroupName>}>
          {PAGES.map(({ id, word, key, question }) => (
            <Command.Item
              key={id}
              value={`go ${word}`}
              className={item}
              onSelect={act(() => void navigate(`${base}/${id}`))}
            >
              <span>
                {word} <span className="ink-2">{question}</span>
              </span>
              <kbd className="fig ink-2">g {key}</kbd>
            </Command.Item>
          ))}
          {SHEETS.map(({ word: sheet, at }) => (
            <Command.Item
              key={at}
              value={`go ${sheet}`}
              className={item}
              onSelect={act(() => void navigate(`${base}/${at}`))}
            >
              {sheet}
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading={<GroupName>Do</GroupName>}>
          {canUndo && (
            <Command.Item className={item} value="undo" onSelect={act(() => link.undo())}>
              Undo: {canUndo}
            </Command.Item>
          )}
          {canRedo && (
            <Command.Item className={item} value="redo" onSelect={act(() => link.redo())}>
              Redo: {canRedo}
            </Command.Item>
          )}
          <Command.Item className={item} value="open findings list" onSelect={act(onFindings)}>
            Open the findings
          </Command.Item>
          <Command.Item
            className={item}
            value="theme night shift day sheet"
            onSelect={act(() => view.setTheme(view.theme === 'day' ? 'night' : 'day'))}
          >
            Switch to {view.theme === 'day' ? 'night shift' : 'day sheet'}
          </Command.Item>
          <Command.Item
            className={item}
            value="units millimetres inches"
            onSelect={act(() => view.setMetric(view.metric === 'mm' ? 'in' : 'mm'))}
          >
            Show {view.metric === 'mm' ? 'inches' : 'millimetres'} beside studs
          </Command.Item>
          <Command.Item className={item} value="keys shortcuts help" onSelect={act(onKeys)}>
            List the keys
          </Command.Item>
        </Command.Group>
        <Command.Group heading={<GroupName>In the scene</GroupName>}>
          {things.map(({ kind, id, label, place }) => (
            <Command.Item
              key={`${kind} ${id}`}
              value={`${KINDS[kind].word} ${label} ${id}`}
              className={item}
              onSelect={act(() => show(kind, id, place))}
            >
              <span>{label}</span>
              <span className="ink-2">{KINDS[kind].word}</span>
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading={<GroupName>Findings</GroupName>}>
          {judgement?.findings.map((finding) => (
            <Command.Item
              key={finding.key}
              value={`finding ${finding.sentence}`}
              className={item}
              onSelect={act(() => {
                view.show(finding.place, finding.things[0] ?? null);
                void navigate(`${base}/${finding.place ? 'plan' : finding.page}`);
              })}
            >
              {finding.sentence}
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}

function GroupName({ children }: { children: string }) {
  return <span className="block px-3 pt-2 pb-1 text-xs ink-2">{children}</span>;
}
