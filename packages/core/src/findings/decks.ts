import { centreOf, countOf, formatPlates, intersection } from '../grid/index.ts';
import {
  ARCH,
  atAlong,
  BARE,
  NO_SLAB,
  eachStudOf,
  eachTouched,
  indexAt,
  levelHeight,
  slabIndex,
  spanOf,
  type Body,
  type Slab,
  type Point,
} from '../terrain/index.ts';
import { labelOf, listOf, type Kind, type Scene } from '../document/index.ts';
import type { FindingDraft, Rule } from './finding.ts';
import { alongWay, heightOfWay, studsTaken } from './plots.ts';

// What is judged of decks and bridges as they are built: steps that nothing ties, two in one place, parts over a seam.

/** Kinds that lie over air themselves. */
export const SLAB_KINDS: readonly Kind[] = ['deck', 'way', 'track'];

/** Core of a slab at a stud, plates: it without the cover, which lies on it and ties nothing. */
const coreOf = ({ under, top, ground }: Slab, k: number) => ({
  from: under[k],
  to: top[k] - (ground[k] === BARE ? 0 : 1),
});

/** Studs of a bridge in parts whose plates can overlap: parts that no pier and no ground carries. */
function looseSteps(slab: Slab): { studs: number; parts: number; wanted: number; at: number } {
  const { w, top, under, foot, borne } = slab;
  const part = new Int32Array(top.length).fill(-1);
  let [studs, parts, wanted, at] = [0, 0, 0, -1];
  const sides = (k: number) =>
    [k % w > 0 ? k - 1 : -1, k % w < w - 1 ? k + 1 : -1, k - w, k + w].filter(
      (next) => next >= 0 && next < top.length && top[next] !== NO_SLAB,
    );
  eachStudOf(slab, (first) => {
    if (part[first] >= 0) return;
    const queue = [first];
    part[first] = first;
    let [carried, step] = [false, 0];
    for (let head = 0; head < queue.length; head++) {
      const k = queue[head];
      carried ||= borne[k] === 1 || foot[k] !== NO_SLAB;
      const core = coreOf(slab, k);
      for (const next of sides(k)) {
        const other = coreOf(slab, next);
        if (Math.min(core.to, other.to) - Math.max(core.from, other.from) < 1) {
          step = Math.max(step, Math.abs(under[next] - under[k]));
          continue;
        }
        if (part[next] >= 0) continue;
        part[next] = first;
        queue.push(next);
      }
    }
    // What stands by itself from end to end hangs too far, and is told so.
    if (carried || step === 0) return;
    studs += queue.length;
    parts++;
    wanted = Math.max(wanted, step + 2);
    if (at < 0) at = first;
  });
  return { studs, parts, wanted, at };
}

const bridgeSteps: Rule = {
  id: 'bridge-steps',
  title: 'A bridge rises in steps that nothing ties',
  basis:
    'A sloping bridge is laid in level pieces, a step each plate. Its plates, without the cover on them, must overlap by one plate where it rises, or a step that stands on no pier and no ground falls. “Stability” on Cut proves it for the whole module.',
  page: 'plan',
  severity: 'error',
  check: ({ scene, relief }) =>
    relief.slabs.flatMap((slab): FindingDraft[] => {
      const { kind, id, x, y, w } = slab;
      // Where nothing carries it at all, the span says so.
      if ((kind !== 'way' && kind !== 'track') || spanOf(slab).far === null) return [];
      const { studs, parts, wanted, at } = looseSteps(slab);
      if (parts === 0) return [];
      const over = scene[kind][id];
      return [
        {
          sentence: `The bridge of “${over.name}” has ${countOf(parts, 'step')} (${countOf(studs, 'stud')}) that nothing ties or carries: it is ${countOf(over.bridgeThick, 'plate')} thick, and ${wanted} are needed where it rises.`,
          remedy: `Make it ${countOf(wanted, 'plate')} thick, or stand a pier under each step.`,
          place: { x: x + (at % w) + 0.5, y: y + Math.trunc(at / w) + 0.5 },
          things: [{ kind, id }],
          numbers: { steps: parts, thick: over.bridgeThick, wanted },
        },
      ];
    }),
};

const decksOverlap: Rule = {
  id: 'decks-overlap',
  title: 'Two decks or bridges fill the same place',
  basis: 'Studs of two decks or bridges whose heights share a plate: only one of them can be built there.',
  page: 'plan',
  severity: 'error',
  check({ scene, relief }) {
    const slabs = relief.slabs.filter(({ kind }) => kind !== 'cavity');
    return slabs.flatMap((a, i) =>
      slabs.slice(i + 1).flatMap((b): FindingDraft[] => {
        if (!intersection(a, b)) return [];
        let [studs, by, at] = [0, 0, { x: 0, y: 0 }];
        eachStudOf(a, (k, x, y) => {
          const m = slabIndex(b, x, y);
          if (m < 0 || b.top[m] === NO_SLAB) return;
          const shared = Math.min(a.top[k], b.top[m]) - Math.max(a.under[k], b.under[m]);
          if (shared <= 0) return;
          if (studs === 0) at = { x: x + 0.5, y: y + 0.5 };
          studs++;
          // Slabs are in the order of their tops: the second is the higher.
          by = Math.max(by, a.top[k] - b.under[m]);
        });
        if (studs === 0) return [];
        const [low, high] = [a, b].map(({ kind, id }) => labelOf(scene, kind, id));
        return [
          {
            sentence: `“${low}” and “${high}” fill the same heights on ${countOf(studs, 'stud')}; they may share 0.`,
            remedy: `Raise “${high}” by ${formatPlates(by)}, or move one of them.`,
            place: at,
            things: [a, b].map(({ kind, id }) => ({ kind: kind as Kind, id })),
            numbers: { studs, by },
          },
        ];
      }),
    );
  },
};

const deckSeam: Rule = {
  id: 'deck-seam',
  title: 'A fixed deck is cut by a seam',
  basis:
    'A deck that does not lift off is built as one part for each module under it, and each part must be carried by itself. One that lifts off is one piece, carried by itself over the seam.',
  page: 'cut',
  severity: 'note',
  check: ({ scene }) =>
    listOf(scene, 'deck').flatMap((deck): FindingDraft[] => {
      const under = listOf(scene, 'module').filter((module) => intersection(module, deck));
      if (deck.loose || under.length < 2) return [];
      const names = under.map(({ name }) => name).join(', ');
      return [
        {
          sentence: `“${deck.name}” lies over ${under.length} modules (${names}) and does not lift off: it is built in ${under.length} parts that meet at the seams.`,
          remedy: 'Stand pillars on both sides of the seam, or let it lift off as one piece.',
          place: centreOf(deck),
          things: [{ kind: 'deck', id: deck.id }],
          numbers: { parts: under.length },
        },
      ];
    }),
};

/** How far an end of a way may lie off a deck's side and still lead on to it, studs. */
const ON_TO = 1.5;

const wayDownHidden: Rule = {
  id: 'way-down-hidden',
  title: 'What stands in the way hides the only way down',
  basis:
    'Roads and paths with one end on a deck and the other lower: where each of them has a building on it, at its own height, nobody gets down from the deck.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    relief.slabs.flatMap((slab): FindingDraft[] => {
      const deck = slab.kind === 'deck' ? scene.deck[slab.id] : undefined;
      if (!deck) return [];
      const top = levelHeight(scene, deck);
      const isOn = ({ x, y }: { x: number; y: number }) =>
        x >= deck.x - ON_TO &&
        y >= deck.y - ON_TO &&
        x <= deck.x + deck.w + ON_TO &&
        y <= deck.y + deck.d + ON_TO;
      // A line may end on the border of a stud that it does not cover: half a stud in it is on its own, whichever way it goes.
      const heightAt = (id: string, line: readonly Point[]) => {
        const { x, y } = atAlong(line, 0.5);
        const [column, row] = [Math.floor(x), Math.floor(y)];
        return indexAt(relief, column, row) < 0 ? null : heightOfWay(relief, id, column, row);
      };
      const down = listOf(scene, 'way').filter(({ id, use, points }) => {
        if (use !== 'road' && use !== 'path') return false;
        return [points, points.toReversed()].some((line) => {
          const [end, other] = [line[0], line[line.length - 1]];
          const [high, low] = [heightAt(id, line), heightAt(id, line.toReversed())];
          const leads = high !== null && Math.abs(high - top) <= 1 && low !== null && low < top - 1;
          return leads && isOn(end) && !isOn(other);
        });
      });
      const plots = listOf(scene, 'plot');
      const blocked = down.map((way) => ({
        way,
        plot: plots.find((plot) => studsTaken(scene, relief, plot, alongWay(relief, way)) > 0),
      }));
      const [first] = blocked;
      if (!first?.plot || blocked.some(({ plot }) => !plot)) return [];
      const { way, plot } = first;
      return [
        {
          sentence: `“${plot.name}” stands on “${way.name}”, ${down.length === 1 ? 'the only way' : `one of ${down.length} ways, all of them taken,`} down from “${deck.name}”; 1 at least must be free.`,
          remedy: 'Move what stands there, or lead another way down.',
          place: centreOf(plot),
          things: [
            { kind: 'plot', id: plot.id },
            { kind: 'way', id: way.id },
          ],
          part: deck.id,
          numbers: { ways: down.length },
        },
      ];
    }),
};

/** What a deck or bridge stands on, in words: in the singular. */
const supportWord = (scene: Scene, { kind, id }: Slab): string => {
  const deck = kind === 'deck' ? scene.deck[id] : undefined;
  if (!deck || deck.support === 'arches') return 'pier';
  return { pillars: 'pillar', walls: 'wall', ends: 'end' }[deck.support];
};

const supportHits: Rule = {
  id: 'support-hits',
  title: 'A deck’s support stands in something',
  basis:
    'Studs on which a pillar, a wall or a pier of a deck or bridge stands, at its heights, against what stands under it: buildings, walls, trees, scenes. Only one of them can be built there.',
  page: 'plan',
  severity: 'error',
  check({ scene, relief, bodies }) {
    const found = new Map<string, { slab: Slab; body: Body; studs: Set<number>; first: Point }>();
    for (const slab of relief.slabs) {
      if (slab.kind === 'cavity') continue;
      for (const body of bodies()) {
        if (SLAB_KINDS.includes(body.kind) || !intersection(body.bounds, slab)) continue;
        const key = `${slab.kind} ${slab.id} ${body.kind} ${body.id}`;
        eachTouched(body.corners, slab, (row, from, to) => {
          for (let x = from; x < to; x++) {
            const k = slabIndex(slab, x, row);
            const stands = slab.top[k] !== NO_SLAB && slab.foot[k] !== NO_SLAB && slab.arch[k] === ARCH.none;
            if (!stands || body.begins >= slab.under[k] || body.top <= slab.foot[k]) continue;
            const known = found.get(key) ?? { slab, body, studs: new Set<number>(), first: { x, y: row } };
            found.set(key, known);
            known.studs.add(k);
          }
        });
      }
    }
    return [...found.values()].map(({ slab, body, studs, first }) => ({
      sentence: `A ${supportWord(scene, slab)} of “${labelOf(scene, slab.kind, slab.id)}” stands in “${labelOf(scene, body.kind, body.id)}” on ${countOf(studs.size, 'stud')}; 0 are free for both.`,
      remedy: 'Move it, or set the supports at another spacing.',
      place: { x: first.x + 0.5, y: first.y + 0.5 },
      things: [
        { kind: slab.kind, id: slab.id },
        { kind: body.kind, id: body.id },
      ],
      numbers: { studs: studs.size },
    }));
  },
};

export const DECK_RULES: readonly Rule[] = [bridgeSteps, decksOverlap, deckSeam, supportHits, wayDownHidden];
