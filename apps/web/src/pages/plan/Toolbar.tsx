import { ChevronDown, Layers } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { useDisplay } from '../../data/useDisplay.tsx';
import { BOARD_LAYERS, useView, type Tool } from '../../data/view.ts';
import { focusBoard } from '../../board/boardKeys.ts';
import { TOOLS } from '../../board/kinds/index.ts';
import { capital } from '../../ui/words.ts';

/** Tools that change nothing. */
const LOOKING: readonly Tool[] = ['pick', 'measure', 'profile'];
/** The plan's tools, its layers with their legend, and what comes in and goes out. */
export function Toolbar({
  forbids,
  children,
}: {
  /** Why one may not plan; null when one may. */
  forbids: string | null;
  children: ReactNode;
}) {
  const { role } = useDisplay(({ actor }) => actor);
  const { tool, takeTool, hidden, toggleLayer } = useView();
  // The hand goes back to the board, where the keys act.
  const take = (id: Tool) => {
    takeTool(id);
    focusBoard();
  };
  const isDisabled = (id: Tool, planners: boolean) =>
    !LOOKING.includes(id) && (planners ? forbids !== null : role === 'viewer');
  const less = TOOLS.filter(({ more }) => more);
  const inMore = less.find(({ id }) => id === tool);
  return (
    <div
      className="flex max-md:flex-wrap items-center gap-0.5 px-2 min-h-9 bg-base-100 border-b hair"
      role="toolbar"
      aria-label="Plan tools"
    >
      <div className="flex items-center gap-0.5 overflow-x-auto min-w-0 max-md:basis-full">
        {TOOLS.filter(({ more }) => !more).map(({ id, word, key, planners = false }) => (
          <button
            key={id}
            type="button"
            aria-pressed={tool === id}
            disabled={isDisabled(id, planners)}
            onClick={() => take(id)}
            className={`btn btn-xs h-7 px-1.5 font-semibold ${tool === id ? 'btn-neutral' : 'btn-ghost'}`}
            aria-keyshortcuts={key}
          >
            {word} <kbd className="fig font-normal text-[10px] uppercase opacity-80">{key}</kbd>
          </button>
        ))}
      </div>
      <Menu label={inMore ? inMore.word : 'More'} name="More tools" pressed={inMore !== undefined}>
        {(close) =>
          less.map(({ id, word, key, planners = false }) => (
            <button
              key={id}
              type="button"
              disabled={isDisabled(id, planners)}
              aria-pressed={tool === id}
              className="btn btn-xs btn-ghost justify-between font-normal w-full"
              onClick={() => {
                close();
                take(id);
              }}
            >
              {word} <kbd className="fig text-[10px] uppercase ink-2">{key}</kbd>
            </button>
          ))
        }
      </Menu>
      <span className="flex-1" />
      {forbids && (
        <span className="ink-2 text-xs px-2 truncate min-w-0" title={forbids}>
          {forbids}
        </span>
      )}
      <Menu
        name="Layers"
        end
        label={
          <>
            <Layers size={13} aria-hidden /> Layers{' '}
            {hidden.size > 0 && `${BOARD_LAYERS.length - hidden.size} of ${BOARD_LAYERS.length}`}
          </>
        }
      >
        {() =>
          BOARD_LAYERS.map((layer) => (
            <label key={layer} className="flex items-center gap-2 px-2 py-0.5 cursor-pointer">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={!hidden.has(layer)}
                onChange={() => toggleLayer(layer)}
              />
              <span className="w-16">{capital(layer)}</span>
              <span className="ink-2 text-[11px] whitespace-nowrap">{LEGEND[layer]}</span>
            </label>
          ))
        }
      </Menu>
      {children}
    </div>
  );
}

/** How each layer is drawn, for those who read the sheet. */
const LEGEND: Record<(typeof BOARD_LAYERS)[number], string> = {
  tables: 'grey under the scene, with name and height',
  pictures: 'faded, to draw after',
  ground: 'ticks grass, chevrons rock, waves water',
  contours: 'each brick, a heavy one each five',
  ways: 'dashed middle, sleepers for track',
  plots: 'double walls with name and height',
  dressing: 'crowns, walls, repeats, casts in circles',
  power: 'rays a light, bar a motor, + − a supply',
  signs: 'ochre markers, hatched reserves, notes',
  sections: 'dotted, a letter in a circle',
  modules: 'long dash and dot, name in a flag',
  findings: '! error, △ warning',
};

/** A button that opens a small panel; it closes with Escape, a click elsewhere, or when something in it is done. */
export function Menu({
  label,
  name,
  worded = true,
  pressed = false,
  end = false,
  children,
}: {
  label: ReactNode;
  name: string;
  /** Accessible label of the menu. */
  worded?: boolean;
  pressed?: boolean;
  end?: boolean;
  children: (close: () => void) => ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <details
      className="relative shrink-0"
      onToggle={(event) => setOpen(event.currentTarget.open)}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.currentTarget.open = false;
        event.currentTarget.querySelector('summary')?.focus();
      }}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) event.currentTarget.open = false;
      }}
    >
      <summary
        aria-label={worded ? undefined : name}
        title={name}
        className={`btn btn-xs h-7 px-1.5 list-none ${pressed ? 'btn-neutral' : 'btn-ghost'}`}
      >
        {label} <ChevronDown size={11} aria-hidden />
      </summary>
      {/* Focus stays inside while something in the panel is pressed. */}
      <div
        tabIndex={-1}
        className={`absolute z-20 mt-1 ${end ? 'right-0' : 'left-0'} min-w-44 max-h-[70vh] overflow-auto border hair bg-base-100 p-1`}
      >
        {open && children(closeMenu)}
      </div>
    </details>
  );
}

/** Closes the panel that has the focus. */
function closeMenu(): void {
  const open = document.activeElement?.closest('details');
  if (open) open.open = false;
}
