import { containsPoint, intersection, type Rect } from '../grid/index.ts';
import {
  BARE,
  OUTSIDE,
  NEIGHBOUR_STEPS,
  eachTouched,
  indexAt,
  type Compiled,
  type Relief,
} from '../terrain/index.ts';
import {
  METHODS,
  builtCorners,
  displayOf,
  listOf,
  plotBounds,
  type Entity,
  type Method,
  type Scene,
  type Side,
} from '../document/index.ts';
import { SURF, groundNamed, groundNumber, skinOf, dressesOf, surfOf, type Dress } from './dress.ts';
import { SKIN, type Fill } from './fill.ts';

// A scene's ground, block by block, as it is filled: a module, or a square of what is in no module.

export interface CountingBlock extends Rect {
  id: string;
  /** The module's name; of the rest its place. */
  name: string;
  /** In no module: the studs of modules are left out of it. */
  rest: boolean;
}

/** Side of the squares of what is in no module, studs. */
const SQUARE = 64;

/** The blocks of a scene: its modules, and squares over the footprint that no module takes. */
export function countingBlocks(scene: Scene, relief: Relief): CountingBlock[] {
  const modules = listOf(scene, 'module').map(({ id, name, x, y, w, d }) => ({
    id,
    name,
    x,
    y,
    w,
    d,
    rest: false,
  }));
  const rest: CountingBlock[] = [];
  for (let y = relief.y; y < relief.y + relief.d; y += SQUARE)
    for (let x = relief.x; x < relief.x + relief.w; x += SQUARE) {
      const w = Math.min(SQUARE, relief.x + relief.w - x);
      const d = Math.min(SQUARE, relief.y + relief.d - y);
      const square = { id: `rest-${x}-${y}`, name: `rest at ${x},${y}`, ...{ x, y, w, d }, rest: true };
      const near = modules.filter((module) => intersection(module, square));
      if (
        someStud(
          square,
          (column, row) =>
            isGround(relief, column, row) && !near.some((module) => containsPoint(module, column, row)),
        )
      )
        rest.push(square);
    }
  return [...modules, ...rest];
}

const isGround = (relief: Relief, x: number, y: number) => {
  const i = indexAt(relief, x, y);
  return i >= 0 && relief.ground[i] !== OUTSIDE;
};

function someStud({ x, y, w, d }: Rect, test: (column: number, row: number) => boolean): boolean {
  for (let row = y; row < y + d; row++)
    for (let column = x; column < x + w; column++) if (test(column, row)) return true;
  return false;
}

/** A block as it is filled, with the section and dress of each stud. */
export interface BlockGround {
  block: CountingBlock;
  fill: Fill;
  /** Index in `sections` of each stud; −1: in none. */
  section: Int16Array;
  /** `groundNumber` of each stud. */
  ground: Uint8Array;
  /** 1 where waves break, which has a dress of its own. */
  surf: Uint8Array;
  /** Plates above datum at which the floor lies: 0, or lower where ground is dug below the datum. */
  floor: number;
  dressAt: (i: number) => Dress;
}

/** Reads the ground of blocks out of a compiled scene. */
export class Grounds {
  readonly sections: readonly Entity<'section'>[];
  private readonly sectionMethods: Int8Array;
  private readonly usual: number;
  /** The method that a pad or a hill has of its own, by owner number. */
  private readonly own = new Map<number, number>();
  /** The sides from which waves strike, by owner number of the water. */
  private readonly struck = new Map<number, readonly Side[]>();
  private readonly dress: ReturnType<typeof dressesOf>;

  constructor(
    private readonly scene: Scene,
    private readonly compiled: Compiled,
  ) {
    const numberOf = (method: Method) => METHODS.indexOf(method);
    this.sections = listOf(scene, 'section');
    this.usual = numberOf(displayOf(scene).method);
    this.sectionMethods = Int8Array.from(this.sections, ({ method }) =>
      method === null ? this.usual : numberOf(method),
    );
    this.dress = dressesOf(scene);
    compiled.relief.things.forEach(({ kind, id }, index) => {
      const method = kind === 'pad' || kind === 'hill' ? scene[kind][id]?.method : null;
      if (method) this.own.set(index + 1, numberOf(method));
      const struck = kind === 'water' ? scene.water[id]?.struck : null;
      if (struck && struck.length > 0) this.struck.set(index + 1, struck);
    });
  }

  /**
   * @param only leaves out every stud that a test does not let in
   * @param method instead of those that are set
   */
  of(
    block: CountingBlock,
    only?: (x: number, y: number, owner: number) => boolean,
    method?: Method,
  ): BlockGround {
    const { relief, land } = this.compiled;
    const { w, d } = block;
    const display = displayOf(this.scene);
    const modules = block.rest
      ? listOf(this.scene, 'module').filter((module) => intersection(module, block))
      : [];
    const near = this.sections.flatMap((section, index) =>
      intersection(section, block) ? [{ section, index }] : [],
    );
    const at = new Int32Array(w * d).fill(-1);
    let floor = 0;
    for (let row = 0; row < d; row++)
      for (let column = 0; column < w; column++) {
        const [x, y] = [block.x + column, block.y + row];
        const i = indexAt(relief, x, y);
        if (i < 0 || relief.ground[i] === OUTSIDE || modules.some((module) => containsPoint(module, x, y)))
          continue;
        if (only && !only(x, y, land.owner[i])) continue;
        at[row * w + column] = i;
        floor = Math.min(floor, relief.height[i]);
      }
    const covered = this.builtOver(block);
    const height = new Int16Array(w * d).fill(-1);
    const section = new Int16Array(w * d).fill(-1);
    const ground = new Uint8Array(w * d);
    const methods = new Uint8Array(w * d);
    const skin = new Uint8Array(w * d);
    const surf = new Uint8Array(w * d);
    for (let k = 0; k < w * d; k++) {
      const i = at[k];
      if (i < 0) continue;
      const [x, y] = [block.x + (k % w), block.y + Math.floor(k / w)];
      const within = near.find((one) => containsPoint(one.section, x, y));
      height[k] = relief.height[i] - floor;
      section[k] = within ? within.index : -1;
      ground[k] = relief.ground[i] === BARE ? groundNumber('bare') : relief.ground[i];
      skin[k] = covered[k] ? SKIN.none : skinOf(groundNamed(ground[k]));
      surf[k] = this.isSurf(x, y, land.owner[i]) ? 1 : 0;
      methods[k] = method
        ? METHODS.indexOf(method)
        : (this.own.get(land.owner[i]) ?? (within ? this.sectionMethods[within.index] : this.usual));
    }
    const beyond = (x: number, y: number) => {
      const i = indexAt(relief, block.x + x, block.y + y);
      return i < 0 || relief.ground[i] === OUTSIDE ? -1 : Math.max(0, relief.height[i] - floor);
    };
    const dresses = new Map<number, Dress>();
    const dressAt = (k: number): Dress => {
      const key = (section[k] * 64 + ground[k]) * 2 + surf[k];
      let dress = dresses.get(key);
      if (!dress) {
        dress = this.dress(groundNamed(ground[k]), this.sections[section[k]]?.id ?? null);
        if (surf[k]) dress = surfOf(dress);
        dresses.set(key, dress);
      }
      return dress;
    };
    const { deckMost, deckSpan: span, deckSheets: sheets } = display;
    const looks = new Map<string | Dress, number>();
    const look = Uint8Array.from(height, (value, k) => {
      if (value < 0) return 0;
      const dress = dressAt(k);
      // Two grounds of one colour are one; mixed ones keep to themselves.
      const key = dress.tones.length === 1 && dress.accents.length === 0 ? dress.tones[0].colour : dress;
      const known = looks.get(key) ?? looks.size;
      looks.set(key, known);
      return known;
    });
    const fine = Uint8Array.from(height, (value, k) => (value >= 0 && dressAt(k).tones.length > 1 ? 1 : 0));
    const fill: Fill = {
      ...{ w, d, height, method: methods, skin, fine, look, beyond },
      ...{ deckMost, span, sheets },
    };
    return { block, fill, section, ground, surf, floor, dressAt };
  }

  /** Whether waves break on a stud of water: its shore is near, on a side that is struck. */
  private isSurf(x: number, y: number, owner: number): boolean {
    const { relief } = this.compiled;
    const water = groundNumber('water');
    const isWater = (i: number) => relief.ground[i] === water;
    if (!isWater(indexAt(relief, x, y))) return false;
    return (this.struck.get(owner) ?? []).some((side) => {
      const { x: dx, y: dy } = NEIGHBOUR_STEPS[side];
      for (let far = 1; far <= SURF; far++) {
        const i = indexAt(relief, x + far * dx, y + far * dy);
        // The end of the display is no shore.
        if (i < 0 || relief.ground[i] === OUTSIDE) return false;
        if (!isWater(i)) return true;
      }
      return false;
    });
  }

  /** The studs of a block on which a building stands that has no ground cover under it: 1, else 0. */
  private builtOver(block: Rect): Uint8Array {
    const built = new Uint8Array(block.w * block.d);
    for (const plot of listOf(this.scene, 'plot'))
      if (!plot.coverUnder && intersection(plotBounds(plot), block))
        eachTouched(builtCorners(plot), block, (row, from, to) =>
          built.fill(1, (row - block.y) * block.w + from - block.x, (row - block.y) * block.w + to - block.x),
        );
    return built;
  }
}
