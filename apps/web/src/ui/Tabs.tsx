import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useRef, useState, type KeyboardEvent, type ReactNode, type RefObject } from 'react';

interface Tab<T extends string> {
  id: T;
  word: ReactNode;
}

/** Filled in a bar over a board, or underlined over what they open. */
const LOOKS = {
  bar: {
    list: 'flex items-center gap-0.5',
    tab: 'px-2.5 h-7 shrink-0 rounded-[3px] whitespace-nowrap cursor-pointer',
    on: 'bg-base-content text-base-100',
    off: 'hover:bg-base-200',
  },
  line: {
    list: 'flex gap-1 grow',
    tab: 'h-9 shrink-0 border-b-2 whitespace-nowrap cursor-pointer',
    on: 'border-primary font-semibold',
    off: 'border-transparent ink-2 hover:text-base-content',
  },
} as const;

/** Tabs of which one is open; the arrow keys go from one to the next. What does not fit is a press away. */
export function Tabs<T extends string>({
  label,
  tabs,
  open,
  onOpen,
  look,
  className = '',
  each = '',
}: {
  label: string;
  tabs: readonly Tab<T>[];
  open: T | null;
  onOpen: (id: T) => void;
  look: keyof typeof LOOKS;
  className?: string;
  /** Classes of each tab besides. */
  each?: string;
}) {
  const { list, tab, on, off } = LOOKS[look];
  const strip = useRef<HTMLDivElement>(null);
  const { before, after } = useOverflow(strip);
  // Both have their room while there is more on either side: pressing one moves no tab from under a finger.
  const overflows = before || after;
  const at = tabs.findIndex(({ id }) => id === open);
  useEffect(() => {
    strip.current?.children[at]?.scrollIntoView({ inline: 'nearest', block: 'nearest' });
  }, [at]);
  const move = (event: KeyboardEvent<HTMLDivElement>) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = (at + by + tabs.length) % tabs.length;
    const tab = tabs[next];
    if (!tab) return;
    onOpen(tab.id);
    const button = event.currentTarget.children[next];
    if (button instanceof HTMLElement) button.focus();
  };
  const further = (way: 1 | -1) =>
    strip.current?.scrollBy({ left: way * SCROLLED * strip.current.clientWidth });
  return (
    <div className={`flex min-w-0 items-stretch ${className}`}>
      {overflows && <MoreTabs way={-1} there={before} onClick={() => further(-1)} />}
      <div
        ref={strip}
        role="tablist"
        aria-label={label}
        className={`${list} min-w-0 overflow-x-auto [scrollbar-width:none]`}
        onKeyDown={move}
      >
        {tabs.map(({ id, word }) => (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={id === open}
            className={`${tab} ${each} ${id === open ? on : off}`}
            onClick={() => onOpen(id)}
          >
            {word}
          </button>
        ))}
      </div>
      {overflows && <MoreTabs way={1} there={after} onClick={() => further(1)} />}
    </div>
  );
}

/** Share of the strip that one press goes on. */
const SCROLLED = 0.7;

/** There are more tabs on this side. For the eye and the finger: keys and screen readers reach all tabs anyway. */
const MoreTabs = ({ way, there, onClick }: { way: 1 | -1; there: boolean; onClick: () => void }) => (
  <button
    type="button"
    tabIndex={-1}
    aria-hidden
    className={`shrink-0 w-6 max-lg:w-11 flex items-center justify-center text-secondary cursor-pointer ${there ? '' : 'invisible'}`}
    onClick={onClick}
  >
    {way < 0 ? <ChevronLeft size={16} /> : <ChevronRight size={16} />}
  </button>
);

/** Whether a strip goes on beyond its ends. */
function useOverflow(strip: RefObject<HTMLElement | null>): { before: boolean; after: boolean } {
  const [state, setState] = useState({ before: false, after: false });
  useEffect(() => {
    const element = strip.current;
    if (!element) return;
    const look = () => {
      const { scrollLeft, scrollWidth, clientWidth } = element;
      const next = { before: scrollLeft > 1, after: scrollLeft + clientWidth < scrollWidth - 1 };
      setState((now) => (now.before === next.before && now.after === next.after ? now : next));
    };
    const sizes = new ResizeObserver(look);
    sizes.observe(element);
    element.addEventListener('scroll', look, { passive: true });
    look();
    return () => {
      sizes.disconnect();
      element.removeEventListener('scroll', look);
    };
  }, [strip]);
  return state;
}
