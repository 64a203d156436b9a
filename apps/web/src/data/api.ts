import type { BuiltWay } from '@quarry/core/formats';
import { QueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import type { Start } from '@quarry/core/document';
import { demoMemberSchema, userSchema, welcomeSchema } from '@quarry/protocol/accounts';
import {
  createdDisplaySchema,
  displayLineSchema,
  keptPieceSchema,
  pieceTextSchema,
} from '@quarry/protocol/displays';
import { ApiProblem, call, callForFile, queryOf, type PaperQuery } from './call.ts';

export { ApiProblem } from './call.ts';

const nothing = z.unknown();
export const displaysSchema = z.array(displayLineSchema);

export const api = {
  welcome: () => call('GET', '/welcome', welcomeSchema),
  me: () => call('GET', '/me', userSchema),
  signIn: (login: string, password: string) => call('POST', '/session', userSchema, { login, password }),
  signOut: () => call('DELETE', '/session', nothing),
  setUp: (body: { code: string; login: string; name: string; password: string }) =>
    call('POST', '/setup', userSchema, body),
  demoCrew: () => call('GET', '/demo/crew', z.array(demoMemberSchema)),
  demoSignIn: (login: string) => call('POST', '/demo/session', userSchema, { login }),
  displays: () => call('GET', '/displays', displaysSchema),
  createDisplay: (name: string, start: Start) =>
    call('POST', '/displays', createdDisplaySchema, { name, start }),
  copyDisplay: (id: string, name: string) =>
    call('POST', `/displays/${id}/copy`, createdDisplaySchema, { name }),
  importDisplay: (text: string) => call('POST', '/displays/import', createdDisplaySchema, text, true),
  keptPieces: () => call('GET', '/displays/pieces', z.array(keptPieceSchema)),
  pieceText: (display: string, piece: string) =>
    call('GET', `/displays/${display}/pieces/${piece}`, pieceTextSchema),
  removeDisplay: (id: string) => call('DELETE', `/displays/${id}`, nothing),
  pickList: (id: string, lines: readonly object[], paper: PaperQuery) =>
    callForFile(`/displays/${id}/sheets/pick.pdf?${queryOf(paper)}`, { lines }),
  /** Prints lists as the page worked them out. */
  lists: (id: string, lists: { title: string; sections: readonly object[] }, paper: PaperQuery) =>
    callForFile(`/displays/${id}/sheets/lists.pdf?${queryOf(paper)}`, lists),
  /** Prints a drawing at so many studs. */
  enlarged: (
    id: string,
    drawing: { title: string; way: BuiltWay; studs: number; picture: string },
    paper: PaperQuery,
  ) => callForFile(`/displays/${id}/sheets/enlarged.pdf?${queryOf(paper)}`, drawing),
};

export const archiveUrl = (id: string) => `/api/displays/${id}/photos`;
/** The plan as a picture, as it was after a number of its log. */
export const pictureUrl = (id: string, seq: number) => `/api/displays/${id}/picture?seq=${seq}`;
export const fileUrl = (id: string) => `/api/displays/${id}/file`;

/** What was asked and not found or not allowed is not asked again by itself. */
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      retry: (count, error) =>
        count < 2 && !(error instanceof ApiProblem && error.status >= 400 && error.status < 500),
    },
  },
});
export const keys = {
  welcome: ['welcome'],
  me: ['me'],
  crew: ['demo-crew'],
  displays: ['displays'],
  keptPieces: ['kept-pieces'],
  display: (id: string) => ['display', id],
  members: (id: string) => ['display', id, 'members'],
  invitations: (id: string) => ['display', id, 'invitations'],
  share: (id: string) => ['display', id, 'share'],
  marks: (id: string) => ['display', id, 'marks'],
  history: (id: string) => ['display', id, 'history'],
  past: (id: string, seq: number) => ['display', id, 'past', seq],
  sessions: ['sessions'],
  letters: ['letters'],
};
