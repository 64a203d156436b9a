import { dequal } from 'dequal/lite';
import { contains, intersection, type Rect } from '../grid/index.ts';
import type { Change } from './change.ts';
import { forgery } from './authorship.ts';
import { SEAM_SIDES, type SeamSide } from './kinds/seam.ts';
import { influenceBounds } from './place.ts';
import { isAtLeast, type Role } from './roles.ts';
import { KINDS, isPlanKind, specOf, type Kind, type Section } from './schema.ts';
import { labelOf, listOf, type Scene } from './scene.ts';

/** Who asks: their role on the display and the person entity they are, if any. */
export interface Actor {
  role: Role;
  person: string | null;
}

/** What a builder may say of a section of their own. */
const OWN_SECTION_FIELDS = new Set(['stage', 'stageDone', 'notes']);

/**
 * Why an actor may not make a change, or null when they may. Owners and planners change everything; a builder
 * moves the stage of the sections they own or help on and works on what lies wholly in them; a viewer looks.
 * All of them may give advice.
 * Asked by the server for every batch, and by the pages to disable what would be refused.
 */
export const denialReason = (actor: Actor, scene: Scene, change: Change): string | null =>
  denialReasons(actor, scene)(scene, change);

/**
 * What forbids changes of a batch, one after the other. Nobody but owners and planners gives sections away: whose they
 * are is read once, where the batch begins.
 * @returns asked with the scene that a change meets
 */
export function denialReasons(actor: Actor, scene: Scene): (step: Scene, change: Change) => string | null {
  const own = sectionsOf(scene, actor.person);
  return (step, change) =>
    forgery(step, change) ?? publishing(actor, step, change) ?? notAllowed(actor, step, change, own);
}

/** Why an actor may not let a photo be seen by the public: that is for the one who took it, whatever the actor's role. */
function publishing({ person, role }: Actor, scene: Scene, change: Change): string | null {
  // The author of an added photo is the person who adds it.
  if (change.kind !== 'photo' || change.op !== 'patch' || change.set.published !== true) return null;
  const by = scene.photo[change.id]?.by ?? null;
  if (by === null) return role === 'owner' ? null : 'Only an owner may publish a photo by nobody.';
  return by === person ? null : `Only ${scene.person[by]?.name ?? by} may publish this photo.`;
}

function notAllowed(actor: Actor, scene: Scene, change: Change, own: readonly Section[]): string | null {
  if (isAtLeast(actor.role, 'planner')) return null;
  if (change.kind === 'thread' || change.kind === 'reply') return saidForbidden(actor, scene, change, own);
  if (actor.role === 'viewer') return 'Viewers may look at this display but not change it.';
  if (change.kind === 'section') {
    if (change.op !== 'patch' || !own.some(({ id }) => id === change.id))
      return 'Builders may change only the sections they own or help on.';
    const field = Object.keys(change.set).find((key) => !OWN_SECTION_FIELDS.has(key));
    return field ? `Builders may set the stage and notes of their section, not its ${field}.` : null;
  }
  if (change.kind === 'seam') return seamForbidden(actor, scene, change, own);
  if (change.kind === 'loan') return loanForbidden(actor, scene, change);
  if (change.kind === 'order') {
    const no = sharesForbidden(actor, scene, change);
    if (no) return no;
  }
  if (specOf(change.kind).ownBy) return stockForbidden(actor, scene, change, own);
  const { kind } = change;
  if (!isPlanKind(kind) || specOf(kind).plannersOnly)
    return `Builders may not change a ${KINDS[kind].word}; ask a planner.`;
  const before = change.op === 'add' ? null : scene[kind][change.id];
  const after = change.op === 'remove' ? null : withDefaults(kind, { ...before, ...fieldsIn(change) });
  const inside = (thing: Readonly<Record<string, unknown>>) => {
    const reach = influenceBounds(kind, thing);
    return reach !== null && own.some((section) => contains(section, reach));
  };
  if ((before && !inside(before)) || (after && !inside(after)))
    return `${before ? labelOf(scene, change.kind, change.id) : `The new ${change.kind}`} does not lie wholly in a section of yours.`;
  return null;
}

/** Sections that a person builds, as owner or helper. */
export const sectionsOf = (scene: Pick<Scene, 'section'>, person: string | null): readonly Section[] =>
  listOf(scene, 'section').filter(
    ({ owner, helpers }) => person !== null && (owner === person || helpers.includes(person)),
  );

/** What of a thread the one who wrote it may change, and what those may who are asked. */
const WRITTEN: ReadonlySet<string> = new Set(['title', 'text', 'mentions', 'proposal', 'state', 'askedBy']);
const REPLIED: ReadonlySet<string> = new Set(['text', 'mentions']);
const ANSWERED: ReadonlySet<string> = new Set(['state', 'reason', 'answeredBy']);

/** Everybody on a display may give advice in their own name; those who hold its section answer for it. */
function saidForbidden(
  { person }: Actor,
  scene: Scene,
  change: Change,
  own: readonly { id: string }[],
): string | null {
  if (change.op === 'add') {
    if (person === null || change.data.by !== person) return 'Advice is given in your own name only.';
    const { state = 'open', reason = '', answeredBy = null } = change.data;
    return change.kind === 'thread' && (state !== 'open' || reason !== '' || answeredBy !== null)
      ? 'Advice begins open; others accept or decline it.'
      : null;
  }
  if (change.kind === 'reply') {
    if (person === null || scene.reply[change.id]?.by !== person)
      return 'You may change your own answers only.';
    const field =
      change.op === 'patch' ? Object.keys(change.set).find((key) => !REPLIED.has(key)) : undefined;
    return field ? `You may change the text of your answer, not its ${field}.` : null;
  }
  const thread = scene.thread[change.id];
  // What is not there is refused by the reducer, with better words.
  if (!thread) return null;
  const writes = person !== null && thread.by === person;
  const answers = own.some(({ id }) => id === thread.section);
  if (change.op === 'remove') return writes ? null : 'You may take back your own advice only.';
  const allowed = (key: string) =>
    (writes && WRITTEN.has(key)) ||
    (answers && (key === 'answeredBy' ? change.set.answeredBy === person : ANSWERED.has(key)));
  const no = Object.keys(change.set).find((key) => !allowed(key));
  if (no) return `You may not set the ${no} of this advice: it is not yours, nor about a section of yours.`;
  return !answers &&
    change.set.state !== undefined &&
    !['open', 'resolved'].includes(String(change.set.state))
    ? 'Your own advice is accepted or declined by those it is about.'
    : null;
}

function stockForbidden(
  { person }: Actor,
  scene: Scene,
  change: Change,
  own: readonly { id: string }[],
): string | null {
  const fields = specOf(change.kind).ownBy ?? [];
  const before: Readonly<Record<string, unknown>> | null =
    change.op === 'add' ? null : (scene[change.kind][change.id] ?? null);
  const after = change.op === 'remove' ? null : { ...before, ...fieldsIn(change) };
  const mine = (thing: Readonly<Record<string, unknown>>) =>
    fields.length === 0 ||
    fields.some((field) =>
      field === 'section'
        ? own.some(({ id }) => id === thing.section)
        : person !== null && thing[field] === person,
    );
  if ((before && !mine(before)) || (after && !mine(after)))
    return `Builders may change only what is their own: this ${KINDS[change.kind].word} is not yours.`;
  return null;
}

/** What a lender may say of a loan: how long, and that it is back. */
const LENT: ReadonlySet<string> = new Set(['due', 'back']);

/** A loan is a claim: builders write down what they borrow; that it came back, or is forgiven, is for its lender to say. */
function loanForbidden({ person }: Actor, scene: Scene, change: Change): string | null {
  if (change.op === 'add')
    return person !== null && change.data.to === person
      ? null
      : 'Builders write down what they borrow themselves; for a loan of others ask them, or a planner.';
  const loan = scene.loan[change.id];
  if (!loan) return null;
  if (person === null || loan.from !== person)
    return 'That a loan came back, or is given up, is for its lender to say, or for a planner.';
  const field = change.op === 'patch' ? Object.keys(change.set).find((key) => !LENT.has(key)) : undefined;
  return field
    ? `You may say when a loan of yours is due and that it is back, not change its ${field}.`
    : null;
}

/** Who bears the cost of an order with others is agreed by a planner: a builder may not bill them. */
function sharesForbidden({ person }: Actor, scene: Scene, change: Change): string | null {
  if (change.op === 'remove') return null;
  const { shares } = fieldsIn(change);
  const read = KINDS.order.schema.shape.shares.safeParse(shares);
  // What does not fit its schema is refused by the reducer, with better words.
  if (shares === undefined || !read.success) return null;
  const before = change.op === 'patch' ? (scene.order[change.id]?.shares ?? []) : [];
  const isKept =
    read.data.length === before.length &&
    read.data.every((one, i) => one.person === before[i].person && one.share === before[i].share);
  const bearsAlone = [...read.data, ...before].every((one) => one.person === person);
  return isKept || bearsAlone
    ? null
    : 'Builders may not change how the cost of an order is shared with others; ask a planner.';
}

/** Builders sign, and read what stands, on their own side of a seam; what the other side signed is not theirs to set. */
function seamForbidden({ person }: Actor, scene: Scene, change: Change, own: readonly Rect[]): string | null {
  if (change.op === 'remove') return 'Builders may not do away with what is agreed on a seam; ask a planner.';
  const before = change.op === 'add' ? null : scene.seam[change.id];
  const { id: _id, v: _v, ...fields } = { ...before, ...fieldsIn(change) };
  const after = KINDS.seam.schema.safeParse(fields);
  // What does not fit its schema is refused by the reducer, with better words.
  if (!after.success) return null;
  if (
    before &&
    (before.a !== after.data.a || before.b !== after.data.b || before.tolerance !== after.data.tolerance)
  )
    return 'Builders may not change which modules a seam parts, nor how far it may differ; ask a planner.';
  const mine = SEAM_SIDES.filter((side) => {
    const module = scene.module[after.data[side]];
    return module !== undefined && own.some((section) => intersection(section, module) !== null);
  });
  if (mine.length === 0) return 'Neither side of this seam lies in a section of yours.';
  const foreign = (list: readonly { side: SeamSide }[]) =>
    JSON.stringify(list.filter(({ side }) => !mine.includes(side)));
  const signs = after.data.signs;
  if (
    signs.some(
      (sign) =>
        mine.includes(sign.side) && sign.person !== person && !before?.signs.some((one) => dequal(one, sign)),
    )
  )
    return 'You may sign a seam in your own name only.';
  const kept = foreign(signs) === foreign(before?.signs ?? []);
  const isChanged = !dequal(after.data.agreed, before?.agreed ?? null);
  // When something else is agreed, the other side has to sign again.
  if (isChanged ? foreign(signs) !== '[]' : !kept) return 'You may sign your own side of a seam only.';
  if (foreign(after.data.readings) !== foreign(before?.readings ?? []))
    return 'You may read what stands on your own side of a seam only.';
  return null;
}

const fieldsIn = (change: Exclude<Change, { op: 'remove' }>) =>
  change.op === 'add' ? change.data : change.set;

/** The entity after the change, with defaults for missing fields, so that their size counts too. */
function withDefaults(
  kind: Kind,
  data: Readonly<Record<string, unknown>>,
): Readonly<Record<string, unknown>> {
  const { id: _id, v: _v, ...fields } = data;
  const read = KINDS[kind].schema.safeParse(fields);
  // What does not fit its schema is refused by the reducer, with better words.
  return read.success ? read.data : data;
}
