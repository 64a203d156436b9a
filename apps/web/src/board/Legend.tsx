import { useEffect, useRef, useState } from 'react';
import { GROUNDS, listOf, type Ground, type Scene } from '@quarry/core/document';
import type { Relief } from '@quarry/core/terrain';
import { HATCH_SCALE, groundTint, hatchOf, type Palette } from './palette.ts';
import { capital } from '../ui/words.ts';

/** Size of a swatch, px. */
const SWATCH = { w: 34, h: 18 };

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

/** Only what this scene has. */
function LegendLines({ scene, relief, palette }: LegendProps) {
  const grounds = relief ? groundsIn(relief) : [];
  const lines: { word: string; draw: (ctx: CanvasRenderingContext2D) => void; shown: boolean }[] = [
    {
      word: 'contour, each brick; heavy each five',
      shown: grounds.length > 0,
      draw: (ctx) => {
        stroke(ctx, palette.contour, 0.8, [], 6);
        stroke(ctx, palette.contour, 1.6, [], 12);
      },
    },
    {
      word: 'border of a section, its letter in a ring',
      shown: listOf(scene, 'section').length > 0,
      draw: (ctx) => stroke(ctx, palette.ink, 1, [2, 3]),
    },
    {
      word: 'cut between modules, name in a flag',
      shown: listOf(scene, 'module').length > 0,
      draw: (ctx) => stroke(ctx, palette.iron, 1.4, [12, 4, 2, 4]),
    },
    {
      word: 'line of the section cut',
      shown: true,
      draw: (ctx) => stroke(ctx, palette.ink, 1, [6, 4]),
    },
  ];
  return (
    <div className="absolute bottom-full left-0 mb-1 border hair bg-base-100 p-2 w-64 max-h-[60vh] overflow-auto z-10">
      <ul className="grid grid-cols-2 gap-x-2 gap-y-1">
        {grounds.map((ground) => (
          <li key={ground} className="flex items-center gap-1.5">
            <Swatch draw={(ctx) => fillGround(ctx, ground, palette)} />
            {capital(ground)}
          </li>
        ))}
      </ul>
      <ul className="pt-2 flex flex-col gap-1">
        {lines
          .filter(({ shown }) => shown)
          .map(({ word, draw }) => (
            <li key={word} className="flex items-center gap-1.5">
              <Swatch draw={draw} />
              {word}
            </li>
          ))}
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

/** Grounds that a relief has, in their own order. */
function groundsIn({ ground }: Relief): Ground[] {
  const seen = new Set<number>(ground);
  return GROUNDS.filter((_, code) => seen.has(code));
}

function Swatch({ draw }: { draw: (ctx: CanvasRenderingContext2D) => void }) {
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

function fillGround(ctx: CanvasRenderingContext2D, ground: Ground, palette: Palette): void {
  ctx.fillStyle = groundTint(palette, ground) ?? palette.tints[0];
  ctx.fillRect(0, 0, SWATCH.w, SWATCH.h);
  const pattern = hatchOf(ground, palette);
  if (pattern) {
    pattern.setTransform(new DOMMatrix().scale(HATCH_SCALE));
    ctx.fillStyle = pattern;
    ctx.fillRect(0, 0, SWATCH.w, SWATCH.h);
  }
  ctx.strokeStyle = palette.ink2;
  ctx.strokeRect(0.5, 0.5, SWATCH.w - 1, SWATCH.h - 1);
}

function stroke(
  ctx: CanvasRenderingContext2D,
  ink: string,
  width: number,
  dash: readonly number[],
  y = SWATCH.h / 2,
): void {
  ctx.strokeStyle = ink;
  ctx.lineWidth = width;
  ctx.setLineDash([...dash]);
  ctx.beginPath();
  ctx.moveTo(0, y);
  ctx.lineTo(SWATCH.w, y);
  ctx.stroke();
  ctx.setLineDash([]);
}
