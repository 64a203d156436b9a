import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom } from '@quarry/core/document';
import { renderOn } from '../../../test/renderOn.tsx';
import { WeighPanel } from './WeighPanel.tsx';

// What somebody weighed, by the revised lifting equation (Waters et al. 1993; DHHS (NIOSH) 94-110).

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({ display: { name: 'Yard', kind: 'diorama' } });
beforeEach(() => localStorage.clear());
const type = async (label: string, text: string) => {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
};
/** Answers of both ways, in order: of one person, of two. */
const answers = (label: string) =>
  screen.getAllByText(label, { selector: 'dt, dt *' }).map((term) => term.closest('div')?.textContent ?? '');

test('a piece of 48 studs deep from 740 mm: index and limit of one person, and of two at its ends', async () => {
  await renderOn(scene, <WeighPanel />);
  await type('Weighed mass', '9');
  await type('Long side', '96');
  await type('Narrow side', '48 studs');
  await type('Lifted from, over the floor', '740 mm');
  // One: H = 20 + 38.4 ÷ 2 = 39.2 cm (25 ÷ 39.2 = 0.638), V = 74 cm (1 − 0.003 × 1 = 0.997).
  const [one = '', two = ''] = answers('Hands from the body');
  expect([one, two].map((said) => said.replace(/^.*body/, ''))).toEqual(['392 mm', expect.any(String)]);
  const limits = answers('Recommended limit, each').map((said) => Number(/([\d.]+) kg/.exec(said)?.[1]));
  expect(limits).toHaveLength(2);
  const indices = answers('Lift index').map((said) => Number(/([\d.]+)/.exec(said)?.[1]));
  // The index is the mass over the limit; two carry half of it each.
  expect(indices[0]).toBeCloseTo(9 / (limits[0] ?? 1), 1);
  expect(indices[1]).toBeCloseTo(4.5 / (limits[1] ?? 1), 1);
  expect(screen.getByText(/A caution, not advice/)).toBeTruthy();
});

test('turned the other way it is lifted alike; a mass of three limits is high risk; what is none is told', async () => {
  await renderOn(scene, <WeighPanel />);
  await type('Long side', '96');
  await type('Narrow side', '48');
  const first = answers('Lift index');
  await type('Long side', '48');
  await type('Narrow side', '96');
  expect(answers('Lift index')).toEqual(first);
  await type('Weighed mass', '60');
  expect(answers('Lift index')[0]).toContain('! high risk');
  await type('Weighed mass', '0');
  expect(screen.getByRole('alert').textContent).toContain('0 is below the least, 0.01');
  await type('Weighed mass', '1,5');
  expect(within(document.body).queryByRole('alert')).toBeNull();
  expect(answers('Lift index')[0]).toContain('within the limit');
});
