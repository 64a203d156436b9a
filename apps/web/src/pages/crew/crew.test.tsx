import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { listOf, sceneFrom, type Actor } from '@quarry/core/document';
import type { HistoryLine } from '@quarry/protocol/history';
import type { Member } from '@quarry/protocol/crew';
import { openPage, stopAt } from '../../../test/openPage.tsx';
import { crewApi } from '../../data/crewApi.ts';
import { queryClient } from '../../data/api.ts';
import { CrewPage } from './CrewPage.tsx';

// Who is on a display and what they did: with answers as a server gives them.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));
// Nothing is drawn here.
jest.mock('../../board/Board.tsx', () => ({ Board: ({ label }: { label: string }) => <p>{label}</p> }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama' },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF', town: 'Skarn' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
    { id: 'cy', name: 'Cy Nook', initials: 'CN' },
  ],
  sections: [
    { id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 48, owner: 'ada', stage: 'dressed' },
    { id: 'b', letter: 'B', name: 'East', x: 48, y: 0, w: 48, d: 48 },
  ],
  tasks: [{ id: 't', name: 'Lay the kerb', section: 'a' }],
});
const open = (sheet: string, actor: Actor = { role: 'owner', person: 'ada' }) =>
  openPage(scene, <CrewPage />, `crew?sheet=${sheet}`, actor);
beforeAll(() => stopAt('2031-06-02'));
beforeEach(() => {
  queryClient.clear();
  jest.spyOn(crewApi, 'mark').mockResolvedValue(undefined);
  jest.spyOn(crewApi, 'marks').mockResolvedValue({});
});
afterEach(() => jest.restoreAllMocks());

describe('history', () => {
  const entry = (
    seq: number,
    at: string,
    author: string,
    sentences: string[],
    mine = false,
  ): HistoryLine => ({
    ...{ seq, id: `b${seq}`, author, mine, at: new Date(at).getTime(), label: `act ${seq}` },
    descriptions: sentences.map((sentence) => ({ kind: 'hill', id: 'h', sentence, section: null })),
  });
  const lines = [
    entry(4, '2031-06-01T18:30:00', 'Bo Marl', [
      'raised East hill',
      'moved a tree',
      'moved b',
      'moved c',
      'e',
    ]),
    entry(3, '2031-06-01T09:00:00', 'Ada Fenn', ['added East hill'], true),
    entry(2, '2031-05-31T20:00:00', 'Ada Fenn', []),
  ];
  const history = () =>
    jest.spyOn(crewApi, 'history').mockResolvedValue({
      ...{ lines, begins: { seq: 1, at: lines[2]?.at ?? 0 }, seq: 4 },
      authors: ['Ada Fenn', 'Bo Marl'],
    });

  test('sentences by day, the rest of a long one on demand; a day has its own hours, also when clocks change', async () => {
    const asked = history();
    const page = await open('history');
    await page.sees('Sunday 1 June');
    await page.sees('Saturday 31 May');
    await page.sees('18:30 Bo Marl raised East hill; moved a tree; moved b');
    expect(page.text()).not.toContain('moved c');
    await page.press('and 2 more');
    await page.sees('moved c');
    // Of before sentences were kept its label is told.
    await page.sees('20:00 Ada Fenn act 2');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Person' }), 'Bo Marl');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Section' }), 'B, East');
    fireEvent.change(screen.getByLabelText('Day'), { target: { value: '2031-03-30' } });
    const next = new Date(2031, 2, 31).getTime();
    await waitFor(() =>
      expect(asked.mock.calls.at(-1)?.[1]).toMatchObject({
        ...{ author: 'Bo Marl', section: 'b', from: new Date(2031, 2, 30).getTime(), to: next, limit: 60 },
      }),
    );
    await page.press('Show all');
    expect(screen.getByRole<HTMLSelectElement>('combobox', { name: 'Person' }).value).toBe('');
    expect(screen.queryByRole('button', { name: 'Show all' })).toBeNull();
  });

  test('the plan as it was, brought back only after it is told what comes and goes', async () => {
    history();
    jest.spyOn(crewApi, 'past').mockResolvedValue({ seq: 3, at: lines[1]?.at ?? 0, rows: [] });
    jest.spyOn(crewApi, 'restoring').mockResolvedValue({ add: 1, patch: 2, remove: 0 });
    const restore = jest.spyOn(crewApi, 'restore').mockResolvedValue({ seq: 5 });
    const page = await open('history');
    await page.sees('Pick a change at the left');
    await page.press(/added East hill/);
    await page.sees('Plan as it was after change 3');
    await page.press('Bring the display back to this …');
    await page.sees('1 thing comes back, 2 are set as before, 0 go.');
    expect(restore).not.toHaveBeenCalled();
    await page.press('Bring it back');
    await waitFor(() => expect(restore).toHaveBeenCalledWith('d', 3));
    await page.sees('Pick a change at the left');
  });

  test('a change that others stand on is not taken back, and those are named; a builder takes back only the own', async () => {
    history();
    jest.spyOn(crewApi, 'past').mockResolvedValue({ seq: 3, at: 0, rows: [] });
    jest.spyOn(crewApi, 'takingBack').mockResolvedValue({
      ok: false,
      sentence: 'East hill was changed since.',
      later: [{ seq: 4, author: 'Bo Marl', label: 'raised East hill' }],
    });
    const page = await open('history', { role: 'builder', person: 'ada' });
    await page.press(/raised East hill/);
    await page.sees('Back to now');
    expect(screen.queryByRole('button', { name: 'Take this change back' })).toBeNull();
    expect(screen.queryByRole('button', { name: /^Bring the display back/ })).toBeNull();
    await page.press(/added East hill/);
    await page.press('Take this change back');
    await page.sees('East hill was changed since.');
    await page.sees('4: Bo Marl raised East hill');
    expect(page.acts).toEqual([]);
  });

  test('a log that cannot be read says why', async () => {
    jest.spyOn(crewApi, 'history').mockRejectedValue(new Error('The line is down.'));
    const page = await open('history');
    await page.sees('The log cannot be read');
    await page.sees('The line is down.');
  });
});

describe('people', () => {
  const member = (userId: string, name: string, role: Member['role'], person: string | null): Member => ({
    ...{ userId, name, login: userId, role, person, here: false, seenAt: null, mayReset: false },
  });
  const members = [
    member('u1', 'Ada Fenn', 'owner', 'ada'),
    { ...member('u2', 'Bo Marl', 'builder', 'bo'), mayReset: true },
  ];
  const listed = () => {
    jest.spyOn(crewApi, 'members').mockResolvedValue(members);
    jest.spyOn(crewApi, 'share').mockResolvedValue({ token: null, names: false });
    return jest.spyOn(crewApi, 'invitations').mockResolvedValue([]);
  };

  test('an owner changes a role, makes a code and a link for a person who has none yet', async () => {
    listed();
    const set = jest.spyOn(crewApi, 'setMember').mockResolvedValue(undefined);
    jest.spyOn(crewApi, 'resetCode').mockResolvedValue({ code: 'QUARTZ-17', expiresAt: Date.now() });
    const invite = jest
      .spyOn(crewApi, 'invite')
      .mockResolvedValue({ id: 'i', token: 'tok', expiresAt: Date.now() });
    const page = await open('people');
    await page.sees('own sections and stock; may propose elsewhere');
    await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Role of Bo Marl' }), 'planner');
    expect(set).toHaveBeenCalledWith('d', 'u2', { role: 'planner' });
    await page.press(/^Password code/);
    await page.sees('it opens their account');
    await page.press('Make the code');
    await page.sees('QUARTZ-17');
    await page.press('Close');
    const as = screen.getByLabelText('Will be');
    // Who has an account is invited no second time.
    expect(
      within(as)
        .getAllByRole('option')
        .map(({ textContent }) => textContent),
    ).toEqual(['a new person', 'Cy Nook']);
    await userEvent.selectOptions(as, 'Cy Nook');
    fireEvent.change(screen.getByRole('spinbutton'), { target: { value: '99' } });
    await page.press('Make a link');
    expect(invite).toHaveBeenCalledWith('d', { role: 'builder', person: 'cy', days: 60, note: '' });
    await page.sees('/join/tok');
  });

  test('who is no owner sees who is on it and may leave; a refusal of the server is told in the dialog', async () => {
    listed();
    jest.spyOn(crewApi, 'removeMember').mockRejectedValue(new Error('The last owner cannot leave.'));
    const page = await open('people', { role: 'planner', person: 'bo' });
    await page.sees('On this display');
    expect(screen.queryByText('Invite by a link')).toBeNull();
    expect(screen.queryByRole('combobox', { name: 'Role of Bo Marl' })).toBeNull();
    expect(screen.queryByRole('button', { name: /^Take off/ })).toBeNull();
    await page.press(/^Leave/);
    await page.sees('Leave this display?');
    await userEvent.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Leave' }));
    await page.sees('The last owner cannot leave.');
  });
});

test('a section is handed over with what is open in it, which is written down; helpers are set beside it', async () => {
  const page = await open('holdings');
  await page.sees('Sections and what they wait for');
  const rows = await page.rowsOf('Sections and what they wait for');
  expect(rows.map((row) => row.slice(0, 2))).toEqual([
    ['Section', 'Owner'],
    ['A, West', 'Ada Fenn'],
    ['B, East', 'nobody'],
  ]);
  await page.sees('owns A');
  await page.press(/^Hand over … section A/);
  await userEvent.selectOptions(screen.getByLabelText('Owner'), 'Cy Nook');
  await page.sees('What goes with it');
  await userEvent.click(screen.getByRole('checkbox', { name: 'Bo Marl' }));
  await page.press('Hand it over');
  expect(page.scene().section.a).toMatchObject({ owner: 'cy', helpers: ['bo'] });
  expect(listOf(page.scene(), 'thread')).toMatchObject([
    { title: 'Section A goes to Cy Nook', use: 'handover', by: 'ada', section: 'a', mentions: ['cy'] },
  ]);
  // The section and the note are one act.
  await page.undo();
  expect(page.scene().section.a?.owner).toBe('ada');
  expect(listOf(page.scene(), 'thread')).toEqual([]);
  cleanup();
  const viewer = await open('holdings', { role: 'viewer', person: null });
  await viewer.sees('Sections and what they wait for');
  expect(screen.queryByRole('button', { name: /^Hand over/ })).toBeNull();
});
