import { create } from 'zustand';
import type { Paper } from '@quarry/core/formats';
import type { Kind, PlanKind, Scene } from '@quarry/core/document';
import { recall, remember } from './remembered.ts';

/** What the pointer does on the plan: `measure` measures, `profile` lays the section cut, a kind is drawn. */
export type Tool = 'pick' | 'measure' | 'profile' | 'table' | PlanKind;

export interface Picked {
  kind: Kind;
  id: string;
}
export const BOARD_LAYERS = [
  'tables',
  'pictures',
  'ground',
  'contours',
  'ways',
  'plots',
  'dressing',
  'power',
  'signs',
  'sections',
  'modules',
  'findings',
] as const;
export type BoardLayer = (typeof BOARD_LAYERS)[number];
/** A line across the plan, studs. */
export interface CutLine {
  a: { x: number; y: number };
  b: { x: number; y: number };
}
/** Which level of the scene the board shows: the ground alone, or one deck or cavity; null: all from above. */
export type LevelView = { kind: 'ground' } | { kind: 'deck' | 'cavity'; id: string } | null;
/** The level shown, where a scene has it: what was shown of another display, or is gone, is none. */
export const levelIn = (scene: Pick<Scene, 'deck' | 'cavity'>, level: LevelView): LevelView => {
  if (level === null) return null;
  if (level.kind !== 'ground') return scene[level.kind][level.id] ? level : null;
  return Object.keys(scene.deck).length + Object.keys(scene.cavity).length > 0 ? level : null;
};
type Theme = 'day' | 'night';
type Metric = 'mm' | 'in';

/** What a plan is compared with: the moment that was kept, or another version (null: the base). */
export type Comparison = {
  display: string;
  /** What the board shows: the scene, the other one, or the other one left of a border. */
  shows: 'now' | 'other' | 'both';
} & ({ with: 'moment' } | { with: 'version'; version: string | null });

/** What one person looks at: never sent anywhere. Theme, unit and paper are kept in the browser. */
interface View {
  picked: Picked | null;
  /** What else is picked with it. */
  also: readonly Picked[];
  tool: Tool;
  hidden: ReadonlySet<BoardLayer>;
  /** Where the board should go next, studs; a new object each time. */
  goTo: { x: number; y: number } | null;
  /** Where the section cut lies; null: where it shows most. */
  cutLine: CutLine | null;
  level: LevelView;
  /** The line measured last. */
  measured: CutLine | null;
  /** The scene kept for comparison, of one display, while the page is open. */
  before: { display: string; scene: Scene; kept: string } | null;
  /** What the plan of a display is compared with, and how; null: with nothing. */
  comparison: Comparison | null;
  /** Where the border between both pictures lies, share of the board's width. */
  split: number;
  theme: Theme;
  metric: Metric;
  /** The list of findings: open or not, and the keys it is narrowed to; null: all. */
  findings: { open: boolean; only: readonly string[] | null };
  /** The dialog for another size of the display is open. */
  resizing: boolean;
  /** What sheets are printed on; null: as the unit has it. */
  paper: Paper | null;
  setResizing(open: boolean): void;
  /** Opens the findings, all or some. */
  openFindings(only?: readonly string[]): void;
  closeFindings(): void;
  pick(picked: Picked | null): void;
  pickAll(picks: readonly Picked[]): void;
  /** Adds a thing to what is picked, or takes it out again. */
  pickToo(picked: Picked): void;
  layCut(line: CutLine | null): void;
  measure(line: CutLine): void;
  keepBefore(before: View['before']): void;
  compare(comparison: Comparison | null): void;
  setSplit(share: number): void;
  takeTool(tool: Tool): void;
  setLevel(level: LevelView): void;
  toggleLayer(layer: BoardLayer): void;
  show(place: { x: number; y: number } | null, picked: Picked | null): void;
  setTheme(theme: Theme): void;
  setMetric(metric: Metric): void;
  setPaper(paper: Paper): void;
}

const paperNamed = (name: string | null): Paper | null => (name === 'a4' || name === 'letter' ? name : null);

/** What sheets are printed on: Letter with inches where nothing else is chosen. */
export const paperOf = ({ paper, metric }: Pick<View, 'paper' | 'metric'>): Paper =>
  paper ?? (metric === 'in' ? 'letter' : 'a4');

export const useView = create<View>((set) => ({
  picked: null,
  also: [],
  cutLine: null,
  level: null,
  measured: null,
  before: null,
  comparison: null,
  split: 0.5,
  tool: 'pick',
  hidden: new Set(),
  goTo: null,
  theme: document.documentElement.dataset.theme === 'night' ? 'night' : 'day',
  metric: recall('quarry-metric') === 'in' ? 'in' : 'mm',
  findings: { open: false, only: null },
  resizing: false,
  setResizing: (resizing) => set({ resizing }),
  paper: paperNamed(recall('quarry-paper')),
  openFindings: (only) => set({ findings: { open: true, only: only ?? null } }),
  closeFindings: () => set({ findings: { open: false, only: null } }),
  pick: (picked) => set({ picked, also: [] }),
  pickAll: ([picked = null, ...also]) => set({ picked, also }),
  pickToo: (one) =>
    set(({ picked, also }) => {
      const all = picked ? [picked, ...also] : [];
      const rest = all.filter(({ kind, id }) => kind !== one.kind || id !== one.id);
      const [first = null, ...others] = rest.length < all.length ? rest : [...all, one];
      return { picked: first, also: others };
    }),
  layCut: (cutLine) => set({ cutLine }),
  measure: (measured) => set({ measured }),
  keepBefore: (before) =>
    set(({ comparison }) => ({ before, comparison: comparison?.with === 'moment' ? null : comparison })),
  compare: (comparison) => set({ comparison }),
  setSplit: (split) => set({ split }),
  takeTool: (tool) => set({ tool }),
  setLevel: (level) => set({ level }),
  toggleLayer: (layer) =>
    set(({ hidden }) => {
      const next = new Set(hidden);
      if (!next.delete(layer)) next.add(layer);
      return { hidden: next };
    }),
  show: (goTo, picked) => set({ goTo, picked, also: [], tool: 'pick' }),
  setTheme: (theme) => {
    document.documentElement.dataset.theme = theme;
    remember('quarry-theme', theme);
    set({ theme });
  },
  setPaper: (paper) => {
    remember('quarry-paper', paper);
    set({ paper });
  },
  setMetric: (metric) => {
    remember('quarry-metric', metric);
    set({ metric });
  },
}));
