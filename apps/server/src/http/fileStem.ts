import { displayOf, type Scene } from '@quarry/core/scene';

/** A display's name as the beginning of a file's: small letters, digits and hyphens. */
export const fileStem = (scene: Scene): string =>
  displayOf(scene)
    .name.toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'display';
