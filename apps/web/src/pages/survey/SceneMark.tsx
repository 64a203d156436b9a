import { MM_PER_STUD, type Rect, quadOf } from '@quarry/core/grid';
import { listOf, type Scene } from '@quarry/core/document';
import type { Reach } from '@quarry/core/reach';
import { frameOf, pointToRoom, rectToRoom, sceneInRoom } from '@quarry/core/venue';
import { MarkGroup, at, moved, on, path, type Mark } from './mark.tsx';
import type { RoomView } from './roomView.ts';

/** The scene as it lies in the room: outline, sections, how far one must reach and, while all is still, from where. */
export function SceneMark({
  scene,
  rect,
  image,
  reach,
  still,
  ...mark
}: Mark & { scene: Scene; rect: Rect<'mm'>; image: string | null; reach: Reach | null; still: boolean }) {
  const { view } = mark;
  const frame = frameOf(scene);
  const parts = sceneInRoom(scene);
  const origin = at(view, pointToRoom(frame, { x: reach?.x ?? 0, y: reach?.y ?? 0 }));
  const stud = MM_PER_STUD * view.scale;
  return (
    <>
      <MarkGroup mark={mark} label="The scene in its place">
        <path
          d={parts.map((part) => path(view, quadOf(part))).join('')}
          className="fill-secondary/15"
          stroke="currentColor"
          strokeWidth="1.6"
        />
        {image && reach && (
          <image
            href={image}
            width={reach.w}
            height={reach.d}
            preserveAspectRatio="none"
            transform={`translate(${origin.x} ${origin.y}) rotate(${frame.turn}) scale(${stud})`}
            style={{ imageRendering: 'pixelated' }}
            pointerEvents="none"
          />
        )}
        <North view={view} rect={rect} turn={frame.turn} />
      </MarkGroup>
      <g transform={moved(view, mark.shift)} pointerEvents="none">
        {listOf(scene, 'section').map((section) => {
          const box = on(view, rectToRoom(frame, section));
          return (
            <g key={section.id} pointerEvents="none">
              <rect {...box} fill="none" stroke="currentColor" strokeDasharray="2 3" strokeWidth="0.8" />
              {box.width > 24 && box.height > 24 && (
                <>
                  <circle
                    cx={box.x + box.width - 13}
                    cy={box.y + box.height - 13}
                    r="9"
                    className="fill-base-100"
                    stroke="currentColor"
                  />
                  <text
                    x={box.x + box.width - 13}
                    y={box.y + box.height - 9}
                    textAnchor="middle"
                    fontSize="11"
                    fontWeight="600"
                    fill="currentColor"
                  >
                    {section.letter}
                  </text>
                </>
              )}
            </g>
          );
        })}
      </g>
      {(still ? (reach?.sides ?? []) : []).map(({ x1, y1, x2, y2 }) => {
        const [a, b] = [at(view, { x: x1, y: y1 }), at(view, { x: x2, y: y2 })];
        return (
          <line
            key={`${x1} ${y1} ${x2} ${y2}`}
            x1={a.x}
            y1={a.y}
            x2={b.x}
            y2={b.y}
            className="stroke-secondary"
            strokeWidth="4"
            pointerEvents="none"
          />
        );
      })}
    </>
  );
}

/** Which side of the scene is the plan's north. */
function North({ view, rect, turn }: { view: RoomView; rect: Rect<'mm'>; turn: number }) {
  const box = on(view, rect);
  const [cx, cy] = [box.x + box.width - 14, box.y + 14];
  return (
    <g transform={`rotate(${turn} ${cx} ${cy})`} pointerEvents="none">
      <path
        d={`M${cx} ${cy + 8}V${cy - 8}M${cx - 4} ${cy - 3}L${cx} ${cy - 9}L${cx + 4} ${cy - 3}`}
        stroke="currentColor"
        fill="none"
      />
    </g>
  );
}
