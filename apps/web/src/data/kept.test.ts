import { keptLoad } from './keptAnswers.ts';
import { forgetCounts } from './keptCounts.ts';
import { forgetDocuments } from './documentStore.ts';
import { loadTracing, putTracing } from './tracings.ts';

// Here, as in a browser that refuses storage, opening a store throws.
const plan = { trips: [], left: [] };
test.each<[string, () => Promise<unknown>]>([
  [
    'what was computed',
    () => keptLoad.keep('d', 'build', 'digest', Object.assign(Object.create(null), plan)),
  ],
  ['counts, on signing out', forgetCounts],
  ['documents, on signing out', forgetDocuments],
  ['a photograph', () => putTracing('front', null)],
])('without storage %s are refused by a promise, which callers catch', async (_, act) => {
  let promise: Promise<unknown> = Promise.resolve();
  expect(() => (promise = act())).not.toThrow();
  await expect(promise).rejects.toThrow();
});
test('without storage there is no photograph', async () => {
  expect(await loadTracing('front')).toBeNull();
});
