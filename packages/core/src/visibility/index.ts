export * from './seen.ts';
export * from './apparent.ts';
export * from './eyes.ts';
export * from './targets.ts';
export * from './sight.ts';
export { walkMesh, type MeshPart, type WalkMesh } from './walk/index.ts';
