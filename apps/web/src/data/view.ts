import { create } from 'zustand';
import type { Kind } from '@quarry/core/scene';

export interface Picked {
  kind: Kind;
  id: string;
}
export const TOOLS = ['pick', 'footprint', 'pad', 'plot', 'section', 'table', 'measure'] as const;
export type Tool = (typeof TOOLS)[number];
export const LAYERS = ['tables', 'ground', 'contours', 'plots', 'sections', 'modules', 'findings'] as const;
export type Layer = (typeof LAYERS)[number];
type Theme = 'day' | 'night';
type Metric = 'mm' | 'in';

/** What one person looks at: never sent anywhere. Theme and unit are kept in the browser. */
interface View {
  picked: Picked | null;
  tool: Tool;
  hidden: ReadonlySet<Layer>;
  /** Where the board should go next, studs; a new object each time. */
  goTo: { x: number; y: number } | null;
  theme: Theme;
  metric: Metric;
  pick(picked: Picked | null): void;
  takeTool(tool: Tool): void;
  toggleLayer(layer: Layer): void;
  show(place: { x: number; y: number } | null, picked: Picked | null): void;
  setTheme(theme: Theme): void;
  setMetric(metric: Metric): void;
}

const remember = (key: string, value: string) => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // A browser that keeps nothing still works; it only forgets the choice.
  }
};
const recall = (key: string): string | null => {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
};

export const useView = create<View>((set) => ({
  picked: null,
  tool: 'pick',
  hidden: new Set(),
  goTo: null,
  theme: document.documentElement.dataset.theme === 'night' ? 'night' : 'day',
  metric: recall('quarry-metric') === 'in' ? 'in' : 'mm',
  pick: (picked) => set({ picked }),
  takeTool: (tool) => set({ tool }),
  toggleLayer: (layer) =>
    set(({ hidden }) => {
      const next = new Set(hidden);
      if (!next.delete(layer)) next.add(layer);
      return { hidden: next };
    }),
  show: (goTo, picked) => set({ goTo, picked, tool: 'pick' }),
  setTheme: (theme) => {
    document.documentElement.dataset.theme = theme;
    remember('quarry-theme', theme);
    set({ theme });
  },
  setMetric: (metric) => {
    remember('quarry-metric', metric);
    set({ metric });
  },
}));
