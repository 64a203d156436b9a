import { lengthOfLine, formatPlates } from '@quarry/core/grid';
import { atAlong } from '@quarry/core/terrain';
import { listOf } from '@quarry/core/document';
import { MONO, SANS, visible, type Picture } from '../ink.ts';
import { LABEL_RANKS, textLabel, type BoardLabel, type LabelLine } from '../labels.ts';
import { lineOf, placeOf } from '../place.ts';
import { rectToScreen, toScreen } from '../viewport.ts';
import { upright } from './strokes.ts';

// Names on the plan, as on a map: spaced letters for water and heights, along the line for ways and streams.

/** Shares of a line at which its name may stand, the best first. */
const ALONG = [0.3, 0.5, 0.7, 0.15, 0.85];
/** Ways from a name's own place, in lines of 14 px up and down. */
const LINES = [0, -1, 1, -2, 2, -3, 3];

const spaced = (name: string, ink: string): LabelLine => ({
  text: name.toUpperCase(),
  font: `italic 500 12px ${SANS}`,
  ink,
  spaced: 2,
});

/** Spots above and below a place, within a rectangle. */
const stacked = (x: number, y: number, on: { y: number; d: number }) =>
  LINES.map((line) => ({ x, y: y + 14 * line })).filter(
    (spot) => spot.y > on.y + 6 && spot.y < on.y + on.d - 6,
  );

/** The name of a sheet of water with its level, where both have room; else the name alone. */
export function waterLabel(
  picture: Picture,
  kind: 'water' | 'pad',
  { id, name, level, offset }: { id: string; name: string; level: string; offset: number },
): BoardLabel[] {
  const { palette, scene } = picture;
  const place = placeOf(scene, { kind, id });
  const on = place && visible(picture, place);
  if (!on || on.w < 40 || on.d < 16) return [];
  const title = spaced(name, palette.tarn);
  const words = `level ${formatPlates((scene.level[level]?.height ?? 0) + offset)}`;
  const whole = on.w >= 90 && on.d >= 36;
  return [
    {
      rank: LABEL_RANKS.water,
      says: [
        ...(whole ? [[title, { text: words, font: `11px ${MONO}`, ink: palette.tarn }]] : []),
        ...(on.w >= 9 * name.length ? [[title]] : []),
      ],
      spots: stacked(on.x + on.w / 2, on.y + on.d / 2, on),
      ground: { as: 'halo', paper: palette.water },
    },
  ];
}

/** The name of an area over or under the ground with what is told of it, where both have room; else the name alone. */
export function areaLabel(
  picture: Picture,
  area: { name: string; x: number; y: number; w: number; d: number },
  words: string,
): BoardLabel[] {
  const on = visible(picture, area);
  if (!on || on.w < 30 || on.d < 14) return [];
  const { palette } = picture;
  const title = { text: area.name, font: `500 11px ${SANS}`, ink: palette.ink };
  const note = { text: words, font: `10px ${MONO}`, ink: palette.ink2 };
  return [
    {
      rank: LABEL_RANKS.plot,
      says: [
        ...(on.d >= 34 && on.w >= 6 * Math.max(words.length, area.name.length) ? [[title, note]] : []),
        ...(on.w >= 6 * area.name.length ? [[title]] : []),
      ],
      spots: stacked(on.x + on.w / 2, on.y + on.d / 2, on),
      ground: { as: 'halo', paper: palette.sheet },
    },
  ];
}

/** The names of hills or hollows at their ridges. */
export function risingLabels(picture: Picture, kind: 'hill' | 'hollow'): BoardLabel[] {
  const { palette, scene, art, view } = picture;
  return listOf(scene, kind).flatMap(({ name, ridge, ...form }) => {
    const on = visible(picture, form);
    if (!on || on.w < 60 || on.d < 30) return [];
    const line = spaced(name, palette.ink);
    const half = (9 * name.length) / 2 + 8;
    const at = {
      x: on.x + ((ridge.x1 + ridge.x2) / 2) * on.w,
      y: on.y + ((ridge.y1 + ridge.y2) / 2) * on.d - 12,
    };
    // A hill may have its top beyond the edge: its name stays in the scene.
    const scenery = art ? rectToScreen(view, art.relief) : on;
    const x = Math.min(
      Math.max(at.x, scenery.x + half),
      Math.max(scenery.x + half, scenery.x + scenery.w - half),
    );
    const y = Math.min(Math.max(at.y, scenery.y + 30), scenery.y + scenery.d - 12);
    return [
      {
        rank: LABEL_RANKS.rising,
        says: on.w >= 9 * name.length ? [[line]] : [],
        spots: stacked(x, y, { y: on.y - 20, d: on.d + 40 }),
        ground: { as: 'halo', paper: palette.sheet },
      },
    ];
  });
}

/** The names of lines along them, where they are long and wide enough. @param ink of which colour */
export function lineLabels(
  picture: Picture,
  kind: 'way' | 'stream' | 'track',
  ink: 'ink' | 'tarn',
): BoardLabel[] {
  const { palette, scene, view } = picture;
  return listOf(scene, kind).flatMap(({ id, name }) => {
    const line = lineOf(scene, kind, id);
    if (!line) return [];
    const long = lengthOfLine(line.points);
    if (long * view.scale < 6.2 * name.length + 60 || line.width * view.scale < 13) return [];
    return ALONG.map((share) => {
      const { x, y, angle } = atAlong(line.points, long * share);
      return { at: toScreen(view, x, y), angle: upright(angle) };
    })
      .slice(0, 1)
      .map(({ at, angle }) =>
        textLabel(picture, LABEL_RANKS.line, name, [at, ...along(at, angle)], {
          ink: palette[ink],
          paper: ink === 'tarn' ? palette.water : palette.sheet,
          angle,
        }),
      );
  });
}

/** Places before and behind a spot on a line, px. */
const along = ({ x, y }: { x: number; y: number }, angle: number) =>
  [40, -40, 80, -80].map((by) => ({ x: x + by * Math.cos(angle), y: y + by * Math.sin(angle) }));
