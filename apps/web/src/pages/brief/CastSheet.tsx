import { useDeferredValue, useMemo, useState } from 'react';
import { castingOf, oneMoreOf } from '@quarry/core/cast';
import { useScene } from '../../data/useDisplay.tsx';
import { CharacterFields, CharactersPart } from './CharactersPart.tsx';
import { ScenesPart } from './ScenesPart.tsx';
import { VisitorsPart } from './VisitorsPart.tsx';

/** Who plays in which small scene, what can be made of those in hand, and what visitors are told. */
export function CastSheet() {
  const scene = useScene('character', 'figure', 'person');
  // Typing goes first: the casting follows when there is time.
  const settled = useDeferredValue(scene);
  const casting = useMemo(() => castingOf(settled), [settled]);
  const more = useMemo(() => oneMoreOf(settled), [settled]);
  const [character, setCharacter] = useState<string | null>(null);
  const open = character === null ? undefined : scene.character[character];
  return (
    <div className="grid gap-x-10 gap-y-4 grid-cols-1 lg:grid-cols-2 items-start">
      <div className="min-w-0">
        <ScenesPart scene={scene} casting={casting} more={more} onPick={setCharacter} />
        <VisitorsPart />
      </div>
      <div className="min-w-0">
        {open && (
          <CharacterFields key={open.id} scene={scene} character={open} onClose={() => setCharacter(null)} />
        )}
        <CharactersPart scene={scene} casting={casting} picked={character} onPick={setCharacter} />
      </div>
    </div>
  );
}
