import { Command } from 'cmdk';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { BOARD_LAYERS, useView, type Tool } from '../data/view.ts';
import { recallJson, remember } from '../data/remembered.ts';
import { useDisplay, useLink } from '../data/useDisplay.tsx';
import { TOOLS } from '../board/kinds/index.ts';
import { useDerived } from '../workers/useDerived.ts';
import {
  actEntry,
  entityEntries,
  findEntries,
  findingEntries,
  placeEntries,
  type FinderEntry,
} from './finderEntries.ts';
import { pageOfFinding } from './pages.ts';

const PLACES = placeEntries();
/** How many matches are shown at once. */
const MAX_SHOWN = 60;
/** How many of the last choices are kept, of each display. */
const MAX_RECENT = 6;

const RECENT = 'quarry-recent';
const recentOf = (display: string): string[] => {
  const kept = recallJson(`${RECENT}:${display}`);
  return Array.isArray(kept) ? kept.map(String) : [];
};
const keepRecent = (display: string, id: string) => {
  const list = [id, ...recentOf(display).filter((one) => one !== id)].slice(0, MAX_RECENT);
  remember(`${RECENT}:${display}`, JSON.stringify(list));
};

/** Everything that can be done from the finder, by the name of the act. */
function useActs({ onKeys, onFindings }: { onKeys: () => void; onFindings: () => void }): {
  entries: FinderEntry[];
  run: (act: string) => void;
} {
  const link = useLink();
  const navigate = useNavigate();
  const canUndo = useDisplay(({ canUndo }) => canUndo);
  const canRedo = useDisplay(({ canRedo }) => canRedo);
  const view = useView();
  const goPlan = () => void navigate(`/d/${link.id}/plan`);
  const acts: { entry: FinderEntry; run: () => void }[] = [
    ...(canUndo ? [{ entry: actEntry('undo', `Undo: ${canUndo}`), run: () => link.undo() }] : []),
    ...(canRedo ? [{ entry: actEntry('redo', `Redo: ${canRedo}`), run: () => link.redo() }] : []),
    { entry: actEntry('findings', 'Open the findings', 'errors warnings list'), run: onFindings },
    {
      entry: actEntry(
        'theme',
        `Switch to ${view.theme === 'day' ? 'night shift' : 'day sheet'}`,
        'theme dark light',
      ),
      run: () => view.setTheme(view.theme === 'day' ? 'night' : 'day'),
    },
    {
      entry: actEntry(
        'units',
        `Show ${view.metric === 'mm' ? 'inches' : 'millimetres'} beside studs`,
        'units inches millimetres setting',
      ),
      run: () => view.setMetric(view.metric === 'mm' ? 'in' : 'mm'),
    },
    {
      entry: actEntry('resize', 'Resize the display', 'size width depth footprint scene'),
      run: () => {
        view.pick(null);
        view.setResizing(true);
        goPlan();
      },
    },
    { entry: actEntry('keys', 'List the keys', 'shortcuts help keyboard'), run: onKeys },
    { entry: actEntry('displays', 'All displays', 'home list other display'), run: () => void navigate('/') },
    { entry: actEntry('guide', 'Open the guide', 'help how to example'), run: () => void navigate('/guide') },
    {
      entry: actEntry('account', 'Account', 'password sign out sessions'),
      run: () => void navigate('/account'),
    },
    ...TOOLS.map(({ id, word, key }): { entry: FinderEntry; run: () => void } => ({
      entry: actEntry(`tool ${id}`, word, 'draw tool add', `tool · ${key.toUpperCase()} on the plan`),
      run: () => {
        goPlan();
        take(id);
      },
    })),
    ...BOARD_LAYERS.map((layer) => ({
      entry: actEntry(
        `layer ${layer}`,
        `${view.hidden.has(layer) ? 'Show' : 'Hide'} ${layer} on the plan`,
        'layer switch',
      ),
      run: () => view.toggleLayer(layer),
    })),
  ];
  const take = (tool: Tool) => view.takeTool(tool);
  return {
    entries: acts.map(({ entry }) => entry),
    run: (act) => acts.find(({ entry }) => entry.id === `act ${act}`)?.run(),
  };
}

/** Find or do anything: pages, sheets, acts, tools, every entity by its name, and findings, by typing. */
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
  const findings = useDerived(({ judgement }) => judgement?.findings);
  const { show, pick } = useView.getState();
  const acts = useActs({ onKeys, onFindings });
  const [search, setSearch] = useState('');
  const base = `/d/${link.id}`;
  const things = useMemo(
    () => (open ? [...entityEntries(scene), ...findingEntries(findings ?? [])] : []),
    [open, scene, findings],
  );
  const all = [...PLACES, ...acts.entries, ...things];
  const recent = recentOf(link.id).flatMap((id) => all.find((entry) => entry.id === id) ?? []);
  const found =
    search.trim() === ''
      ? [
          ...recent.map((entry) => ({ entry, group: 'Recent' })),
          ...[...PLACES.filter(({ id }) => id.startsWith('page ')), ...acts.entries]
            .filter(({ id }) => !recent.some((one) => one.id === id))
            .map((entry) => ({ entry, group: 'Go to, or do' })),
        ]
      : findEntries(all, search, MAX_SHOWN).map((entry) => ({ entry, group: '' }));
  const go = (entry: FinderEntry) => {
    keepRecent(link.id, entry.id);
    setSearch('');
    onClose();
    const { target } = entry;
    if (target.to === 'act') return acts.run(target.act);
    if (target.to === 'page') {
      // A sheet is not hidden behind what was picked before.
      pick(null);
      return void navigate(`${base}/${target.path}`);
    }
    if (target.to === 'entity') {
      show(target.place, { kind: target.kind, id: target.id });
      return void navigate(`${base}/${target.board}`);
    }
    const { place, things: named } = target.finding;
    show(place, named[0] ?? null);
    void navigate(`${base}/${pageOfFinding(target.finding)}`);
  };
  const groups = [...new Set(found.map(({ group }) => group))];
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(next) => !next && onClose()}
      label="Find or do anything"
      shouldFilter={false}
      overlayClassName="fixed inset-0 bg-black/30 z-40"
      contentClassName="fixed z-50 top-20 left-1/2 -translate-x-1/2 w-[34rem] max-w-[95vw] bg-base-100 border hair"
    >
      <Command.Input
        value={search}
        onValueChange={setSearch}
        placeholder="A page, a name, a tool, an act …"
        className="w-full px-3 py-2 bg-transparent border-b hair outline-none text-sm"
      />
      <Command.List className="max-h-96 overflow-auto pb-2">
        {found.length === 0 && (
          <p role="status" className="px-3 py-3 ink-2">
            Nothing here has “{search.trim()}” in its name.
          </p>
        )}
        {groups.map((group) => (
          <Command.Group
            key={group}
            heading={group && <span className="block px-3 pt-2 pb-1 text-xs ink-2">{group}</span>}
          >
            {found
              .filter((one) => one.group === group)
              .map(({ entry }) => (
                <Command.Item
                  key={entry.id}
                  value={entry.id}
                  className="px-3 py-1.5 flex justify-between gap-4 cursor-pointer data-[selected=true]:bg-base-300"
                  onSelect={() => go(entry)}
                >
                  <span className="min-w-0 truncate" title={entry.label}>
                    {entry.label}
                  </span>
                  <span className="ink-2 whitespace-nowrap">{entry.note}</span>
                </Command.Item>
              ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
