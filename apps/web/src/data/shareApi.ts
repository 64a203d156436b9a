import { publicPageSchema } from '@quarry/protocol/share';
import { call } from './call.ts';

/** What is asked without an account: a file of its own, so that visitors load nothing of the rest. */
export const shareApi = {
  page: (token: string) => call('GET', `/share/${token}`, publicPageSchema),
};
