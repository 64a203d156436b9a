import { formatPlates } from '@quarry/core/grid';
import { MAX_STUDS, listOf, reversed, trackLine, endsOf, type Pose, type Scene } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { inStuds, type Picture } from '../ink.ts';
import { drawAbove } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';
import { bridgeFieldSpecs, defaultLevel } from './make.ts';
import { lineLabels } from './names.ts';
import { sleepers, trace } from './strokes.ts';

export const trackBoard: BoardKind = {
  drawings: [
    {
      rank: 25,
      draw: (ctx, picture) =>
        inStuds(ctx, picture, () => {
          for (const track of listOf(picture.scene, 'track')) {
            const { line } = trackLine(track, 0);
            drawAbove(ctx, picture, 'track', track.id, line, () => drawTrack(ctx, picture, line, track.bed));
          }
        }),
    },
  ],
  labels: (picture) => lineLabels(picture, 'track', 'ink'),
  layer: 'ways',
  picked: 100,
  boxed: true,
  tool: {
    draws: 'spot',
    key: 't',
    make: (scene, at, name) => {
      const { id: level, before } = defaultLevel(scene);
      const end = openEnd(scene, at);
      return {
        words: end ? `track on from ${formatPlates(end.z)}` : 'track',
        data: {
          name: name('Track'),
          ...(end ? { x: end.x, y: end.y, heading: end.heading } : at),
          level,
          offset: end ? end.z - (scene.level[level]?.height ?? 0) : 1,
          pieces: [{ go: 'straight' }],
        },
        before,
      };
    },
  },
  fields: [
    field.text('name', 'Name'),
    field.studs('x', 'Starts, from west', -MAX_STUDS, MAX_STUDS),
    field.studs('y', 'From north', -MAX_STUDS, MAX_STUDS),
    ...field.level(),
    field.studs('bed', 'Bed', 0.5, 64),
    field.grade(100),
    field.studs('clearSide', 'Clear, each side', 0, 64),
    field.plates('clearHeight', 'Clear above', 0),
    ...bridgeFieldSpecs(),
  ],
};

/** How near an open end of track must be for a new track to go on from it, studs. */
const JOIN = 4;

/** The open end of a track nearest to a place, as the pose in which another track would begin. */
function openEnd(scene: Scene, at: { x: number; y: number }): Pose | null {
  const ends = listOf(scene, 'track').flatMap((track) => {
    const { joints } = trackLine(track, (scene.level[track.level]?.height ?? 0) + track.offset);
    const { first, last } = endsOf(joints);
    return [reversed(first), last];
  });
  const far = ({ x, y }: Pose) => Math.hypot(x - at.x, y - at.y);
  return ends.filter((end) => far(end) <= JOIN).sort((a, b) => far(a) - far(b))[0] ?? null;
}

function drawTrack(
  ctx: CanvasRenderingContext2D,
  { view, palette }: Picture,
  line: readonly { x: number; y: number }[],
  bed: number,
): void {
  const near = view.scale > 2.5;
  ctx.strokeStyle = palette.ink;
  if (!near) {
    ctx.lineWidth = 2.2 / view.scale;
    trace(ctx, line);
    ctx.stroke();
  }
  ctx.lineWidth = (near ? 1.4 : 1) / view.scale;
  sleepers(ctx, line, near ? bed * 0.4 : 4 / view.scale, near ? 2 : 8 / view.scale);
  if (!near) return;
  ctx.lineWidth = 1.2 / view.scale;
  for (const side of [-2.5, 2.5]) {
    ctx.beginPath();
    line.forEach((point, i) => {
      const { x, y } = point;
      const [a, b] = [line[i - 1] ?? point, line[i + 1] ?? point];
      const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
      const [ox, oy] = [(-(b.y - a.y) / length) * side, ((b.x - a.x) / length) * side];
      if (i === 0) ctx.moveTo(x + ox, y + oy);
      else ctx.lineTo(x + ox, y + oy);
    });
    ctx.stroke();
  }
}
