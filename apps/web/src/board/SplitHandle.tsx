import type { KeyboardEvent, PointerEvent } from 'react';
import { MoveHorizontal } from 'lucide-react';

/** How far an arrow key moves the border, share of the width. */
const STEP = 0.02;
const clamp = (share: number) => Math.min(1, Math.max(0, share));

/**
 * The border between two pictures of the board, to be drawn along it or moved by arrow keys.
 * @param label what lies left and right of it
 */
export function SplitHandle({
  share,
  onShare,
  label,
}: {
  share: number;
  onShare: (share: number) => void;
  label: string;
}) {
  const drag = (event: PointerEvent<HTMLElement>) => {
    const board = event.currentTarget.parentElement?.getBoundingClientRect();
    if (board && event.currentTarget.hasPointerCapture(event.pointerId))
      onShare(clamp((event.clientX - board.left) / board.width));
  };
  const keyDown = (event: KeyboardEvent) => {
    const to = {
      ArrowLeft: share - STEP,
      ArrowRight: share + STEP,
      Home: 0,
      End: 1,
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onShare(clamp(to));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      aria-valuetext={`${Math.round(share * 100)} % from the left`}
      className="absolute bottom-16 size-11 -translate-x-1/2 rounded-full border-2 border-primary bg-base-100 text-primary grid place-items-center cursor-ew-resize touch-none select-none"
      style={{ left: `clamp(22px, ${share * 100}%, calc(100% - 22px))` }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={drag}
      onKeyDown={keyDown}
    >
      <MoveHorizontal size={18} aria-hidden />
    </div>
  );
}
