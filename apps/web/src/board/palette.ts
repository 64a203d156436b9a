import { colourOf, mixedHex } from '@quarry/core/catalogue';
import {
  hatchOfGround,
  isFixedGround,
  customGroundOf,
  type Ground,
  type GroundHatch,
  type Scene,
} from '@quarry/core/document';

/** The colours of a board, from the look's tokens; ground tints run from low to high. */
export interface Palette {
  paper: string;
  sheet: string;
  line: string;
  ink: string;
  ink2: string;
  iron: string;
  onIron: string;
  tarn: string;
  ochre: string;
  contour: string;
  water: string;
  paved: string;
  road: string;
  sand: string;
  tints: readonly [string, string, ...string[]];
}

export const PALETTES: Record<'day' | 'night', Palette> = {
  day: {
    paper: '#f3efe6',
    sheet: '#faf8f3',
    line: '#cfc8b8',
    ink: '#22292e',
    ink2: '#5b646a',
    iron: '#a8442a',
    onIron: '#ffffff',
    tarn: '#1f6a73',
    ochre: '#87590a',
    contour: '#7c5b45',
    water: '#bfd8d8',
    paved: '#d2cdc4',
    road: '#bdb9b2',
    sand: '#ece4cb',
    tints: ['#e9e9d6', '#e6e6d0', '#e2e0c9', '#dcd8c4', '#d5cfbe', '#cdc6b8', '#c4bdb2'],
  },
  night: {
    paper: '#1b2125',
    sheet: '#222a2f',
    line: '#3a454c',
    ink: '#e6e1d6',
    ink2: '#a0a8ac',
    iron: '#e07a55',
    onIron: '#1b2125',
    tarn: '#6fb6be',
    ochre: '#d9a441',
    contour: '#b08d72',
    water: '#23424a',
    paved: '#383d41',
    road: '#2b2f33',
    sand: '#3e3b31',
    tints: ['#2b332f', '#2f3733', '#343b37', '#3a3f3b', '#40433f', '#474844', '#4e4d49'],
  },
};

/** How much of its colour the tint of a custom ground has: the hatch and what is drawn on it stay readable. */
const OWN_SHARE = 0.4;

/** Tints for grounds that have their own; the others take the tint of their height. */
export function groundTint(
  palette: Palette,
  scene: Pick<Scene, 'customGround'>,
  ground: Ground | 'bare',
): string | null {
  if (ground === 'bare') return palette.sheet;
  if (!isFixedGround(ground)) {
    const colour = colourOf(customGroundOf(scene, ground)?.colour ?? '');
    return colour ? mixedHex(palette.sheet, colour.hex, OWN_SHARE) : palette.sheet;
  }
  if (ground === 'water') return palette.water;
  if (ground === 'paving' || ground === 'ballast') return palette.paved;
  if (ground === 'road') return palette.road;
  return ground === 'sand' ? palette.sand : null;
}

/** Side of a hatch's repeating square, px. */
const TILE = 16;

/** A pattern for a ground that reads without colour: ticks, chevrons, dots, bonds, waves. */
export function hatchOf(
  ground: Ground,
  scene: Pick<Scene, 'customGround'>,
  palette: Palette,
): CanvasPattern | null {
  return patternOf(hatchOfGround(scene, ground), palette);
}

function patternOf(hatch: GroundHatch, palette: Palette): CanvasPattern | null {
  const canvas = document.createElement('canvas');
  canvas.width = TILE * 2;
  canvas.height = TILE * 2;
  const ctx = canvas.getContext('2d');
  if (!ctx) return null;
  ctx.scale(2, 2);
  ctx.lineWidth = 0.7;
  ctx.strokeStyle = hatch === 'waves' ? palette.tarn : palette.ink;
  ctx.fillStyle = ctx.strokeStyle;
  ctx.globalAlpha = 0.45;
  ctx.beginPath();
  if (hatch === 'ticks')
    for (const [x, y] of [
      [3, 6],
      [11, 14],
    ] as const)
      for (const lean of [-1.6, 0, 1.6]) {
        ctx.moveTo(x + lean, y);
        ctx.lineTo(x + lean * 1.9, y - 3);
      }
  if (hatch === 'chevrons')
    for (const [x, y] of [
      [1, 6],
      [9, 14],
    ] as const) {
      ctx.moveTo(x, y);
      ctx.lineTo(x + 3, y - 3.5);
      ctx.lineTo(x + 6, y);
    }
  if (hatch === 'waves')
    for (const [x, y] of [
      [0, 5],
      [8, 13],
    ] as const) {
      ctx.moveTo(x, y);
      ctx.quadraticCurveTo(x + 2, y - 2.5, x + 4, y);
      ctx.quadraticCurveTo(x + 6, y + 2.5, x + 8, y);
    }
  if (hatch === 'bricks') {
    for (const y of [0.5, 4.5, 8.5, 12.5]) {
      ctx.moveTo(0, y);
      ctx.lineTo(TILE, y);
    }
    for (const [x, y] of [
      [4, 0.5],
      [12, 0.5],
      [0, 4.5],
      [8, 4.5],
      [4, 8.5],
      [12, 8.5],
      [0, 12.5],
      [8, 12.5],
    ] as const) {
      ctx.moveTo(x + 0.5, y);
      ctx.lineTo(x + 0.5, y + 4);
    }
  }
  if (hatch === 'dashes')
    for (const [x, y] of [
      [2, 4],
      [10, 12],
    ] as const) {
      ctx.moveTo(x, y);
      ctx.lineTo(x + 3, y);
    }
  if (hatch === 'stones')
    for (const [x, y] of [
      [4, 4],
      [12, 8],
      [4, 12],
    ] as const) {
      ctx.moveTo(x - 1.2, y - 1.2);
      ctx.lineTo(x + 1.2, y + 1.2);
      ctx.moveTo(x - 1.2, y + 1.2);
      ctx.lineTo(x + 1.2, y - 1.2);
    }
  for (const [x, y] of [
    [4, 4],
    [12, 12],
  ] as const) {
    if (hatch === 'crosses' || hatch === 'flakes') {
      ctx.moveTo(x - 2, y);
      ctx.lineTo(x + 2, y);
    }
    if (hatch === 'crosses') {
      ctx.moveTo(x, y - 2);
      ctx.lineTo(x, y + 2);
    }
    if (hatch === 'flakes')
      for (const lean of [-1, 1]) {
        ctx.moveTo(x - lean, y - 1.8);
        ctx.lineTo(x + lean, y + 1.8);
      }
    if (hatch === 'rings') {
      ctx.moveTo(x + 1.8, y);
      ctx.arc(x, y, 1.8, 0, Math.PI * 2);
    }
  }
  if (hatch === 'diagonals')
    for (const from of [0, TILE / 2, TILE, 1.5 * TILE]) {
      ctx.moveTo(from, 0);
      ctx.lineTo(from - TILE, TILE);
    }
  ctx.stroke();
  if (hatch === 'grains' || hatch === 'strokes')
    for (const [x, y, r] of hatch === 'grains'
      ? ([
          [3, 3, 0.7],
          [11, 5, 0.7],
          [6, 11, 0.7],
          [14, 13, 0.7],
        ] as const)
      : ([
          [3, 4, 0.8],
          [8, 9, 1.1],
          [13, 3, 0.8],
          [2, 13, 1.1],
          [13, 13, 0.8],
        ] as const)) {
      ctx.beginPath();
      ctx.arc(x, y, r, 0, Math.PI * 2);
      ctx.fill();
    }
  return ctx.createPattern(canvas, 'repeat');
}
export const HATCH_SCALE = 0.5;
