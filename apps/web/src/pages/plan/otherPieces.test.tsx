import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { sceneFrom, writePieceFile } from '@quarry/core/document';
import { ApiProblem, api } from '../../data/api.ts';
import { renderOn } from '../../../test/renderOn.tsx';
import { OtherPieces } from './OtherPieces.tsx';

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const scene = sceneFrom({ display: { name: 'Quay', kind: 'city' } });
const stall = {
  ...{ name: 'Stall', w: 8, d: 6, grounds: [] },
  things: [{ kind: 'tree', data: { name: 'Larch', x: 1, y: 1 } }],
};
const card = { name: 'Stall', w: 8, d: 6, things: 1 };

test('pieces of other displays are listed when asked for, and one is brought in; what cannot be read is told', async () => {
  const user = userEvent.setup();
  api.keptPieces = () =>
    Promise.resolve([
      { display: 'yard', displayName: 'Yard', id: 'stall', card },
      { display: 'yard', displayName: 'Yard', id: 'heap', card: null },
      // The open display’s own lie in its outline.
      { display: 'd', displayName: 'Quay', id: 'own', card: { ...card, name: 'Own' } },
    ]);
  api.pieceText = (_, piece) =>
    piece === 'stall'
      ? Promise.resolve({ text: writePieceFile(stall) })
      : Promise.reject(new ApiProblem(404, { code: 'not-found', message: 'There is no such piece.' }));
  const acts = await renderOn(scene, <OtherPieces />);
  expect(screen.queryByText('Stall')).toBeNull();
  await user.click(screen.getByText('Pieces in my other displays'));
  expect(await screen.findByText('8 × 6 studs, 1 thing · Yard')).toBeTruthy();
  expect(screen.queryByText('Own')).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Bring in Stall from Yard' }));
  expect(acts.at(-1)).toMatchObject({
    label: 'brought Stall from Yard',
    changes: [{ op: 'add', kind: 'piece', data: { name: 'Stall', w: 8, d: 6 } }],
  });
  await user.click(screen.getByRole('button', { name: 'Bring in A large piece from Yard' }));
  expect(acts).toHaveLength(1);
});
