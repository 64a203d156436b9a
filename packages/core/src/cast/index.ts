export {
  castScenes,
  castingChanges,
  castingOf,
  mayPlay,
  oneMoreOf,
  type Casting,
  type OneMore,
  type SceneCast,
  type SpotCast,
} from './casting.ts';
export { spotFloors, type SpotFloor } from './spotFloors.ts';
export { scenesSeen, type SceneSeen } from './scenesSeen.ts';
