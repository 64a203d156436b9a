import { dequal } from 'dequal/lite';
import type { Change } from './change.ts';
import { deltaOf } from './delta.ts';
import { idFor } from './idFor.ts';
import { rebase } from './crew.ts';
import { reduce } from './reduce.ts';
import { DISPLAY_ID, REFERENCES, kindSchema, type Entity, type Kind } from './schema.ts';
import { entityOf, keyOf, listOf, type Scene } from './scene.ts';

// Versions of a display: the base, and what differs in each. A difference is an entity of its own, so that two people
// work on one version, and what they did is proposed, told and taken back like all else.

export type Difference = Entity<'difference'>;

/** Kinds of what is shown, which may be otherwise in a version; people, stock, work and shows are those of the display. */
export const VERSIONED_KINDS = [
  ...['level', 'pad', 'hill', 'hollow', 'water', 'stream', 'terrain', 'way', 'track', 'deck', 'cavity'],
  ...[
    'plot',
    'run',
    'repeat',
    'planting',
    'tree',
    'figure',
    'flag',
    'signboard',
    'device',
    'supply',
    'circuit',
  ],
  ...['recipe', 'customGround', 'partList'],
] as const satisfies readonly Kind[];
const VERSIONED: ReadonlySet<Kind> = new Set(VERSIONED_KINDS);
/** Fields of the display that may be otherwise too. */
const VERSIONED_FIELDS: ReadonlySet<string> = new Set(['season', 'month', 'wind']);

/** Whether a change is about what may be otherwise in a version. */
export const isVersioned = (change: Change): boolean =>
  VERSIONED.has(change.kind) ||
  (change.kind === 'display' &&
    change.op === 'patch' &&
    Object.keys(change.set).every((field) => VERSIONED_FIELDS.has(field)));

/** Groups on which a version hangs: what may differ, and what that names. */
const CONCERNED: readonly Kind[] = [
  ...new Set<Kind>([
    ...['display' as const, 'difference' as const, ...VERSIONED],
    ...REFERENCES.filter(({ kind }) => VERSIONED.has(kind)).map(({ to }) => to),
  ]),
];

/** The differences of a version. */
export const differencesOf = (scene: Pick<Scene, 'difference'>, version: string): Difference[] =>
  listOf(scene, 'difference').filter((one) => one.version === version);

/** A difference as a change of a scene; null where there is nothing to change any more, or nothing that may differ. */
function changeOf(scene: Scene, { of, thing, how, fields }: Difference): Change | null {
  const kind = kindSchema.safeParse(of);
  if (!kind.success) return null;
  const known: Entity<Kind> | undefined = entityOf(scene, kind.data, thing);
  const about = { kind: kind.data, id: thing };
  const change = ((): Change | null => {
    if (how === 'added') return known ? null : { op: 'add', ...about, data: fields };
    if (!known) return null;
    return how === 'gone'
      ? { op: 'remove', ...about, v: known.v }
      : { op: 'patch', ...about, v: known.v, set: fields };
  })();
  return change && isVersioned(change) ? change : null;
}

/** A scene in a version. */
export interface VersionScene {
  scene: Scene;
  /** Differences that do not fit the base any more: what they change is gone, or they name what is gone. */
  lost: Difference[];
}

const RANK = { added: 0, changed: 1, gone: 2 } as const;

/**
 * The display in a version: the base with its differences. Cost: what differs, not what there is; where some of it fits no
 * more, as often as halving finds what.
 * @returns the base itself, and no loss, where there is no such version or nothing differs
 */
export function sceneInVersion(scene: Scene, version: string): VersionScene {
  let left = differencesOf(scene, version).toSorted(
    (a, b) => RANK[a.how] - RANK[b.how] || (a.id < b.id ? -1 : 1),
  );
  let now = scene;
  // What does not fit yet may do so once all else is applied.
  for (let before = -1; left.length > 0 && before !== left.length;) {
    before = left.length;
    const { scene: next, lost } = appliedTo(now, left);
    now = next;
    left = lost;
  }
  return { scene: now, lost: left };
}

/** Differences applied together; where they do not fit, one half after the other. */
function appliedTo(scene: Scene, differences: readonly Difference[]): VersionScene {
  const known = differences.map((one) => ({ one, change: changeOf(scene, one) }));
  const fitting = known.flatMap(({ change }) => change ?? []);
  const lost = known.flatMap(({ one, change }) => (change ? [] : [one]));
  const whole = reduce(scene, fitting);
  if (whole.ok) return { scene: whole.scene, lost };
  if (differences.length === 1) return { scene, lost: [...differences] };
  const half = Math.ceil(differences.length / 2);
  const first = appliedTo(scene, differences.slice(0, half));
  const second = appliedTo(first.scene, differences.slice(half));
  return { scene: second.scene, lost: [...first.lost, ...second.lost] };
}

/** Remembers a version while nothing that it hangs on changes: other groups are those of the scene. */
export function versionKeeper(): (scene: Scene, version: string) => VersionScene {
  let last: { base: Scene; version: string; result: VersionScene } | null = null;
  return (scene, version) => {
    if (last && last.version === version && CONCERNED.every((kind) => last?.base[kind] === scene[kind])) {
      if (last.base === scene) return last.result;
      const shown: Scene = { ...scene };
      const kept = Object.fromEntries(CONCERNED.map((kind) => [kind, last?.result.scene[kind]]));
      const result = { ...last.result, scene: Object.assign(shown, kept) };
      last = { base: scene, version, result };
      return result;
    }
    last = { base: scene, version, result: sceneInVersion(scene, version) };
    return last.result;
  };
}

/** Fields without id and version. */
function fieldsOf(entity: Entity<Kind>): Record<string, unknown> {
  const { id: _id, v: _v, ...fields } = entity;
  return fields;
}

/** What of a thing is otherwise. */
export type ThingDifference = Pick<Difference, 'of' | 'thing' | 'how' | 'fields'>;

/** What makes a scene another one in what may differ, thing by thing. */
export function differencesBetween(base: Scene, shown: Scene): ThingDifference[] {
  return deltaOf(base, shown).flatMap(({ kind, id, entity }): ThingDifference[] => {
    if (!VERSIONED.has(kind) && !(kind === 'display' && id === DISPLAY_ID)) return [];
    const before: Entity<Kind> | undefined = entityOf(base, kind, id);
    const about = { of: kind, thing: id };
    if (!entity) return [{ ...about, how: 'gone', fields: {} }];
    if (!before) return [{ ...about, how: 'added', fields: fieldsOf(entity) }];
    const old = fieldsOf(before);
    const fields = Object.fromEntries(
      Object.entries(fieldsOf(entity)).filter(
        ([key, value]) => !dequal(value, old[key]) && (kind !== 'display' || VERSIONED_FIELDS.has(key)),
      ),
    );
    return Object.keys(fields).length > 0 ? [{ ...about, how: 'changed', fields }] : [];
  });
}

/** The id of the difference of a thing in a version: whoever changes it first gives it the same. */
export const differenceId = (version: string, kind: string, id: string): string =>
  idFor('difference', `${version} ${kind} ${id}`);

/** Changes that make the differences of a version those that lead from the base to what is shown. */
function kept(base: Scene, version: string, shown: Scene, lost: readonly Difference[]): Change[] {
  const wanted = new Map(
    differencesBetween(base, shown).map((one) => [differenceId(version, one.of, one.thing), one]),
  );
  const isLost = new Set(lost.map(({ id }) => id));
  const known = new Map(differencesOf(base, version).map((one) => [one.id, one]));
  const kind = 'difference' as const;
  return [
    ...[...wanted].flatMap(([id, one]): Change[] => {
      const before = known.get(id);
      if (!before) return [{ op: 'add', kind, id, data: { version, ...one } }];
      const isSame = before.how === one.how && dequal(before.fields, one.fields);
      return isSame
        ? []
        : [{ op: 'patch', kind, id, v: before.v, set: { how: one.how, fields: one.fields } }];
    }),
    // What does not fit now may fit again: it goes only with its version.
    ...[...known.values()].flatMap(({ id, v }): Change[] =>
      wanted.has(id) || isLost.has(id) ? [] : [{ op: 'remove', kind, id, v }],
    ),
  ];
}

/**
 * Changes made while a version is shown, as changes of the display.
 * @param changes against the scene in that version
 * @param scope `version`: what may differ becomes a difference; `all`: it is changed in the base, so that it is so in every
 *   version that has no difference of its own there, and no longer differs in this one
 */
export function changesInVersion(
  base: Scene,
  version: string,
  changes: readonly Change[],
  scope: 'version' | 'all',
): { ok: true; changes: Change[] } | { ok: false; sentence: string } {
  // What is done to versions themselves is done to the display.
  if (changes.some(({ kind }) => kind === 'version' || kind === 'difference'))
    return { ok: true, changes: [...changes] };
  const now = sceneInVersion(base, version);
  const after = reduce(now.scene, changes);
  if (!after.ok) return { ok: false, sentence: after.refusal.sentence };
  // A thing that only this version has is changed in it, whatever the scope.
  const isOwn = (change: Change) => change.op !== 'add' && !entityOf(base, change.kind, change.id);
  const ofBase = changes.flatMap(partOfBase).filter((change) => !isOwn(change));
  const fitted = rebase(base, scope === 'all' ? changes.filter((change) => !isOwn(change)) : ofBase);
  if (!fitted.ok) return fitted;
  const next = reduce(base, fitted.changes);
  if (!next.ok) return { ok: false, sentence: next.refusal.sentence };
  return { ok: true, changes: [...fitted.changes, ...kept(next.scene, version, after.scene, now.lost)] };
}

/** What of a change is not about what may differ. */
function partOfBase(change: Change): Change[] {
  if (VERSIONED.has(change.kind)) return [];
  if (change.kind !== 'display' || change.op !== 'patch') return [change];
  const set = Object.fromEntries(Object.entries(change.set).filter(([key]) => !VERSIONED_FIELDS.has(key)));
  return Object.keys(set).length > 0 ? [{ ...change, set }] : [];
}

/** Takes one difference back: the thing is as in the base again. */
export const takeDifferenceBack = ({ id, v }: Difference): Change => ({
  op: 'remove',
  kind: 'difference',
  id,
  v,
});

/** Removes a version with all its differences. */
export function removeVersion(scene: Scene, version: string): Change[] {
  const { v } = scene.version[version] ?? {};
  return v === undefined
    ? []
    : [
        ...differencesOf(scene, version).map(takeDifferenceBack),
        ...listOf(scene, 'display')
          .filter(({ stands }) => stands === version)
          .map(({ id, v: at }): Change => ({
            op: 'patch',
            kind: 'display',
            id,
            v: at,
            set: { stands: null },
          })),
        { op: 'remove', kind: 'version', id: version, v },
      ];
}

/** A version with the differences of another one: what is tried begins from what there is. */
export function copyVersion(scene: Scene, from: string, id: string, name: string): Change[] {
  return [
    { op: 'add', kind: 'version', id, data: { name } },
    ...differencesOf(scene, from).map(({ of, thing, how, fields }): Change => ({
      ...{ op: 'add', kind: 'difference', id: differenceId(id, of, thing) },
      data: { version: id, of, thing, how, fields },
    })),
  ];
}

/**
 * Makes a version the base, as the crew decided: what it shows is the base from then on, and the base until now is kept
 * aside as a version. Each other version stays what it shows; what stood keeps standing.
 * @param keep the version that the base until now becomes
 * @returns the sentence that refuses it where the base does not take what differs
 */
export function adoptVersion(
  scene: Scene,
  version: string,
  keep: { id: string; name: string; note: string },
): { ok: true; changes: Change[] } | { ok: false; sentence: string } {
  const shown = sceneInVersion(scene, version).scene;
  const about = scene.version[version];
  if (!about) return { ok: false, sentence: `There is no version “${version}” any more.` };
  const made = differencesBetween(scene, shown).flatMap(
    (one) => changeOf(scene, { ...one, id: 'x', v: 1, version }) ?? [],
  );
  const next = reduce(scene, made);
  if (!next.ok) return { ok: false, sentence: next.refusal.sentence };
  const others = listOf(scene, 'version')
    .filter(({ id }) => id !== version)
    .flatMap(({ id }) => {
      const now = sceneInVersion(scene, id);
      return kept(next.scene, id, now.scene, now.lost);
    });
  const stands = (was: string | null) => (was === version ? null : was === null ? keep.id : was);
  return {
    ok: true,
    changes: [
      ...made,
      ...others,
      { op: 'add', kind: 'version', id: keep.id, data: { name: keep.name, note: keep.note } },
      ...differencesBetween(next.scene, scene).map((one): Change => ({
        ...{ op: 'add', kind: 'difference', id: differenceId(keep.id, one.of, one.thing) },
        data: { version: keep.id, ...one },
      })),
      ...listOf(next.scene, 'display').map(({ id, v, stands: was }): Change => ({
        ...{ op: 'patch', kind: 'display', id, v },
        set: { stands: stands(was !== null && scene.version[was] ? was : null) },
      })),
      ...differencesOf(scene, version).map(takeDifferenceBack),
      { op: 'remove', kind: 'version', id: version, v: about.v },
    ],
  };
}

/** How a thing is called in the base, or where only a version has it, in that. */
export function differenceName(scene: Scene, { of, thing, fields }: Difference): string {
  const kind = kindSchema.safeParse(of);
  const known: Entity<Kind> | undefined = kind.success ? entityOf(scene, kind.data, thing) : undefined;
  const name = known && 'name' in known ? known.name : fields.name;
  return typeof name === 'string' && name !== '' ? name : keyOf(kind.success ? kind.data : 'display', thing);
}
