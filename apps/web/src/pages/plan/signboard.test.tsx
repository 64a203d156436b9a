import { screen } from '@testing-library/react';
import { sceneFrom } from '@quarry/core/document';
import { renderOn } from '../../../test/renderOn.tsx';
import { SignboardPart } from './SignboardPart.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({
  display: { name: 'Quay', kind: 'diorama' },
  signboards: [
    { id: 's', name: 'Quay sign', text: 'QUAY', x: 30, y: 10 },
    { id: 'l', name: 'Long', text: 'HARBOUR MASTER', x: 30, y: 14, letters: 9 },
  ],
});

test('how large its letters are and how far they are read, by hand', async () => {
  await renderOn(scene, <SignboardPart sign={scene.signboard.s} />);
  // 0.7 of 19.2 mm; 6 studs for four letters let 17.1; 13.4 ÷ tan 10′ = 4,606.6 mm; 4 × 0.7 × 13.4 = 37.5 of 48 mm.
  expect(screen.getByText('13.4 mm')).toBeTruthy();
  expect(screen.getByText('4,607 mm')).toBeTruthy();
  expect(screen.getByText('38 mm')).toBeTruthy();
  expect(screen.getByRole('img', { name: '“QUAY” as it is read' })).toBeTruthy();
});

test('letters that do not go on are told with the largest that do', async () => {
  await renderOn(scene, <SignboardPart sign={scene.signboard.l} />);
  // 48 mm ÷ (14 × 0.7).
  expect(screen.getByText('4.8 mm is the most that goes on')).toBeTruthy();
});
