import { Moon, Redo2, Search, Sun, Undo2 } from 'lucide-react';
import { type Ref, useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { MM_PER_STUD } from '@quarry/core/grid';
import { displayOf } from '@quarry/core/document';
import { footprintBounds } from '@quarry/core/terrain';
import { capital } from '../ui/words.ts';
import { useDisplay, useLink, useScene } from '../data/useDisplay.tsx';
import { useView } from '../data/view.ts';
import { Dialog } from '../ui/parts.tsx';
import { timeToShow } from '../ui/days.ts';
import { useAtRest } from '../ui/useAtRest.ts';
import { useDerived } from '../workers/useDerived.ts';
import { ConflictDialog, GoneDialog } from './Conflict.tsx';
import { CrewHere, useReportWhereabouts, useUnread } from './CrewHere.tsx';
import { FirstStepsBar } from './FirstStepsBar.tsx';
import { LiveRegion } from './LiveRegion.tsx';
import { ProposalBar } from './ProposalBar.tsx';
import { VersionBar, VersionPicker } from './VersionBar.tsx';
import { countOpen } from './countOpen.ts';
import { PAGES, goKeys, type PageId } from './pages.ts';
import { later } from '../ui/later.tsx';

/** The finder and the list of findings are loaded once the page has come to rest, or when they are asked for before. */
const Finder = later(() => import('./Finder.tsx').then((file) => file.Finder));
const FindingsPanel = later(
  () => import('./Findings.tsx').then((file) => file.FindingsPanel),
  'Opening the findings',
);
const AT_REST = [Finder.load, FindingsPanel.load];

/** The list of keys is loaded with the kinds of the board, whose tools it names. */
const KeyList = later(() => import('./KeyList.tsx').then((module) => module.KeyList), 'Opening');

/** Every letter that goes to a page. */
const LETTERS = ['f', ...PAGES.map(({ key }) => key)].join(', ');
/** In a field in which something is being typed these keys are the field's; in one at rest they are the display's. */
const UNDO_KEYS = {
  preventDefault: true,
  enableOnFormTags: true,
  ignoreEventWhen: ({ target }: KeyboardEvent) =>
    target instanceof HTMLElement && target.matches('input, textarea') && target.dataset.draft !== 'none',
};

/**
 * The frame round every page of a display: rail, top bar, findings, finder, keys and the word about saving.
 * @param onNear somebody is about to open a page: it may be loaded
 */
export function Frame({ onNear }: { onNear: (page: PageId) => void }) {
  const link = useLink();
  const scene = useScene('display');
  const heard = useDisplay(({ heard }) => heard);
  const navigate = useNavigate();
  const [finder, setFinder] = useState(false);
  const [keysOpen, setKeysOpen] = useState(false);
  const findingsOpen = useView((view) => view.findings.open);
  const { openFindings, closeFindings } = useView.getState();
  // The findings of one place of one display are not those of another.
  useEffect(() => closeFindings, [link.id, closeFindings]);
  const findingsButton = useRef<HTMLButtonElement>(null);
  const { pathname } = useLocation();
  const page = PAGES.find(({ id }) => pathname.endsWith(`/${id}`))?.id ?? null;
  useReportWhereabouts(page ?? '');
  const base = `/d/${link.id}`;
  const display = displayOf(scene);
  useEffect(() => {
    document.title = `${display.name} · Open Quarry`;
  }, [display.name]);
  useEffect(() => {
    if (heard) toast(`${heard.author} ${heard.label || 'changed the display'}`, { duration: 2500 });
  }, [heard]);

  useAtRest(AT_REST);
  useHotkeys('mod+k', () => setFinder(true), { preventDefault: true, enableOnFormTags: true });
  useHotkeys('mod+z', () => link.undo(), UNDO_KEYS);
  useHotkeys('mod+shift+z', () => link.redo(), UNDO_KEYS);
  useHotkeys('shift+slash, ?', () => setKeysOpen(true), { useKey: true });
  useHotkeys('g', ({ timeStamp }) => goKeys.arm(timeStamp));
  useHotkeys(LETTERS, ({ key, timeStamp }) => {
    if (!goKeys.takes(timeStamp)) return;
    const letter = key.toLowerCase();
    if (letter === 'f') openFindings();
    const target = PAGES.find((entry) => entry.key === letter);
    if (target) void navigate(`${base}/${target.id}`);
  });

  return (
    <div
      className={`h-dvh grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--top)_minmax(0,1fr)_auto] sm:grid-rows-[var(--top)_minmax(0,1fr)] sm:grid-cols-[112px_minmax(0,1fr)] ${findingsOpen ? 'lg:grid-cols-[112px_minmax(0,1fr)_21rem]' : ''}`}
    >
      <TopBar
        findingsButton={findingsButton}
        onFind={() => setFinder(true)}
        onFindings={() => (findingsOpen ? closeFindings() : openFindings())}
      />
      <PageRail onKeys={() => setKeysOpen(true)} onNear={onNear} />
      <main className="relative min-w-0 min-h-0 overflow-auto flex flex-col">
        <ProposalBar />
        <VersionBar />
        <FirstStepsBar page={page} />
        <div className="flex-1 min-h-0">
          <Outlet />
        </div>
      </main>
      {findingsOpen && (
        <FindingsPanel
          page={page}
          onClose={() => {
            closeFindings();
            findingsButton.current?.focus();
          }}
        />
      )}
      {finder && (
        <Finder
          open={finder}
          onClose={() => setFinder(false)}
          onKeys={() => setKeysOpen(true)}
          onFindings={() => openFindings()}
        />
      )}
      <Dialog title="Keys" open={keysOpen} onClose={() => setKeysOpen(false)}>
        {keysOpen && <KeyList />}
      </Dialog>
      <LiveRegion />
      <ConflictDialog />
      <GoneDialog />
    </div>
  );
}

/** The display, its versions and figures, and what is done from anywhere: find, undo, findings, crew, switches. */
function TopBar({
  findingsButton,
  onFind,
  onFindings,
}: {
  findingsButton: Ref<HTMLButtonElement>;
  onFind: () => void;
  onFindings: () => void;
}) {
  const scene = useScene('display');
  const display = displayOf(scene);
  const findingsOpen = useView((view) => view.findings.open);
  return (
    <header className="sm:col-span-full flex items-center gap-1 sm:gap-2 px-3 bg-base-100 border-b border-base-content min-w-0">
      <Link
        to="/"
        aria-label="All displays"
        className="shrink-0 h-11 w-11 -ml-3 flex items-center justify-center"
      >
        <img src="/mark.svg" alt="" width={20} height={20} />
      </Link>
      <h1 className="font-bold text-base truncate min-w-12 sm:min-w-24 pl-1" title={display.name}>
        {display.name}
      </h1>
      <VersionPicker className="hidden lg:block w-32 shrink-0" />
      <Chips />
      <span className="flex-1" />
      <button
        type="button"
        className="flex items-center gap-2 md:border hair md:bg-base-200 rounded-[3px] px-2 h-7 max-lg:h-11 max-md:w-11 md:w-44 lg:w-52 ink-2 cursor-pointer shrink-0"
        onClick={onFind}
      >
        <Search size={14} aria-hidden className="shrink-0" />
        <span className="flex-1 text-left truncate max-md:sr-only">Find or do anything</span>{' '}
        <kbd aria-hidden className="fig text-[11px] max-lg:hidden">
          Ctrl K
        </kbd>
      </button>
      <UndoRedo />
      <FindingsButton ref={findingsButton} open={findingsOpen} onClick={onFindings} />
      <CrewHere />
      <Switches />
      <Save />
    </header>
  );
}

/** The pages in working order, each with what is found on it. */
function PageRail({ onKeys, onNear }: { onKeys: () => void; onNear: (page: PageId) => void }) {
  const link = useLink();
  const judgement = useDerived(({ judgement }) => judgement);
  const unread = useUnread().size;
  const open = judgement ? judgement.findings.filter(({ accepted }) => !accepted) : [];
  const base = `/d/${link.id}`;
  return (
    <nav
      aria-label="Pages"
      className="order-last sm:order-none bg-base-100 border-t sm:border-t-0 sm:border-r hair flex sm:flex-col sm:py-2 overflow-x-auto"
    >
      {PAGES.map(({ id, word, key }) => {
        const count = open.filter((finding) => finding.page === id);
        const grave = count.some(({ severity }) => severity === 'error');
        return (
          <NavLink
            key={id}
            to={`${base}/${id}`}
            onPointerEnter={() => onNear(id)}
            onFocus={() => onNear(id)}
            className={({ isActive }) =>
              `flex-1 sm:flex-none flex items-center justify-center sm:justify-start gap-1 sm:gap-2 px-px sm:px-3 max-sm:text-[11px] max-sm:tracking-tight h-11 sm:h-8 sm:max-lg:h-11 shrink-0 border-t-3 sm:border-t-0 sm:border-l-3 ${isActive ? 'border-primary bg-base-200 font-semibold' : 'border-transparent hover:bg-base-200'}`
            }
          >
            <kbd aria-hidden className="fig ink-2 text-[11px] w-3 uppercase hidden sm:inline">
              {key}
            </kbd>
            <span className="sm:flex-1">{word}</span>
            {id === 'crew' && unread > 0 && (
              <span className="fig text-xs text-secondary" title={`${unread} advice to read`}>
                {unread}
                <span className="sr-only"> to read</span>
              </span>
            )}
            {count.length > 0 && (
              <span
                className={`fig text-xs hidden sm:inline ${grave ? 'text-error' : 'text-warning'}`}
                title={`${count.length} findings`}
              >
                {count.length}
                <span className="sr-only"> findings</span>
              </span>
            )}
          </NavLink>
        );
      })}
      <span className="hidden sm:block flex-1" />
      <button
        type="button"
        className="hidden sm:block text-left px-3 py-1 ink-2 text-xs link link-hover"
        onClick={onKeys}
      >
        ? for keys
      </button>
    </nav>
  );
}

function Chips() {
  const scene = useScene('display', 'footprint');
  const display = displayOf(scene);
  const bounds = footprintBounds(scene);
  const chips = [
    `${capital(display.kind)} · 1:${display.ratio}`,
    bounds &&
      `${bounds.w} × ${bounds.d} studs · ${((bounds.w * MM_PER_STUD) / 1000).toFixed(2)} × ${((bounds.d * MM_PER_STUD) / 1000).toFixed(2)} m`,
    timeToShow(display.showDate),
  ].filter((chip) => typeof chip === 'string');
  return (
    <div className="hidden lg:flex gap-1.5 min-w-0 overflow-hidden">
      {chips.map((chip) => (
        <span
          key={chip}
          className="border hair rounded-[3px] px-1.5 h-6 flex items-center text-xs ink-2 whitespace-nowrap"
        >
          {chip}
        </span>
      ))}
    </div>
  );
}

const NOTHING_TO_UNDO =
  'Nothing to undo since this display was opened. Older changes are on Crew, under History: each can be taken back there.';

function UndoRedo() {
  const link = useLink();
  const canUndo = useDisplay(({ canUndo }) => canUndo);
  const canRedo = useDisplay(({ canRedo }) => canRedo);
  return (
    <div className="join">
      <button
        type="button"
        className="btn btn-xs btn-ghost btn-square join-item"
        disabled={!canUndo}
        onClick={() => link.undo()}
        aria-label={canUndo ? `Undo: ${canUndo}` : 'Nothing to undo'}
        title={canUndo ? `Undo: ${canUndo}` : NOTHING_TO_UNDO}
      >
        <Undo2 size={14} aria-hidden />
      </button>
      <button
        type="button"
        className="btn btn-xs btn-ghost btn-square join-item"
        disabled={!canRedo}
        onClick={() => link.redo()}
        aria-label={canRedo ? `Redo: ${canRedo}` : 'Nothing to redo'}
        title={canRedo ? `Redo: ${canRedo}` : 'Nothing to redo'}
      >
        <Redo2 size={14} aria-hidden />
      </button>
    </div>
  );
}

function FindingsButton({
  open,
  onClick,
  ref,
}: {
  open: boolean;
  onClick: () => void;
  ref: Ref<HTMLButtonElement>;
}) {
  const judgement = useDerived(({ judgement }) => judgement);
  const error = useDerived(({ error }) => error);
  const count = countOpen(judgement?.findings ?? []);
  const figure = (found: number) => (judgement ? found : error ? '?' : '…');
  return (
    <button
      ref={ref}
      type="button"
      aria-expanded={open}
      onClick={onClick}
      data-findings={`${count.error} ${count.warning} ${count.note}`}
      className="flex border border-base-content rounded-[3px] h-7 max-lg:h-11 items-stretch overflow-hidden cursor-pointer shrink-0"
    >
      <span
        className="bg-error text-error-content fig font-medium px-1.5 flex items-center gap-1"
        title="errors"
      >
        <span aria-hidden>!</span>
        {figure(count.error)}
        <span className="sr-only"> errors, </span>
      </span>
      <span
        className="bg-warning text-warning-content fig font-medium px-1.5 flex items-center gap-1"
        title="warnings"
      >
        <span aria-hidden>△</span>
        {figure(count.warning)}
        <span className="sr-only"> warnings: </span>
      </span>
      <span className="px-2 items-center font-semibold flex max-sm:sr-only">Findings</span>
    </button>
  );
}

function Switches() {
  const view = useView();
  const night = view.theme === 'night';
  return (
    <div className="join hidden sm:flex">
      <button
        type="button"
        className="btn btn-xs btn-ghost join-item fig"
        onClick={() => view.setMetric(view.metric === 'mm' ? 'in' : 'mm')}
        aria-label={`${view.metric} beside studs; show ${view.metric === 'mm' ? 'inches' : 'millimetres'}`}
        title="Millimetres or inches beside studs"
      >
        {view.metric}
      </button>
      <button
        type="button"
        className="btn btn-xs btn-ghost btn-square join-item"
        onClick={() => view.setTheme(night ? 'day' : 'night')}
        aria-label={night ? 'Day sheet' : 'Night shift'}
        title={night ? 'Day sheet' : 'Night shift'}
      >
        {night ? <Sun size={14} aria-hidden /> : <Moon size={14} aria-hidden />}
      </button>
    </div>
  );
}

function Save() {
  const save = useDisplay(({ save }) => save);
  const [words, tone] =
    save.state === 'waiting'
      ? [`${save.count} ${save.count === 1 ? 'change' : 'changes'} waiting`, 'text-warning']
      : save.state === 'saving'
        ? ['Saving', 'ink-2']
        : ['Saved', 'text-success'];
  return (
    <span
      role="status"
      aria-label="Saving"
      className={`${tone} font-semibold text-xs min-w-12 text-right shrink-0 ${save.state === 'waiting' ? '' : 'max-sm:sr-only'}`}
      title={
        save.state === 'waiting'
          ? `${save.why} Your changes are kept in this browser and will be sent.`
          : undefined
      }
    >
      {words}
    </span>
  );
}
