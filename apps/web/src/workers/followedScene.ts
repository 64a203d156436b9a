import type { Rect } from '@quarry/core/grid';
import { emptyScene, withDelta, type Delta, type Scene } from '@quarry/core/document';
import { compile, recompile, type Compiled } from '@quarry/core/terrain';

/** A worker's own copy of the scene with its compiled ground, kept up by what changes. */
export class FollowedScene {
  scene: Scene = emptyScene();
  private known: Compiled | null = null;

  /** The compiled ground of the scene. @throws when the scene cannot be compiled */
  get compiled(): Compiled {
    this.known ??= compile(this.scene);
    return this.known;
  }

  /** Takes in what changed. @returns where the relief may differ; null: everywhere */
  follow(delta: readonly Delta[]): readonly Rect[] | null {
    this.scene = withDelta(this.scene, delta);
    const before = this.known;
    // Until a scene has compiled, the next one is compiled whole.
    this.known = null;
    if (!before) {
      this.known = compile(this.scene);
      return null;
    }
    const step = recompile(before, this.scene);
    this.known = step.compiled;
    return step.changed;
  }
}
