import { expose } from 'comlink';
import { listOf, sceneInVersion, type Scene } from '@quarry/core/document';
import { carriedPieces, type CarriedPiece } from '@quarry/core/cut';
import { evaluateRules } from '@quarry/core/findings';
import { valuesByOwner } from '@quarry/core/kit';
import { CountCache } from '@quarry/core/masonry';
import {
  materialsOf,
  needsOverVersions,
  swapBoxOf,
  type Need,
  type VersionNeed,
} from '@quarry/core/materials';
import { effortOf, pieceCounts } from '@quarry/core/progress';
import { compile } from '@quarry/core/terrain';
import { meanSeen } from '@quarry/core/visibility';

/** A version as it comes out. */
export interface JudgedVersion {
  /** Null: the base. */
  id: string | null;
  /** Pieces that it needs, without spares, and those that lie in the swap box while it stands. */
  pieces: number;
  inBox: number;
  /** Of everything that is carried by itself, kg. */
  kg: number;
  /** Of all sections, by their counted pieces and the rates of who builds them. */
  hours: number;
  /** To buy its pieces, money of the display. */
  money: number;
  /** Mean share of its buildings and small scenes that visitors see, 0 to 1; null: not known who looks. */
  seen: number | null;
  errors: number;
  warnings: number;
}

export interface JudgedVersions {
  versions: JudgedVersion[];
  /** Pieces that all of them take. */
  pieces: number;
  /** Parts that not all versions need alike. */
  parts: VersionNeed[];
}

/** What a version weighs, takes and costs. */
function costOf(scene: Scene, needs: readonly Need[], carried: readonly CarriedPiece[]) {
  const counts = pieceCounts(needs);
  const sum = (list: readonly number[]) => list.reduce((total, one) => total + one, 0);
  return {
    kg: sum(carried.map(({ grams }) => grams)) / 1000,
    // Hours that were typed are the same in every version: what is counted tells them apart.
    hours: sum(
      listOf(scene, 'section').map(
        (section) => effortOf(scene, { ...section, hours: null }, counts).hours ?? 0,
      ),
    ),
    money: sum(valuesByOwner(scene, needs).map(({ money }) => money)),
  };
}

/** Counts and judges each version: started for one question and ended after it. */
const worker = {
  judge(
    base: Scene,
    ids: readonly string[],
    today: string,
    onProgress: (share: number) => void,
  ): JudgedVersions {
    // Blocks that are the same in several versions are counted once.
    const book = new CountCache();
    const all = [null, ...ids];
    const counts = all.map((id, i) => {
      const scene = id === null ? base : sceneInVersion(base, id).scene;
      const compiled = compile(scene);
      const materials = materialsOf(scene, compiled, book);
      if (!materials) throw new Error('the count was ended');
      const { rows } = materials;
      const counted = materials.count.mass;
      const found = evaluateRules(scene, { today, relief: compiled.relief, counted, rows });
      const open = found.filter(({ accepted }) => !accepted);
      onProgress((i + 1) / all.length);
      const relief = { ...compiled.relief, counted };
      return {
        id,
        needs: materials.needs,
        ...costOf(scene, materials.needs, carriedPieces(scene, relief)),
        seen: meanSeen(scene, relief),
        errors: open.filter(({ severity }) => severity === 'error').length,
        warnings: open.filter(({ severity }) => severity === 'warning').length,
      };
    });
    const needs = needsOverVersions(counts.map((one) => one.needs));
    const sum = (parts: readonly { qty: number }[]) => parts.reduce((total, { qty }) => total + qty, 0);
    return {
      versions: counts.map(({ needs: own, ...about }, i) => ({
        ...about,
        ...{ pieces: sum(own), inBox: sum(swapBoxOf(needs, i)) },
      })),
      pieces: needs.reduce((total, { most }) => total + most, 0),
      parts: needs.filter(({ by, most }) => by.some((qty) => qty !== most)),
    };
  },
};
export type VersionsWorker = typeof worker;
expose(worker);
