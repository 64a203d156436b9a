export { ForceList, balance, type Assembly, type Equilibrium, type JointForces } from './equilibrium.ts';
export { jointsOf, type Joint, type PieceGroup, type StandingPiece, type StudLoad } from './joints.ts';
export type { LoadedJoint } from './graph.ts';
export { judge, type JudgeOptions, type GroupStanding } from './judge.ts';
export { mendsOf, type Mend } from './mend.ts';
export {
  judgeCarried,
  judgedThings,
  piecesOfDeck,
  piecesOfModule,
  verdictOf,
  type CarriedStanding,
  type JudgedRef,
  type PlanMend,
  type Verdict,
  type WeakJoint,
} from './module.ts';
export { planDigest } from './digest.ts';
export { overhangCards, type OverhangCard } from './overhang.ts';
export { MAX_UNTIED, leanCard, tiesAlong, type LeanCard } from './lean.ts';
