import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { Route, Routes, useLocation } from 'react-router';
import { sceneFrom } from '@quarry/core/document';
import { LONGEST } from '../../../test/openPage.tsx';
import { renderOn, sees } from '../../../test/renderOn.tsx';
import { ApiProblem, api, keys, queryClient } from '../../data/api.ts';
import { accountApi } from '../../data/accountApi.ts';
import { crewApi } from '../../data/crewApi.ts';
import { JoinPage } from './JoinPage.tsx';
import { ResetPage } from './ResetPage.tsx';
import { SetUpPage, WelcomePage } from './WelcomePage.tsx';

// The ways in: with answers as a server gives them.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const ada = { id: 'u1', login: 'ada', name: 'Ada Fenn' };
const Place = () => <output data-place>{useLocation().pathname}</output>;
const place = () => document.querySelector('[data-place]')?.textContent;
const button = (name: string | RegExp) => screen.getByRole<HTMLButtonElement>('button', { name });
const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name);
const open = (page: ReactNode, at: string, path = at) =>
  renderOn(
    sceneFrom({ display: { name: 'Any', kind: 'city' } }),
    <>
      <Place />
      <Routes>
        <Route path={path} element={page} />
        <Route path="*" element={null} />
      </Routes>
    </>,
    { at },
  );
const refusal = (code: string, message: string) => new ApiProblem(403, { code, message });
/** Who this browser takes to be signed in. */
const signedInAs = () => queryClient.getQueryData<typeof ada>(keys.me)?.name ?? null;
beforeEach(() => {
  localStorage.clear();
  queryClient.clear();
});
afterEach(() => jest.restoreAllMocks());

describe('signing in', () => {
  test('a field left empty is named, a refusal is told and the name stays; nothing of who was here before is shown', async () => {
    jest.spyOn(api, 'welcome').mockResolvedValue({ setupNeeded: false, demo: false });
    const signIn = jest
      .spyOn(api, 'signIn')
      .mockRejectedValueOnce(refusal('wrong', 'This name and password do not belong together.'))
      .mockResolvedValueOnce(ada);
    localStorage.setItem('quarry-displays', '[]');
    queryClient.setQueryData(keys.displays, []);
    await open(<WelcomePage />, '/');
    await sees('I have forgotten my password');
    await userEvent.click(button('Sign in'));
    await sees('Type your sign-in name.');
    await sees('Type your password.');
    expect(field('Password').getAttribute('aria-invalid')).toBe('true');
    expect(signIn).not.toHaveBeenCalled();
    await userEvent.type(field('Sign-in name'), ' ada ');
    await userEvent.type(field('Password'), ' not mine ');
    await userEvent.click(button('Sign in'));
    await sees('This name and password do not belong together.');
    // A password is what it is, with its blanks.
    expect(signIn).toHaveBeenCalledWith('ada', ' not mine ');
    expect(field('Sign-in name').value).toBe(' ada ');
    expect(signedInAs()).toBeNull();
    await userEvent.click(button('Sign in'));
    await waitFor(() => expect(signedInAs()).toBe('Ada Fenn'));
    expect(queryClient.getQueryData(keys.displays)).toBeUndefined();
    expect(localStorage.getItem('quarry-displays')).toBeNull();
  });

  test('a server that does not answer is asked again; the demo’s crew are chosen from', async () => {
    const welcome = jest
      .spyOn(api, 'welcome')
      .mockRejectedValue(new ApiProblem(0, { code: 'offline', message: 'The server is not reached.' }));
    jest.spyOn(api, 'demoCrew').mockResolvedValue([
      { login: 'ada', name: 'Ada Fenn', role: 'owner', line: 'leads it' },
      { login: 'bo', name: 'Bo Marl', role: 'viewer', line: 'looks on' },
    ]);
    const enter = jest.spyOn(api, 'demoSignIn').mockResolvedValue({ ...ada, name: 'Bo Marl' });
    await open(<WelcomePage />, '/');
    // Only after it has been asked twice more, which takes seconds.
    await waitFor(() => screen.getByText('The server is not reached.'), LONGEST);
    expect(welcome).toHaveBeenCalledTimes(3);
    welcome.mockResolvedValue({ setupNeeded: false, demo: true });
    await userEvent.click(button('Try again'));
    await sees('People, places and the show are invented.');
    await userEvent.click(await screen.findByRole('button', { name: /^Bo Marl.*looks on.*viewer/ }));
    expect(enter.mock.calls[0]?.[0]).toBe('bo');
    await waitFor(() => expect(signedInAs()).toBe('Bo Marl'));
  });
});

describe('the first account of an instance', () => {
  const fill = async (values: Record<string, string>) => {
    for (const [label, value] of Object.entries(values)) {
      await userEvent.clear(field(label));
      await userEvent.type(field(label), value);
    }
  };
  test('each field tells its limit; a wrong code loses nothing; then one is in', async () => {
    jest.spyOn(api, 'welcome').mockResolvedValue({ setupNeeded: true, demo: false });
    const setUp = jest
      .spyOn(api, 'setUp')
      .mockRejectedValueOnce(refusal('wrong-code', 'This is not the code that the server printed.'))
      .mockResolvedValueOnce(ada);
    await open(<SetUpPage />, '/setup');
    await sees('Make the first account');
    await fill({ 'Your name': 'Ada Fenn', 'Sign-in name': 'a', Password: 'eleven long' });
    await userEvent.click(button('Begin'));
    await sees('Type the code that the server printed.');
    await sees('A sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores.');
    await sees('at least 12 characters');
    expect(setUp).not.toHaveBeenCalled();
    await fill({
      'One-time code from the terminal': ' AB12 ',
      'Sign-in name': 'Ada',
      Password: 'slate and moss',
    });
    await userEvent.click(button('Begin'));
    await sees('This is not the code that the server printed.');
    const account = { code: 'AB12', name: 'Ada Fenn', login: 'ada', password: 'slate and moss' };
    expect(setUp.mock.calls[0]?.[0]).toEqual(account);
    expect(field('Password').value).toBe('slate and moss');
    await userEvent.click(button('Begin'));
    await waitFor(() => expect(place()).toBe('/'));
    expect(signedInAs()).toBe('Ada Fenn');
  });

  test('its address leads to the beginning once there is an account', async () => {
    jest.spyOn(api, 'welcome').mockResolvedValue({ setupNeeded: false, demo: false });
    await open(<SetUpPage />, '/setup');
    await waitFor(() => expect(place()).toBe('/'));
  });
});

test('a forgotten password: an owner is asked for a code, the code sets a new one and signs in', async () => {
  const message = 'If there is such an account, its owners have a message now.';
  const ask = jest.spyOn(accountApi, 'askReset').mockResolvedValue({ message });
  const reset = jest
    .spyOn(accountApi, 'reset')
    .mockRejectedValueOnce(refusal('wrong-code', 'This name and code do not belong together.'))
    .mockResolvedValueOnce(ada);
  await open(<ResetPage />, '/reset');
  const asks = button('Ask an owner for a code');
  expect(asks.disabled).toBe(true);
  await userEvent.type(field('Sign-in name'), 'ada ');
  await userEvent.click(asks);
  await sees(message);
  expect(ask).toHaveBeenCalledWith('ada');
  await userEvent.type(field('The code you were given'), '0A1B');
  await userEvent.type(field('The new password, at least 12 characters'), 'moss and slate');
  await userEvent.click(button('Set it and sign in'));
  await sees('This name and code do not belong together.');
  expect(reset).toHaveBeenCalledWith('ada', '0A1B', 'moss and slate');
  expect(place()).toBe('/reset');
  await userEvent.click(button('Set it and sign in'));
  await waitFor(() => expect(place()).toBe('/'));
  expect(signedInAs()).toBe('Ada Fenn');
});

describe('an invitation', () => {
  const invited = (me: typeof ada | null) => {
    jest.spyOn(crewApi, 'invited').mockResolvedValue({
      ...{ display: 'Skarn fell', role: 'builder', by: 'Ada Fenn', note: 'The quay is yours.' },
      expiresAt: new Date(2031, 5, 9, 12).getTime(),
    });
    const asked = jest.spyOn(api, 'me');
    if (me) asked.mockResolvedValue(me);
    else asked.mockRejectedValue(new ApiProblem(401, { code: 'signed-out', message: 'Sign in first.' }));
    return jest.spyOn(crewApi, 'join').mockResolvedValue({ display: 'd7' });
  };
  test('one who has an account joins with it', async () => {
    const join = invited({ ...ada, name: 'Bo Marl' });
    await open(<JoinPage />, '/join/t0', '/join/:token');
    await sees('Ada Fenn asks you to join as builder.');
    await sees('The quay is yours.');
    await sees('This link is good once, until 9 Jun 2031.');
    await userEvent.click(button('Join as Bo Marl'));
    expect(join).toHaveBeenCalledWith('t0', null);
    await waitFor(() => expect(place()).toBe('/d/d7/plan'));
  });

  test('one who has none makes it there; a name that is taken is told and nothing typed is lost', async () => {
    const join = invited(null);
    join.mockRejectedValueOnce(new ApiProblem(409, { code: 'taken', message: 'The name bo is taken.' }));
    await open(<JoinPage />, '/join/t0', '/join/:token');
    await sees('Make an account');
    await userEvent.type(field('Your name'), 'Bo Marl');
    await userEvent.type(field('Sign-in name'), 'Bo');
    await userEvent.type(field('Password'), 'moss and slate');
    await userEvent.click(button('Join'));
    await sees('The name bo is taken.');
    expect(place()).toBe('/join/t0');
    await userEvent.type(field('Sign-in name'), '2');
    await userEvent.click(button('Join'));
    const account = { name: 'Bo Marl', login: 'bo2', password: 'moss and slate' };
    await waitFor(() => expect(join).toHaveBeenLastCalledWith('t0', account));
    await waitFor(() => expect(place()).toBe('/d/d7/plan'));
  });

  test('a link that was used opens nothing, and says why', async () => {
    invited(ada);
    jest.spyOn(crewApi, 'invited').mockRejectedValue(refusal('used', 'This link has been used.'));
    await open(<JoinPage />, '/join/t0', '/join/:token');
    await sees('This invitation opens nothing');
    expect(screen.getByRole('alert').textContent).toBe('This link has been used.');
  });
});
