import { HttpStatus } from '@nestjs/common';
import { LRUCache } from 'lru-cache';
import { displayOf, readScene, sceneInVersion, type Scene } from '@quarry/core/document';
import { writePagePlan } from '@quarry/core/formats';
import { compileRelief } from '@quarry/core/terrain';
import { ApiError } from '../http/errors.ts';
import { publicPage } from '../share/publicPage.ts';
import { enlargedSheet } from './enlargedSheet.ts';
import { listSheet } from './listSheet.ts';
import { pickSheet } from './pickSheet.ts';
import { reportSheet } from './reportSheet.ts';
import { makeSheet, type RenderedDocument } from './sheet.ts';
import type { Job, Outcome } from './press.service.ts';

// Runs in a worker thread: whatever takes long to draw never keeps the thread that saves and streams.

// Scenes come as the text of their rows: a string crosses to another thread quicker than what it describes.

const pdf = (body: Uint8Array, scene: Scene, word: string): RenderedDocument => ({
  ...{ type: 'application/pdf', body, attached: false },
  ...{ name: [displayOf(scene).name, word], ending: 'pdf' },
});

/** How finely grounds are drawn in a picture of a few centimetres. */
const PICTURE_CELLS = 160;

/** The display in a version, called after both. @throws ApiError where there is no such version */
function inVersion(base: Scene, id: string | undefined): Scene {
  if (id === undefined) return base;
  const version = Object.hasOwn(base.version, id) ? base.version[id] : null;
  if (!version)
    throw new ApiError(HttpStatus.NOT_FOUND, 'not-found', `There is no version “${id}” of this display.`);
  const { scene } = sceneInVersion(base, id);
  const display = displayOf(scene);
  return { ...scene, display: { [display.id]: { ...display, name: `${display.name}, ${version.name}` } } };
}

/** Scenes that were read last: of one display several sheets are printed, and its page is asked for again and again. */
const scenes = new LRUCache<string, Scene>({ max: 3 });
function sceneOf(rows: string): Scene {
  const known = scenes.get(rows);
  if (known) return known;
  const scene = readScene(rows);
  scenes.set(rows, scene);
  return scene;
}

async function make(job: Job): Promise<RenderedDocument> {
  switch (job.what) {
    case 'sheet':
      return makeSheet(inVersion(sceneOf(job.rows), job.ask.query.version), job.ask);
    case 'pick': {
      const scene = sceneOf(job.rows);
      return pdf(await pickSheet(scene, job.pick, job.print), scene, 'pick list');
    }
    case 'lists': {
      const scene = sceneOf(job.rows);
      return pdf(await listSheet(scene, job.lists, job.print), scene, job.lists.title);
    }
    case 'enlarged': {
      const scene = sceneOf(job.rows);
      return pdf(
        await enlargedSheet(scene, job.enlarged, job.print),
        scene,
        `${job.enlarged.title} enlarged`,
      );
    }
    case 'report': {
      const plans = { before: sceneOf(job.before), now: sceneOf(job.rows) };
      return pdf(await reportSheet(job.report, plans, job.print), plans.now, 'report');
    }
    case 'page': {
      // Only who draws it loads what makes HTML.
      const { renderPublicPage } = await import('../share/pageView.tsx');
      return {
        ...{ type: 'text/html', attached: false, name: [], ending: 'html' },
        body: renderPublicPage(publicPage(sceneOf(job.rows), job.at, job.names), job.setting),
      };
    }
    case 'picture': {
      const scene = sceneOf(job.rows);
      return {
        ...{ type: 'image/svg+xml', attached: false, name: [], ending: 'svg' },
        body: writePagePlan(scene, compileRelief(scene), { textSize: null, cells: PICTURE_CELLS }),
      };
    }
  }
}

/** Makes what is asked for. A refusal is an outcome too: errors lose their kind between threads. */
export default async function work(job: Job): Promise<Outcome> {
  try {
    return { ok: true, made: await make(job) };
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    return { ok: false, status: error.getStatus(), problem: error.problem };
  }
}
