import { QueryClientProvider } from '@tanstack/react-query';
import { act, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Link, MemoryRouter, Route, Routes } from 'react-router';
import { sceneFrom } from '@quarry/core/document';
import { renderOn, sees } from '../test/renderOn.tsx';
import { Addresses, loadAhead } from './Addresses.tsx';
import { DisplayPages } from './DisplayPages.tsx';
import { api, ApiProblem, queryClient } from './data/api.ts';
import { crewApi } from './data/crewApi.ts';

// What is shown at which address, and to whom. The pages themselves have tests of their own.

jest.mock('./data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
jest.mock('./workers/derived.tsx', () => ({
  DerivedDataProvider: ({ children }: { children: React.ReactNode }) => children,
}));
jest.mock('./pages/displays/DisplaysPage.tsx', () => ({ DisplaysPage: () => <h1>Displays</h1> }));
jest.mock('./pages/welcome/WelcomePage.tsx', () => ({ WelcomePage: () => <h1>Welcome</h1> }));
/** Pages that were loaded. */
const mockLoaded: string[] = [];
jest.mock('./laterPages.ts', () => {
  const page = (name: string) =>
    Object.assign(() => <h1>Page {name}</h1>, {
      load: () => (mockLoaded.push(name), Promise.resolve()),
    });
  const broken = Object.assign(
    () => {
      throw new RangeError('a stud too far');
    },
    { load: () => Promise.reject(new TypeError('no network')) },
  );
  return { LATER_PAGES: { plan: page('plan'), crew: page('crew'), cut: broken } };
});

const iva = { id: 'u', login: 'iva', name: 'Iva Thorsby' };
const scene = sceneFrom({ display: { name: 'Quay', kind: 'diorama' } });
const me = jest.spyOn(api, 'me');
jest.spyOn(crewApi, 'marks').mockResolvedValue({});
beforeEach(() => {
  queryClient.clear();
  localStorage.clear();
  mockLoaded.length = 0;
  me.mockReset().mockResolvedValue(iva);
});

const open = (path: string) =>
  act(async () => {
    render(
      <QueryClientProvider client={queryClient}>
        <MemoryRouter initialEntries={[path]}>
          <Addresses />
        </MemoryRouter>
      </QueryClientProvider>,
    );
  });

test('who is signed in gets the page of the address, who is not the welcome in its place', async () => {
  await open('/');
  await sees('Displays');
  me.mockRejectedValue(new ApiProblem(401, { code: 'signed-out', message: 'Sign in.' }));
  await act(() => queryClient.resetQueries());
  await sees('Welcome');
  expect(screen.queryByText('Displays')).toBeNull();
});

test('a server that does not answer is told, and asked again', async () => {
  me.mockRejectedValue(new ApiProblem(403, { code: 'forbidden', message: 'Not from here.' }));
  await open('/');
  await sees('Open Quarry does not answerNot from here.');
  me.mockResolvedValue(iva);
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await sees('Displays');
});

test.each([
  ['/no-such-page', 'There is no such page'],
  ['/s/some-token', 'The page for the public is not reached'],
])('%s: %s', async (path, words) => {
  await open(path);
  await sees(words);
});

/** The pages of a display, as an address has them. */
const Pages = () => (
  <Routes>
    <Route path="/d/:id/*" element={<DisplayPages user={iva} />} />
  </Routes>
);

test('the pages of a display: the plan first, the others by the rail, which loads them when it is approached', async () => {
  await renderOn(scene, <Pages />, { at: '/d/d' });
  await sees('Page plan');
  const crew = screen.getByRole('link', { name: /Crew/ });
  fireEvent.pointerEnter(crew);
  expect(mockLoaded).toEqual(['crew']);
  await userEvent.click(crew);
  await sees('Page crew');
  expect(screen.queryByText('Page plan')).toBeNull();
});

test('an address of a display that has no page says so beside the rail', async () => {
  await renderOn(scene, <Pages />, { at: '/d/d/nothing' });
  await sees('There is no such pagePick one from the rail.');
  await userEvent.click(screen.getByRole('link', { name: /Plan/ }));
  await sees('Page plan');
});

test('a page that breaks says so, and the next address is tried again', async () => {
  jest.spyOn(console, 'error').mockImplementation(() => undefined);
  await renderOn(
    scene,
    <>
      <Link to="/">Away</Link>
      <Addresses />
    </>,
    { at: '/d/d/cut' },
  );
  await sees('This page brokeReload it; your changes are kept.');
  await userEvent.click(screen.getByRole('link', { name: 'Away' }));
  await sees('Displays');
});

test('what an address needs is loaded ahead; a file that does not come is no error yet', async () => {
  loadAhead('/account');
  expect(mockLoaded).toEqual([]);
  loadAhead('/d/some-display/plan');
  loadAhead('/d/some-display/cut');
  await new Promise(process.nextTick);
  expect(mockLoaded).toEqual(['plan']);
});
