import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { renderOn, sees } from '../../../test/renderOn.tsx';
import { ApiProblem, queryClient } from '../../data/api.ts';
import { accountApi } from '../../data/accountApi.ts';
import { AccountPage } from './AccountPage.tsx';

// One's own account: with answers as a server gives them.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const ada = { id: 'u1', login: 'ada', name: 'Ada Fenn', keeper: false };
const button = (name: string) => screen.getByRole('button', { name });
beforeEach(() => queryClient.clear());
afterEach(() => jest.restoreAllMocks());

test('an account: the password, where it is signed in, and leaving only with the password', async () => {
  const now = { createdAt: Date.now(), seenAt: Date.now() };
  jest.spyOn(accountApi, 'sessions').mockResolvedValue([
    { id: 's1', agent: 'Mozilla/5.0 (X11; Linux) Firefox/140', ...now, here: true },
    { id: 's2', agent: 'curl', ...now, here: false },
  ]);
  const end = jest.spyOn(accountApi, 'endSession').mockResolvedValue(undefined);
  const set = jest
    .spyOn(accountApi, 'setPassword')
    .mockRejectedValueOnce(new ApiProblem(403, { code: 'forbidden', message: 'This is not your password.' }))
    .mockResolvedValueOnce(undefined);
  const leave = jest
    .spyOn(accountApi, 'removeAccount')
    .mockRejectedValue(new ApiProblem(403, { code: 'forbidden', message: 'This is not your password.' }));
  await renderOn(sceneFrom({ display: { name: 'Any', kind: 'city' } }), <AccountPage user={ada} />);
  await sees('Firefox on Linux');
  await sees('curl');
  await userEvent.click(button('End the session of curl'));
  expect(end.mock.calls[0]?.[0]).toBe('s2');
  const [old, fresh] = [
    screen.getByLabelText<HTMLInputElement>('The one you have'),
    screen.getByLabelText<HTMLInputElement>('The new one, at least 12 characters'),
  ];
  expect(fresh.minLength).toBe(12);
  await userEvent.type(old, 'wrong');
  await userEvent.type(fresh, 'quartz seam ninety');
  await userEvent.click(button('Change it'));
  await sees('This is not your password.');
  expect(fresh.value).toBe('quartz seam ninety');
  await userEvent.click(button('Change it'));
  await waitFor(() => expect(fresh.value).toBe(''));
  expect(set).toHaveBeenCalledTimes(2);
  await userEvent.click(button('Delete my account …'));
  await userEvent.type(screen.getByLabelText('Your password'), 'wrong');
  await userEvent.click(button('Delete it'));
  await waitFor(() => expect(leave).toHaveBeenCalledWith('wrong'));
  expect(screen.getByRole('dialog', { name: 'Delete the account of Ada Fenn?' })).toBeTruthy();
});
