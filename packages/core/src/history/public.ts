import { progressOf, workDone } from '../progress/index.ts';
import {
  KIND_NAMES,
  displayOf,
  emptyScene,
  listOf,
  specOf,
  stageWord,
  type Scene,
} from '../document/index.ts';

// What the public may see of a display: the ground and what stands on it, without messages, stock or money.

/** Kinds that a share page shows: those that say so. */
const SHOWN = KIND_NAMES.filter((kind) => specOf(kind).public);

/** Words that are shown nowhere but kept with a thing. */
const HUSHED: Readonly<Record<string, unknown>> = {
  notes: '',
  story: '',
  owner: null,
  helpers: [],
  partsBy: null,
};

/** A scene with only what may be shown; ground and buildings are the same objects. */
export function publicScene(scene: Scene): Scene {
  const { name, kind, school, ratio, showDate, showName, v, id } = displayOf(scene);
  const bare = emptyDisplay(scene);
  const shown: Record<string, unknown> = {
    ...emptyScene(),
    display: { [id]: { ...bare, id, v, name, kind, school, ratio, showDate, showName } },
  };
  for (const group of SHOWN)
    shown[group] = Object.fromEntries(
      listOf(scene, group).map((thing) => {
        const shownFields: Record<string, unknown> = { ...thing };
        for (const [field, nothing] of Object.entries(HUSHED))
          if (field in shownFields) shownFields[field] = nothing;
        return [thing.id, shownFields];
      }),
    );
  return asScene(shown);
}

/** The display entity without its texts and rules: numbers and choices that the ground is compiled by stay. */
function emptyDisplay(scene: Scene) {
  const {
    notes: _n,
    moduleReason: _r,
    kitName: _k,
    place: _p,
    currency: _c,
    datum: _d,
    ...rest
  } = displayOf(scene);
  return { ...rest, notes: '', moduleReason: '', kitName: '', place: null, currency: '¤', datum: '' };
}

/** Every group came from a scene and holds what its kind holds. */
function asScene(groups: object): Scene {
  if (!isScene(groups)) throw new Error('a public scene lacks one of its groups');
  return groups;
}
const isScene = (groups: object): groups is Scene => SHOWN.every((kind) => kind in groups);

export interface PublicSection {
  letter: string;
  name: string;
  stage: string;
  /** 0 to 1. */
  done: number;
  /** Who builds it, where names are allowed. */
  owner: string | null;
}

/** Sections and how far they are, by letter. @param names whether the crew allowed its names to be shown */
export function publicProgress(scene: Scene, names: boolean): { done: number; sections: PublicSection[] } {
  const sections = listOf(scene, 'section')
    .toSorted((a, b) => (a.letter < b.letter ? -1 : 1))
    .map((section) => ({
      letter: section.letter,
      name: section.name,
      stage: stageWord(scene, section.stage),
      done: workDone(scene, section),
      owner: names && section.owner ? (scene.person[section.owner]?.name ?? null) : null,
    }));
  return { done: progressOf(scene).done, sections };
}
