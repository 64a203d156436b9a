import { containsPoint, countOf, intersection, type Rect } from '../grid/index.ts';
import { colourName, partName } from '../catalogue/index.ts';
import type { EvaluatedFinding } from '../findings/index.ts';
import { neighboursOf } from '../cut/index.ts';
import { colourPolicyOf, mayStandIn } from '../materials/index.ts';
import {
  STAGES,
  castCount,
  castSize,
  castWords,
  labelOf,
  listOf,
  type Scene,
  type Section,
  type Stage,
  type Work,
} from '../document/index.ts';

// Suggested tasks, derived from the display: each becomes a task when a person adds it.

export interface OfferedTask {
  /** What it is made from; the task keeps it, so that it is not offered again. */
  source: string;
  name: string;
  section: string | null;
  stage: Stage | null;
  work: Work;
  pieces: number | null;
  /** Hours as we guess them where nothing can be counted; null: by its pieces. */
  likely: number | null;
}

/** A module, or ground in none, with the pieces of its ground. */
export interface CountedBlock extends Rect {
  id: string;
  name: string;
  pieces: number;
}

/** What other rooms know of a scene; null: not known yet. */
export interface AskedOf {
  findings: readonly EvaluatedFinding[] | null;
  blocks: readonly CountedBlock[] | null;
}

/** Hours of what cannot be counted: guesses of ours, no source. */
const HOURS = { finding: 0.5, marker: 0.5, seam: 0.75, advice: 1 };
const NAME_LENGTH = 80;
const STAGE_OF_LIST = {
  building: ['structures', 'structures'],
  figures: ['figures', 'peopled'],
  ground: ['ground', 'ground'],
  planting: ['dressing', 'dressed'],
  lights: ['lights', 'lit'],
  other: ['other', null],
} as const;

/** Everything that is open on a display and not yet a task: sections that are done ask for nothing. */
export function offeredTasks(scene: Scene, { findings, blocks }: AskedOf): OfferedTask[] {
  const sections = listOf(scene, 'section');
  const taken = new Set(listOf(scene, 'task').map(({ source }) => source));
  const offers: OfferedTask[] = [];
  const offer = (source: string, name: string, section: Section | undefined, more: Partial<OfferedTask>) => {
    const ahead = !more.stage || !section || STAGES.indexOf(section.stage) <= STAGES.indexOf(more.stage);
    if (taken.has(source) || section?.stage === 'done' || !ahead) return;
    const { stage = null, work = 'other', pieces = null, likely = null } = more;
    offers.push({
      source,
      name: cut(name),
      section: section?.id ?? null,
      ...{ stage, work, pieces, likely },
    });
  };
  const at = (x: number, y: number) => sections.find((section) => containsPoint(section, x, y));
  const middle = ({ x, y, w, d }: Rect) => at(x + w / 2, y + d / 2);
  const named = (id: string | null) => (id === null ? undefined : scene.section[id]);

  for (const { severity, accepted, key, remedy, things, place } of findings ?? []) {
    if (severity === 'note' || accepted) continue;
    const thing = things.find(({ kind }) => kind === 'section');
    const section = named(thing?.id ?? null) ?? (place ? at(place.x, place.y) : undefined);
    const about = things.find(({ kind }) => kind !== 'section');
    offer(
      `finding:${key}`,
      about ? `${capital(labelOf(scene, about.kind, about.id))}: ${lower(remedy)}` : remedy,
      section,
      { work: 'planning', likely: HOURS.finding },
    );
  }
  for (const marker of listOf(scene, 'marker'))
    if (marker.state === 'open')
      offer(`marker:${marker.id}`, `Decide: ${marker.name}`, middle(marker), {
        ...{ work: 'planning', likely: HOURS.marker },
      });
  for (const { id, part, colour, stands, qty, section, built, swapped } of listOf(scene, 'placeholder'))
    if (built !== null && swapped === null && !mayStandIn(colourPolicyOf(scene, section), colour, stands))
      offer(
        `placeholder:${id}`,
        `Swap ${qty} × ${partName(part)}, ${colourName(stands)} for ${colourName(colour)}`,
        named(section),
        { work: 'structures', pieces: qty },
      );
  for (const { id, a, b } of neighboursOf(scene)) {
    const [mine, theirs] = [middle(a), middle(b)];
    if (!mine || !theirs || mine.id === theirs.id || (scene.seam[id]?.signs.length ?? 0) >= 2) continue;
    const neighbour = scene.person[theirs.owner ?? '']?.name ?? `section ${theirs.letter}`;
    offer(`seam:${id}`, `Agree and sign seam ${a.name}–${b.name} with ${neighbour}`, mine, {
      ...{ work: 'planning', stage: 'ground', likely: HOURS.seam },
    });
  }
  for (const { id, title, state, use, section, askedBy } of listOf(scene, 'thread'))
    if (state === 'accepted' && use !== 'handover')
      offer(
        `advice:${id}`,
        use === 'wish' ? `As ${countOf(askedBy, 'follower')} wished: ${title}` : `As advised: ${title}`,
        named(section),
        { likely: HOURS.advice },
      );
  for (const figure of listOf(scene, 'figure')) {
    if (figure.state === 'placed') continue;
    const { id, name, x, y } = figure;
    offer(`figure:${id}`, `Place “${name}”, ${castWords(castCount(scene, figure))}`, at(x, y), {
      ...{ work: 'figures', stage: 'peopled', pieces: castSize(scene, figure) },
    });
  }
  for (const block of blocks ?? [])
    if (block.pieces > 0)
      offer(`block:${block.id}`, `Ground of ${block.name}`, widest(sections, block), {
        ...{ work: 'ground', stage: 'ground', pieces: block.pieces },
      });
  for (const { id, name, use, purpose, section, copies, lines } of listOf(scene, 'partList')) {
    const [work, stage] = STAGE_OF_LIST[purpose];
    const pieces = copies * lines.reduce((sum, { qty }) => sum + qty, 0);
    if (use === 'need' && section !== null && pieces > 0)
      offer(`list:${id}`, copies > 1 ? `Build ${copies} × ${name}` : `Build ${name}`, named(section), {
        ...{ work, stage, pieces },
      });
  }
  return offers;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
const cut = (text: string) => (text.length > NAME_LENGTH ? `${text.slice(0, NAME_LENGTH - 1)}…` : text);

/** The section that has most of a piece of ground. */
function widest(sections: readonly Section[], rect: Rect): Section | undefined {
  let best: { section: Section; studs: number } | null = null;
  for (const section of sections) {
    const shared = intersection(section, rect);
    const studs = shared ? shared.w * shared.d : 0;
    if (studs > (best?.studs ?? 0)) best = { section, studs };
  }
  return best?.section;
}
