import fc from 'fast-check';
import { moveAll, reduce, sceneFrom, influenceBounds, type Scene } from '@quarry/core/document';
import { contains } from '@quarry/core/grid';
import { dirtyParts } from './dirty.ts';
import type { Picture } from './ink.ts';
import { PALETTES } from './palette.ts';
import { rectToScreen } from './viewport.ts';

const scene = sceneFrom({
  display: { name: 'Large', kind: 'city' },
  levels: [{ id: 'l', name: 'Street', height: 18 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 480, d: 320 }],
  plots: Array.from({ length: 60 }, (_, i) => ({
    id: `p${i}`,
    name: `House ${i}`,
    x: (i % 12) * 40,
    y: Math.trunc(i / 12) * 60,
    w: 12,
    d: 10,
    height: 20,
  })),
  notes: [{ id: 'n', name: 'Bring the spare pump', x: 20, y: 20 }],
});
const picture = (of: Scene, more: Partial<Picture> = {}): Picture => ({
  scene: of,
  art: null,
  findings: [],
  palette: PALETTES.day,
  view: { scale: 2, x: 0, y: 0 },
  width: 1000,
  height: 700,
  hidden: NOTHING,
  level: null,
  cut: null,
  images: NO_IMAGES,
  metric: 'mm',
  ...more,
});
const NOTHING: ReadonlySet<never> = new Set<never>();
const NO_IMAGES: ReadonlyMap<string, CanvasImageSource> = new Map();
const done = (changes: Parameters<typeof reduce>[1]): Scene => {
  const next = reduce(scene, changes);
  if (!next.ok) throw new Error(next.refusal.sentence);
  return next.scene;
};

describe('what must be drawn again', () => {
  test('nothing when nothing differs, even if a change came back as another object', () => {
    const same = { ...scene, plot: { ...scene.plot, p1: { ...scene.plot.p1 } } };
    expect(dirtyParts(picture(scene), picture(same))).toEqual([]);
  });
  test('a moved building: where it was and where it is, wherever that may be', () => {
    const shift = fc.integer({ min: -60, max: 60 });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 59 }), shift, shift, (which, dx, dy) => {
        const pick = { kind: 'plot' as const, id: `p${which}` };
        const after = done(moveAll(scene, [pick], dx, dy).concat(dx === 0 && dy === 0 ? [renamed] : []));
        const parts = dirtyParts(picture(scene), picture(after));
        if (dx === 0 && dy === 0) return parts?.length === 1;
        return [scene, after].every((one) => {
          const spread = influenceBounds('plot', one.plot[pick.id]);
          const on = spread && rectToScreen({ scale: 2, x: 0, y: 0 }, spread);
          return on !== null && (parts ?? []).some((part) => contains(part, on));
        });
      }),
    );
  });
  const renamed = { op: 'patch' as const, kind: 'note' as const, id: 'n', v: 1, set: { name: 'Fetch it' } };
  test('a note: its slip alone, since words are lettered apart', () => {
    const [part] = dirtyParts(picture(scene), picture(done([renamed]))) ?? [];
    expect(part.w).toBeLessThan(100);
  });
  test.each([
    [
      'a level, which many things lie on',
      { after: () => done([{ op: 'patch', kind: 'level', id: 'l', v: 1, set: { height: 21 } }]) },
    ],
    ['another section cut', { more: { cut: { a: { x: 0, y: 4 }, b: { x: 9, y: 4 } } } }],
    ['another size', { more: { width: 900 } }],
    ['the night palette', { more: { palette: PALETTES.night } }],
    [
      'more of the board than it is worth',
      {
        after: () =>
          done(
            moveAll(
              scene,
              Object.keys(scene.plot).map((id) => ({ kind: 'plot' as const, id })),
              1,
              0,
            ),
          ),
      },
    ],
  ] as [string, { after?: () => Scene; more?: Partial<Picture> }][])(
    'everything after %s',
    (_, { after, more }) => {
      expect(dirtyParts(picture(scene), picture(after?.() ?? scene, more))).toBeNull();
    },
  );
  test('not for a section cut that is the same line again', () => {
    const cut = () => ({ a: { x: 0, y: 4 }, b: { x: 9, y: 4 } });
    expect(dirtyParts(picture(scene, { cut: cut() }), picture(scene, { cut: cut() }))).toEqual([]);
  });
});
