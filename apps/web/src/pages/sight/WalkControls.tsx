import { SIDES, SIDE_WORDS, runsEast, type Scene } from '@quarry/core/document';
import { WATCHERS, type WalkMesh } from '@quarry/core/visibility';
import { photoUrl } from '../../data/crewApi.ts';
import { useLink } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { QuantityField, SelectField } from '../../ui/fields.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { momentWord } from '../../ui/words.ts';
import { OFF, STEP, sideLengthOf } from './standpoint.ts';
import type { WalkState } from './useWalk.ts';
import { WATCHER_HEADS } from './watchers.ts';

/** Where one stands, whose eyes look, and at what. @param isRound the display is turned by hand instead */
export function WalkControls({
  walk,
  scene,
  mesh,
  isRound,
}: {
  walk: WalkState;
  scene: Scene;
  mesh: WalkMesh;
  isRound: boolean;
}) {
  const { say } = useMeasureFormat();
  const pick = useView((view) => view.pick);
  const { here, go, heights, viewpoints, viewpoint, standAt, things, looked } = walk;
  const isElsewhere = isRound || viewpoint !== null;
  return (
    <>
      {viewpoints.length > 0 && (
        <SelectField
          label="Stand"
          value={viewpoint ? `${viewpoint.kind} ${viewpoint.id}` : ''}
          disabled={isRound}
          options={[
            { value: '', word: 'before a side' },
            ...viewpoints.map(({ kind, id, name }) => ({ value: `${kind} ${id}`, word: `at ${name}` })),
          ]}
          onCommit={standAt}
        />
      )}
      {viewpoint?.photo && <PhotoBeside scene={scene} id={viewpoint.photo} />}
      <SelectField
        label="Before the side"
        value={here.side}
        disabled={isElsewhere}
        options={SIDES.map((side) => ({ value: side, word: SIDE_WORDS[side] }))}
        onCommit={(side) => go({ side, along: sideLengthOf(mesh, side) / 2 })}
      />
      <SelectField
        label="Eyes of"
        value={here.who}
        disabled={isElsewhere}
        options={WATCHERS.map((who) => ({
          value: who,
          word: `${WATCHER_HEADS[who]}, ${say(heights[who], 'mm')}`,
        }))}
        onCommit={(who) => go({ who })}
      />
      <SelectField
        label="Look at"
        value={looked ? `${looked.kind} ${looked.id}` : ''}
        disabled={isRound}
        options={[
          { value: '', word: 'straight ahead' },
          ...things.map(({ kind, id, name }) => ({ value: `${kind} ${id}`, word: name })),
        ]}
        onCommit={(value) => {
          const thing = things.find(({ kind, id }) => value === `${kind} ${id}`);
          pick(thing ? { kind: thing.kind, id: thing.id } : null);
        }}
      />
      <QuantityField
        label={`Along it, from the ${runsEast(here.side) ? 'west' : 'north'} end`}
        value={Math.round(here.along)}
        measure="mm"
        min={0}
        max={sideLengthOf(mesh, here.side)}
        disabled={isElsewhere}
        onCommit={(along) => go({ along })}
      />
      <QuantityField
        label="Off the scene"
        value={Math.round(here.off)}
        measure="mm"
        min={OFF.min}
        max={OFF.max}
        disabled={isElsewhere}
        onCommit={(off) => go({ off })}
      />
      <p className="ink-2 text-xs py-1">
        {isRound
          ? 'Drag to turn it, with the right button to move it; the wheel goes nearer.'
          : viewpoint
            ? 'Drag to look round.'
            : `In the picture: ← → walk ${say(STEP.along, 'mm')} along the side, ↑ ↓ go ${say(STEP.off, 'mm')} nearer and farther; drag to look round.`}
      </p>
    </>
  );
}

/** The newest photo from where one stands, to hold the plan against. */
function PhotoBeside({ scene, id }: { scene: Scene; id: string }) {
  const link = useLink();
  const photo = scene.photo[id];
  if (!photo) return null;
  const words = `The newest photo from here, ${momentWord(photo.taken)}`;
  return (
    <figure className="py-1">
      <img
        src={photoUrl(link.id, photo.file)}
        alt={words}
        width={photo.width}
        height={photo.height}
        className="w-full h-auto border hair"
      />
      <figcaption className="ink-2 text-[11px]">{words}</figcaption>
    </figure>
  );
}
