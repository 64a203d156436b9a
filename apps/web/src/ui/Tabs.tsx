import type { KeyboardEvent, ReactNode } from 'react';

interface Tab<T extends string> {
  id: T;
  word: ReactNode;
}

/** Filled in a bar over a board, or underlined over what they open. */
const LOOKS = {
  bar: {
    list: 'flex items-center gap-0.5',
    tab: 'px-2.5 h-7 rounded-[3px] whitespace-nowrap cursor-pointer',
    on: 'bg-base-content text-base-100',
    off: 'hover:bg-base-200',
  },
  line: {
    list: 'flex',
    tab: 'h-9 border-b-2 whitespace-nowrap cursor-pointer',
    on: 'border-primary font-semibold',
    off: 'border-transparent ink-2 hover:text-base-content',
  },
} as const;

/** Tabs of which one is open; the arrow keys go from one to the next. */
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
  const move = (event: KeyboardEvent<HTMLDivElement>) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const at = tabs.findIndex(({ id }) => id === open);
    const next = (at + by + tabs.length) % tabs.length;
    onOpen(tabs[next].id);
    const button = event.currentTarget.children[next];
    if (button instanceof HTMLElement) button.focus();
  };
  return (
    <div role="tablist" aria-label={label} className={`${list} ${className}`} onKeyDown={move}>
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
  );
}
