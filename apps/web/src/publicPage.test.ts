/** @jest-environment jest-fixed-jsdom */

// What keeps an open page for the public fresh: with answers as a server gives them.

const local = (day: number, hour: number) => new Date(2031, 5, day, hour, 40).toISOString();
const moment = (at: string) => `<time datetime="${at}" data-moment>in UTC</time>`;
const wait = (day: string) => `<span data-days-to="${day}">of the server</span>`;
const pageOf = (name: string, ...parts: string[]) =>
  `<html><head><title>${name}</title></head><body><main>${parts.join('')}</main></body></html>`;
const parts = () => [...document.querySelectorAll('main > *')];
const texts = () => parts().map(({ textContent }) => textContent);

const [HEAD, PLAN, FOOT] = [
  `<p>Fair${wait('2031-06-16')}</p>`,
  `<p>At ${moment(local(1, 19))}</p>`,
  '<p>By us</p>',
];
const fetched = jest.fn<Promise<{ status: number; text: () => Promise<string> }>, [string]>();
/** The page is looked at again, and the answer has come. */
async function refreshed(status: number, html: string): Promise<void> {
  fetched.mockResolvedValueOnce({ status, text: () => Promise.resolve(html) });
  await jest.advanceTimersByTimeAsync(20_000);
}

beforeAll(async () => {
  jest.useFakeTimers({ now: new Date(2031, 5, 2, 12) });
  Object.assign(globalThis, { fetch: fetched });
  const { title, body } = new DOMParser().parseFromString(pageOf('Fell', HEAD, PLAN, FOOT), 'text/html');
  Object.assign(document, { title });
  document.body.replaceWith(body);
  await import('./publicPage.ts');
});
afterAll(() => jest.useRealTimers());

test('moments and days are the reader’s own', () => {
  expect(texts()).toEqual(['Fair, in 14 days', 'At 1 Jun, 19:40', 'By us']);
});

test('what changed is replaced, the rest stays where it is; what fails changes nothing', async () => {
  const [head, plan] = parts();
  await refreshed(
    200,
    pageOf('Fell and quay', HEAD, `<p>At ${moment(local(2, 8))}</p>`, '<p>A report</p>', FOOT),
  );
  expect(texts()).toEqual(['Fair, in 14 days', 'At 2 Jun, 08:40', 'A report', 'By us']);
  expect(document.title).toBe('Fell and quay');
  expect(parts()[0]).toBe(head);
  expect(parts()[1]).not.toBe(plan);
  await refreshed(503, pageOf('Busy', '<p>Later</p>'));
  fetched.mockRejectedValueOnce(new TypeError('no network'));
  await jest.advanceTimersByTimeAsync(20_000);
  expect(texts()).toHaveLength(4);
  await refreshed(200, pageOf('Fell', `<p>Fair${wait('2031-06-02')}</p>`, FOOT));
  expect(texts()).toEqual(['Fair, today', 'By us']);
  // A day that is over has no days to come.
  await refreshed(200, pageOf('Fell', `<p>Fair${wait('2031-06-01')}</p>`, FOOT));
  expect(texts()).toEqual(['Fair', 'By us']);
});

test('a page that nobody looks at asks nothing, until it is looked at again', async () => {
  const hidden = jest.spyOn(document, 'hidden', 'get').mockReturnValue(true);
  const asked = fetched.mock.calls.length;
  await jest.advanceTimersByTimeAsync(100_000);
  expect(fetched.mock.calls).toHaveLength(asked);
  hidden.mockReturnValue(false);
  fetched.mockResolvedValueOnce({
    status: 404,
    text: () => Promise.resolve(pageOf('None', '<h1>Nothing</h1>')),
  });
  document.dispatchEvent(new Event('visibilitychange'));
  await jest.advanceTimersByTimeAsync(0);
  expect(texts()).toEqual(['Nothing']);
});
