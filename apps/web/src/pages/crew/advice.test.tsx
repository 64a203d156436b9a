import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { renderOn } from '../../../test/renderOn.tsx';
import { AdvicePanel } from './AdvicePanel.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
jest.mock('../../data/crewApi.ts', () => ({
  crewApi: { marks: () => Promise.resolve({}), mark: () => Promise.resolve() },
}));

const wish = (id: string, title: string, askedBy: number, state = 'open' as const) => ({
  ...{ id, title, text: `${title}, please.`, by: 'ada', use: 'wish' as const, askedBy, state, section: 'a' },
});
const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama' },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 32, d: 32 }],
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  sections: [{ id: 'a', letter: 'A', name: 'Quay', x: 0, y: 0, w: 32, d: 32, owner: 'bo' }],
  threads: [
    { id: 'ivy', title: 'Ivy on the wall', text: 'It hides the joint.', by: 'ada', section: 'a' },
    wish('cat', 'A cat', 7),
    wish('lamp', 'A lamp', 38),
  ],
  milestones: [
    { id: 'm', name: 'June letter', date: '2031-06-10', promises: [{ of: 'thread', thing: 'lamp' }] },
  ],
});
const ada = { role: 'planner', person: 'ada' } as const;
const titles = () =>
  within(screen.getByRole('list', { name: 'Advice' }))
    .getAllByRole('listitem')
    .map((item) => /A cat|A lamp|Ivy on the wall/.exec(item.textContent ?? '')?.[0]);

test('wishes are told together, those that most followers have first, with the milestone that promises them', async () => {
  const user = userEvent.setup();
  await renderOn(scene, <AdvicePanel />, { actor: ada });
  expect(titles()).toHaveLength(3);
  await user.click(screen.getByRole('button', { name: 'Wishes' }));
  expect(titles()).toEqual(['A lamp', 'A cat']);
  expect(screen.getByRole('status').textContent).toBe('2 wishes of 45 followers: 2 open');
  expect(screen.getByRole('article', { name: 'A lamp' }).textContent).toContain('Wish of followers');
  expect(screen.getByRole('link', { name: 'June letter, 10 Jun 2031' }).getAttribute('href')).toBe(
    '/d/d/brief?sheet=dates',
  );
  await user.click(screen.getByRole('button', { name: /^A cat/ }));
  expect(screen.getByRole('link', { name: 'no milestone yet' })).toBeTruthy();
});

test('a wish is written down with how many asked; more of them are counted later, and it is promised once accepted', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(scene, <AdvicePanel />, { actor: ada, at: '/?new=' });
  await user.type(screen.getByRole('textbox', { name: 'In a few words' }), 'A ship');
  await user.type(screen.getByRole('textbox', { name: /^What and why/ }), 'At the quay.');
  expect(screen.getByRole('button', { name: 'Give the advice' })).toBeTruthy();
  await user.click(screen.getByRole('checkbox', { name: 'A wish of followers' }));
  const asked = screen.getByRole<HTMLInputElement>('spinbutton', { name: 'followers asked for it' });
  await user.clear(asked);
  await user.type(asked, '0');
  expect(asked.validity.rangeUnderflow).toBe(true);
  await user.clear(asked);
  await user.type(asked, '12');
  await user.click(screen.getByRole('button', { name: 'Write down the wish' }));
  expect(acts.at(-1)?.changes[0]).toMatchObject({
    op: 'add',
    data: { title: 'A ship', use: 'wish', askedBy: 12, by: 'ada' },
  });
  const count = screen.getByRole('textbox', { name: 'Followers who asked for it' });
  await user.clear(count);
  await user.type(count, '15{Enter}');
  expect(acts.at(-1)).toMatchObject({
    label: 'counted who wishes “A ship”',
    changes: [{ set: { askedBy: 15 } }],
  });
  await user.click(screen.getByRole('button', { name: 'Wishes' }));
  expect(screen.getByRole('status').textContent).toBe('3 wishes of 60 followers: 3 open');
  await user.click(screen.getByRole('button', { name: /^A lamp/ }));
  await user.click(screen.getByRole('button', { name: 'Accept' }));
  expect(screen.getByRole('status').textContent).toBe('3 wishes of 60 followers: 1 promised, 2 open');
  await user.click(screen.getByRole('button', { name: 'Granted' }));
  expect(acts.at(-1)?.changes[0]).toMatchObject({ id: 'lamp', set: { state: 'resolved' } });
  expect(screen.getByRole('status').textContent).toBe('3 wishes of 60 followers: 1 granted, 2 open');
  expect(screen.getByRole('button', { name: /^A lamp.*38 followers, granted$/ })).toBeTruthy();
});

test('advice is declined with a reason only; who holds no section and wrote it not may not decide', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(scene, <AdvicePanel />, { actor: { role: 'builder', person: 'bo' } });
  await user.click(screen.getByRole('button', { name: /Ivy on the wall/ }));
  expect(screen.getByRole('button', { name: 'Decline' }).hasAttribute('disabled')).toBe(true);
  await user.type(screen.getByRole('textbox', { name: 'Why (needed to decline)' }), 'The joint is meant.');
  await user.click(screen.getByRole('button', { name: 'Decline' }));
  expect(acts.at(-1)?.changes[0]).toMatchObject({
    set: { state: 'declined', answeredBy: 'bo', reason: 'The joint is meant.' },
  });
});

test('a viewer without a person may read, and is told how to speak', async () => {
  await renderOn(scene, <AdvicePanel />, { actor: { role: 'viewer', person: null }, at: '/?new=' });
  expect(screen.getByText(/Your account is nobody on this display yet/)).toBeTruthy();
});
