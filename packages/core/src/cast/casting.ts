import {
  characterAt,
  isInHand,
  listOf,
  vehicleOf,
  wantedAt,
  type CastScene,
  type Change,
  type Character,
  type CharacterForm,
  type Entity,
  type SceneSpot,
} from '../document/index.ts';

// Which small scenes can be made from the characters in hand: each plays in one of them at a time, and a spot takes the one
// who is named for it, or a stand-in of the same role.

type SmallScene = Entity<'figure'>;

/** One spot of a small scene in the best casting. */
export interface SpotCast {
  /** What the spot asks for: its character, or a role. */
  named: Character | null;
  form: CharacterForm;
  role: string;
  /** Who plays it; null: nobody in hand. */
  played: Character | null;
}

export interface SceneCast {
  id: string;
  name: string;
  /** All its spots are played. */
  isMade: boolean;
  spots: SpotCast[];
}

/** A character, or one more of a role, with which a small scene could be made that cannot be made now. */
export interface OneMore {
  character: Character | null;
  form: CharacterForm;
  role: string;
  /** Names of the small scenes that it makes possible, one at a time. */
  makes: string[];
}

export interface Casting {
  /** Small scenes with spots, in the order of the story, then by name. */
  scenes: SceneCast[];
  made: number;
  /** No casting makes more than this; it equals `made` where that is proven. */
  bound: number;
  /** In hand, and in none of the small scenes that are made. */
  spare: Character[];
}

/** Branches that are looked at for the best casting, and for all that one more would make possible. */
const MAX_BRANCHES = 300;

/**
 * What may be set down as one: a character, with its vehicle and all that ride in it. No two spots take the same.
 */
const unitOf = (scene: CastScene, character: Character): string =>
  vehicleOf(scene, character)?.id ?? character.id;

interface Slot {
  scene: number;
  /** The unit that is named for it, and all that may stand in, itself among them; many slots share the list. */
  first: number | null;
  others: readonly number[];
}

interface Problem {
  figures: SmallScene[];
  /** The spots of each small scene. */
  slots: Slot[][];
  /** The character that sets a unit down, by number. */
  units: Character[];
}

/** Who or what a spot asks for, or somebody has to offer. */
interface Wanted {
  form: CharacterForm;
  role: string;
  count: number;
}

/** Whether a character may stand in at a spot. */
const fits = (offered: Wanted, wanted: Wanted): boolean =>
  offered.form === wanted.form &&
  offered.count === wanted.count &&
  (wanted.role === '' || offered.role.toLowerCase() === wanted.role.toLowerCase());

/** Whether a character may play a spot, if it is in hand and free: the one who is named, or a stand-in. */
export function mayPlay(scene: CastScene, character: Character, spot: SceneSpot): boolean {
  const named = characterAt(scene, spot);
  if (named?.id === character.id) return true;
  return !(named && spot.isFixed) && fits(character, wantedAt(scene, spot));
}

/** No more spots than this are cast: a display has hundreds. */
const MAX_SPOTS = 5000;

/** Small scenes that have spots, as they are told; the first of them where there are very many spots. */
export function castScenes(scene: CastScene): SmallScene[] {
  let left = MAX_SPOTS;
  return withSpots(scene).filter(({ spots }) => (left -= spots.length) >= 0);
}

const withSpots = (scene: CastScene): SmallScene[] =>
  listOf(scene, 'figure')
    .filter(({ spots }) => spots.length > 0)
    .toSorted(
      (a, b) =>
        (a.order ?? Infinity) - (b.order ?? Infinity) ||
        a.name.localeCompare(b.name) ||
        (a.id < b.id ? -1 : 1),
    );

function problemOf(scene: CastScene): Problem {
  const figures = castScenes(scene);
  const units = listOf(scene, 'character')
    .filter((one) => vehicleOf(scene, one) === null && isInHand(scene, one))
    .toSorted((a, b) => (a.id < b.id ? -1 : 1));
  const numberOf = new Map(units.map(({ id }, i) => [id, i]));
  // Spots that ask for the same share one list.
  const lists = new Map<string, readonly number[]>();
  const fitting = (wanted: Wanted) => {
    const key = `${wanted.form} ${wanted.count} ${wanted.role.toLowerCase()}`;
    const list = lists.get(key) ?? [...units.keys()].filter((unit) => fits(units[unit], wanted));
    lists.set(key, list);
    return list;
  };
  const slots = figures.map(({ spots }, i) =>
    spots.map((spot): Slot => {
      const named = characterAt(scene, spot);
      const first = named ? numberOf.get(unitOf(scene, named)) : undefined;
      const others = named && spot.isFixed ? [] : fitting(wantedAt(scene, spot));
      return { scene: i, first: first ?? null, others };
    }),
  );
  return { figures, slots, units };
}

/** One more unit than there are, and the slots that it may take. */
interface Extra {
  unit: number;
  may: ReadonlySet<Slot>;
}

/** Who takes which slot: an assignment that grows by augmenting paths (Kuhn 1955), and never frees a slot again. */
class Matching {
  /** The slot that each unit takes. */
  readonly taken: Map<number, Slot>;

  constructor(taken: Iterable<[number, Slot]> = []) {
    this.taken = new Map(taken);
  }

  add(slot: Slot, extra: Extra | null = null, seen = new Set<number>()): boolean {
    const units = [
      ...(slot.first === null ? [] : [slot.first]),
      ...slot.others,
      ...(extra?.may.has(slot) ? [extra.unit] : []),
    ];
    // Free ones first: most slots need nobody to move.
    const free = units.find((unit) => !this.taken.has(unit));
    if (free !== undefined) {
      this.taken.set(free, slot);
      return true;
    }
    for (const unit of units) {
      if (seen.has(unit)) continue;
      seen.add(unit);
      const before = this.taken.get(unit);
      if (before && !this.add(before, extra, seen)) continue;
      this.taken.set(unit, slot);
      return true;
    }
    return false;
  }

  /** All slots of a small scene, or none of them. */
  addAll(slots: readonly Slot[], extra: Extra | null = null): Matching | null {
    const next = new Matching(this.taken);
    return slots.every((slot) => next.add(slot, extra)) ? next : null;
  }

  /** How many of some slots cannot be taken beside what is. */
  lackOf(slots: readonly Slot[]): number {
    const next = new Matching(this.taken);
    return slots.filter((slot) => !next.add(slot)).length;
  }
}

interface Solution {
  chosen: Set<number>;
  matching: Matching;
  bound: number;
  branches: number;
}

/**
 * The most small scenes that can be played at once: branch and bound over which are, small ones first. What is left can
 * make no more scenes than the smallest of them that the units left suffice for.
 * @param maxBranches branches that are looked at before the best so far is taken, unproven
 */
function solve(
  { slots, units }: { slots: Slot[][]; units: number },
  maxBranches: number,
  extra: Extra | null = null,
): Solution {
  const order = [...slots.keys()].toSorted((a, b) => slots[a].length - slots[b].length || a - b);
  const alone = order.filter((i) => new Matching().addAll(slots[i], extra) !== null);
  let best: Pick<Solution, 'chosen' | 'matching'> = { chosen: new Set(), matching: new Matching() };
  let branches = 0;
  const mostFrom = (k: number, left: number): number => {
    let count = 0;
    for (let rest = left; k + count < alone.length && rest >= slots[alone[k + count]].length; count++)
      rest -= slots[alone[k + count]].length;
    return count;
  };
  const bound = mostFrom(0, units);
  const search = (k: number, chosen: number[], matching: Matching) => {
    if (chosen.length > best.chosen.size) best = { chosen: new Set(chosen), matching };
    if (k === alone.length || branches >= maxBranches) return;
    if (best.chosen.size >= chosen.length + mostFrom(k, units - matching.taken.size)) return;
    branches++;
    const next = matching.addAll(slots[alone[k]], extra);
    if (next) search(k + 1, [...chosen, alone[k]], next);
    search(k + 1, chosen, matching);
  };
  search(0, [], new Matching());
  return { ...best, branches, bound: branches < maxBranches ? best.chosen.size : bound };
}

/**
 * The most small scenes that can be made at once from the characters in hand, and who plays what.
 * @param scene in one version
 */
export function castingOf(scene: CastScene): Casting {
  const problem = problemOf(scene);
  const { chosen, matching, bound } = solve({ ...problem, units: problem.units.length }, MAX_BRANCHES);
  // What cannot be made is filled as far as it goes, so that the gaps are the fewest.
  for (const [i, slots] of problem.slots.entries())
    if (!chosen.has(i)) for (const slot of slots) matching.add(slot);
  const playerOf = new Map([...matching.taken].map(([unit, slot]) => [slot, problem.units[unit]]));
  const playing = new Set(
    [...matching.taken].filter(([, slot]) => chosen.has(slot.scene)).map(([unit]) => problem.units[unit].id),
  );
  const scenes = problem.figures.map((figure, i): SceneCast => ({
    ...{ id: figure.id, name: figure.name, isMade: chosen.has(i) },
    spots: figure.spots.map((spot, k) => {
      const { form, role } = wantedAt(scene, spot);
      const named = characterAt(scene, spot);
      const player = playerOf.get(problem.slots[i][k]) ?? null;
      // The vehicle sets its crew down: a spot that names one of them is played by that one.
      const isNamed = named !== null && player !== null && unitOf(scene, named) === player.id;
      return { named, form, role, played: isNamed ? named : player };
    }),
  }));
  return {
    ...{ scenes, made: chosen.size, bound },
    spare: problem.units.filter(({ id }) => !playing.has(id)),
  };
}

/**
 * What one more in hand would make possible: characters that are wanted, broken or lost, and one more of each role that
 * a small scene lacks. Each is tried; one more never makes more than one small scene possible at once. Where there are
 * very many, only what it makes possible beside the scenes that are made is found.
 */
export function oneMoreOf(scene: CastScene): OneMore[] {
  const problem = problemOf(scene);
  const now = solve({ ...problem, units: problem.units.length }, MAX_BRANCHES);
  if (now.chosen.size === problem.figures.length) return [];
  const trial = trialOf(scene, problem, now);
  const absent = listOf(scene, 'character').filter(
    (one) => vehicleOf(scene, one) === null && !isInHand(scene, one),
  );
  const lacked = new Map<string, Wanted>();
  for (const [i, { spots }] of problem.figures.entries())
    if (!now.chosen.has(i))
      for (const spot of spots) {
        const wanted = wantedAt(scene, spot);
        if (wanted.count === 1 && !(spot.isFixed && characterAt(scene, spot)))
          lacked.set(`${wanted.form} ${wanted.role.toLowerCase()}`, wanted);
      }
  const found = absent
    .map((character): OneMore => ({
      ...{ character, form: character.form, role: character.role },
      makes: trial(character),
    }))
    .filter(({ makes }) => makes.length > 0);
  // A role is told where nobody who is away would do the same.
  const others = [...lacked.values()]
    .map(({ form, role, count }): OneMore => ({
      character: null,
      form,
      role,
      makes: trial({ form, role, count }),
    }))
    .filter(
      ({ form, role, makes }) =>
        makes.length > 0 &&
        !makes.every((name) =>
          found.some(
            (one) => fits({ ...one, count: 1 }, { form, role, count: 1 }) && one.makes.includes(name),
          ),
        ),
    );
  return [...found, ...others];
}

/** Tries one more: names of the small scenes that it makes possible. */
function trialOf(scene: CastScene, { figures, slots, units }: Problem, now: Solution) {
  const kept = new Matching([...now.matching.taken].filter(([, slot]) => now.chosen.has(slot.scene)));
  const open = slots.flatMap((each, i) => (now.chosen.has(i) ? [] : [{ i, lack: kept.lackOf(each) }]));
  const spots = figures.flatMap((figure, i) =>
    figure.spots.map((spot, k) => {
      const named = characterAt(scene, spot);
      const unit = named && unitOf(scene, named);
      return {
        slot: slots[i][k],
        unit,
        isFixed: named !== null && spot.isFixed,
        wanted: wantedAt(scene, spot),
      };
    }),
  );
  const namedUnits = new Set(spots.map(({ unit }) => unit));
  const unit = units.length;
  let branches = MAX_BRANCHES;
  const known = new Map<string, string[]>();
  const makes = (more: Character | Wanted): string[] => {
    const id = 'id' in more ? more.id : null;
    const may = new Set(
      spots
        .filter((spot) => (id !== null && spot.unit === id) || (!spot.isFixed && fits(more, spot.wanted)))
        .map(({ slot }) => slot),
    );
    if (may.size === 0) return [];
    const directly = open.filter(({ i, lack }) => lack === 1 && kept.addAll(slots[i], { unit, may }));
    if (directly.length > 0) return directly.map(({ i }) => figures[i].name);
    if (branches <= 0) return [];
    // Others than those that are made now may be made with it.
    const next = solve({ slots, units: unit + 1 }, branches, { unit, may });
    branches -= next.branches;
    return next.chosen.size > now.chosen.size
      ? [...next.chosen].filter((i) => !now.chosen.has(i)).map((i) => figures[i].name)
      : [];
  };
  return (more: Character | Wanted): string[] => {
    // Those that nobody names are alike.
    if ('id' in more && namedUnits.has(more.id)) return makes(more);
    const key = `${more.form} ${more.count} ${more.role.toLowerCase()}`;
    const found = known.get(key) ?? makes(more);
    known.set(key, found);
    return found;
  };
}

/**
 * Names who plays each spot of a small scene that can be made; spots that nobody in hand plays stay as they are.
 * @returns nothing where all are named already
 */
export function castingChanges(scene: CastScene, { scenes }: Pick<Casting, 'scenes'>, id: string): Change[] {
  const figure = scene.figure[id];
  const cast = scenes.find((one) => one.id === id);
  if (!figure || !cast) return [];
  const spots = figure.spots.map((spot, i) => {
    const played = cast.spots.at(i)?.played ?? null;
    return played && played.id !== spot.character
      ? { ...spot, character: played.id, form: played.form }
      : spot;
  });
  return spots.every((spot, i) => spot === figure.spots[i])
    ? []
    : [{ op: 'patch', kind: 'figure', id, v: figure.v, set: { spots } }];
}
