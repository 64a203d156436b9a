import { useEffect, useRef, useState } from 'react';
import type { Scene } from '@quarry/core/document';
import type { Relief } from '@quarry/core/terrain';
import { SWATCH, cutEntry, legendEntries, type LegendEntry } from './legendEntries.ts';
import type { Palette } from './palette.ts';

interface LegendProps {
  scene: Scene;
  relief: Relief | null;
  palette: Palette;
}

/** What hatches and lines of the plan mean, one press away; worked out while it is open only. */
export function Legend(props: LegendProps) {
  const [open, setOpen] = useState(false);
  return (
    <details
      className="absolute left-7 bottom-7 text-xs"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="btn btn-xs bg-base-100 border hair list-none">Key</summary>
      {open && <LegendLines {...props} />}
    </details>
  );
}

function LegendLines({ scene, relief, palette }: LegendProps) {
  const entries = [...legendEntries(scene, relief, palette), cutEntry(palette)];
  return (
    <div className="absolute bottom-full left-0 mb-1 border hair bg-base-100 p-2 w-64 max-h-[60vh] overflow-auto z-10">
      <ul className="grid grid-cols-2 gap-x-2 gap-y-1">
        {entries.filter(({ kind }) => kind === 'ground').map(entryItem)}
      </ul>
      <ul className="pt-2 flex flex-col gap-1">
        {entries.filter(({ kind }) => kind === 'line').map(entryItem)}
        <li className="flex items-center gap-1.5">
          <span className="fig w-[34px] text-center">6b2p</span>
          spot height: 6 bricks and 2 plates
        </li>
        <li className="flex items-center gap-1.5">
          <span className="w-[34px] text-center font-bold">
            <span className="text-error">!</span> <span className="text-warning">△</span>
          </span>
          findings: error, warning; press one to read it
        </li>
      </ul>
    </div>
  );
}

const entryItem = ({ word, draw }: LegendEntry) => (
  <li key={word} className="flex items-center gap-1.5">
    <Swatch draw={draw} />
    {word}
  </li>
);

function Swatch({ draw }: { draw: LegendEntry['draw'] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx) return;
    ctx.setTransform(2, 0, 0, 2, 0, 0);
    ctx.clearRect(0, 0, SWATCH.w, SWATCH.h);
    draw(ctx);
  });
  return (
    <canvas
      ref={canvas}
      width={2 * SWATCH.w}
      height={2 * SWATCH.h}
      style={{ width: SWATCH.w, height: SWATCH.h }}
      className="shrink-0"
      aria-hidden
    />
  );
}
