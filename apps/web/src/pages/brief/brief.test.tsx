import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { renderOn } from '../../../test/renderOn.tsx';
import { HouseRules } from './HouseRules.tsx';
import { MilestonePromises } from './MilestonePromises.tsx';
import { SpaceSheet } from './SpaceSheet.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama', ratio: 45 },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  plots: [
    { id: 'hall', name: 'Hall', x: 0, y: 0, w: 20, d: 20, height: 18 },
    { id: 'long', name: 'Long shed', x: 40, y: 0, w: 40, d: 12, height: 18 },
  ],
  spaces: [{ id: 'r', name: 'Court room', w: 8, d: 6, wall: 1, plot: 'hall' }],
  vehicles: [{ id: 'v', name: 'Lorry', count: 2, length: 20, width: 7, trueLength: 7.5 }],
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  sections: [
    { id: 'a', letter: 'A', name: 'West', x: 0, y: 0, w: 48, d: 48, stage: 'structures' },
    { id: 'b', letter: 'B', name: 'East', x: 48, y: 0, w: 48, d: 48 },
  ],
  tasks: [{ id: 'k', name: 'Sweep', done: '2031-04-30' }],
  milestones: [
    {
      ...{ id: 'm', name: 'May letter', date: '2031-05-01' },
      promises: [
        { of: 'section', thing: 'a', stage: 'ground' },
        { of: 'section', thing: 'b', stage: 'ground' },
        { of: 'task', thing: 'k' },
        { of: 'figure', thing: 'never-was' },
      ],
    },
  ],
});
const typeInto = async (user: ReturnType<typeof userEvent.setup>, name: string, text: string) => {
  const field = screen.getByRole('textbox', { name });
  await user.clear(field);
  await user.type(field, `${text}{Enter}`);
};

describe('what the scene must hold', () => {
  test('the floor a room needs at scale beside the plot it has, by hand; another plot, another answer', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <SpaceSheet disabled={false} />);
    const row = within(screen.getByRole('group', { name: 'Court room' }));
    // 8 m ÷ 45 ÷ 8 mm = 22.2, 6 m = 16.7 studs: 23 × 17 inside, with walls 25 × 19. The hall has 18 × 18 = 324 of
    // 22.22 × 16.67 = 370.
    expect(row.getByText('needs 25 × 19, has 20 × 20')).toBeTruthy();
    expect(row.getByText('△ 87 % of the floor it needs')).toBeTruthy();
    await user.selectOptions(row.getByRole('combobox', { name: 'Plot of Court room' }), 'Long shed');
    // 38 × 10 = 380 of 370, but 10 deep for 17.
    expect(screen.getByText('△ floor enough, the wrong shape')).toBeTruthy();
    await typeInto(user, 'True width of Court room', '5 m');
    // 5 m = 13.9 studs: of 14 × 17 the 14 are too many.
    expect(screen.getByText('△ floor enough, the wrong shape')).toBeTruthy();
    await typeInto(user, 'True depth of Court room', '3 m');
    // 3 m = 8.3 studs: 380 of 13.89 × 8.33 = 115.7.
    expect(screen.getByText('fits: 328 % of its floor')).toBeTruthy();
    expect(acts.map(({ label }) => label)).toEqual([
      'changed the Court room',
      'changed the Court room',
      'changed the Court room',
    ]);
  });
  test('vehicles: their scale beside figures, and what they cover of the ground', async () => {
    const user = userEvent.setup();
    await renderOn(scene, <SpaceSheet disabled={false} />);
    const row = within(screen.getByRole('group', { name: 'Lorry' }));
    // 7,500 mm ÷ 160 mm = 46.9; 2 × 20 × 7 studs of 96 × 48.
    expect(row.getByText('1:46.9, 280 studs')).toBeTruthy();
    expect(screen.getByText('6.1 %')).toBeTruthy();
    await typeInto(user, 'Count of Lorry', '4');
    expect(screen.getByText('△ 12.2 %')).toBeTruthy();
    await typeInto(user, 'Count of Lorry', '0');
    expect(screen.getByRole('alert').textContent).toContain('0 is below the least, 1');
  });
});

test('the month that is shown is agreed with the season, and taken back', async () => {
  const user = userEvent.setup();
  const acts = await renderOn(scene, <HouseRules disabled={false} />);
  await user.selectOptions(screen.getByRole('combobox', { name: 'Month, for leaves' }), 'October');
  await user.selectOptions(screen.getByRole('combobox', { name: 'Season' }), 'Autumn');
  await user.selectOptions(screen.getByRole('combobox', { name: 'Month, for leaves' }), 'not agreed');
  expect(acts.map(({ changes: [change] }) => change?.op === 'patch' && change.set)).toEqual([
    { month: 10 },
    { season: 'autumn' },
    { month: null },
  ]);
});

describe('what a milestone promises', () => {
  /** The milestone as it stands. */
  function May() {
    return <MilestonePromises milestone={useScene('milestone').milestone.m} isPast disabled={false} />;
  }
  test('what is met, missed or gone; one more is chosen of what is not promised yet', async () => {
    const user = userEvent.setup();
    const acts = await renderOn(scene, <May />);
    expect(screen.getByText('△ 2 of 4 promises met', { exact: false })).toBeTruthy();
    expect(screen.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      '✓ section A, West at ground met',
      '△ section B, East at ground missed',
      '✓ Sweep met',
      '△ a small scene that is gone placed missed',
    ]);
    await user.click(screen.getByRole('button', { name: /Remove the promise a small scene/ }));
    expect(screen.getByText('△ 2 of 3 promises met', { exact: false })).toBeTruthy();
    await user.selectOptions(
      screen.getByRole('combobox', { name: 'Stage that May letter promises' }),
      'Ground',
    );
    const which = screen.getByRole('combobox', { name: 'Which one May letter promises' });
    // Both sections are promised at ground already.
    expect(
      within(which)
        .getAllByRole('option')
        .map(({ textContent }) => textContent),
    ).toEqual(['None left']);
    await user.selectOptions(
      screen.getByRole('combobox', { name: 'Stage that May letter promises' }),
      'Structures',
    );
    await user.selectOptions(which, 'section A, West');
    expect(acts.at(-1)).toMatchObject({ label: 'changed the promises of May letter' });
    expect(screen.getByText('△ 3 of 4 promises met', { exact: false })).toBeTruthy();
  });
});
