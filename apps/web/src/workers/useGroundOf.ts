import { useEffect, useState } from 'react';
import type { Scene } from '@quarry/core/document';
import { useDerived, type CompiledGround } from './useDerived.ts';

/** The compiled ground of another scene than the one that is shown; null for none, and until it is there. */
export function useGroundOf(scene: Scene | null): CompiledGround | null {
  const core = useDerived(({ core: worker }) => worker);
  const [compiled, setCompiled] = useState<{ of: Scene; ground: CompiledGround } | null>(null);
  const done = compiled?.of ?? null;
  useEffect(() => {
    if (!scene || !core || done === scene) return;
    let wanted = true;
    void core.groundOf(scene).then((ground) => wanted && setCompiled({ of: scene, ground }));
    return () => {
      wanted = false;
    };
  }, [scene, core, done]);
  return compiled && compiled.of === scene ? compiled.ground : null;
}
