import { z } from 'zod';
import type { Batch } from '@quarry/core/document';
import { acknowledgedSchema, type Whereabouts } from '@quarry/protocol/changes';
import { displayDocumentSchema } from '@quarry/protocol/document';
import { call } from './call.ts';

/** Requests about the document of one display: apart from the others, since they know every kind of thing. */
export const documentApi = {
  display: (id: string) => call('GET', `/displays/${id}`, displayDocumentSchema),
  here: (id: string, client: string, where: Whereabouts) =>
    call('POST', `/displays/${id}/here`, z.unknown(), { client, ...where }),
  commit: (id: string, batch: Batch) => call('POST', `/displays/${id}/batches`, acknowledgedSchema, batch),
};

export const streamUrl = (id: string, epoch: number, after: number, client: string) =>
  `/api/displays/${id}/stream?epoch=${epoch}&after=${after}&client=${client}`;
