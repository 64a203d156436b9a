import { fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { listOf, sceneFrom, type Actor } from '@quarry/core/document';
import { openPage, stopAt } from '../../../test/openPage.tsx';
import { crewApi } from '../../data/crewApi.ts';
import { ProgressPage } from './ProgressPage.tsx';

// Photos from the same spot: before and after, one more, and the public page.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

/** A name as files of photos have: 64 figures. */
const digest = (id: string) => Buffer.from(id).toString('hex').padEnd(64, '0');
const photo = (id: string, taken: string, more: object = {}) => ({
  ...{ id, file: digest(id), width: 1600, height: 1200, taken: `${taken}T10:00:00Z`, by: 'ada' },
  ...{ section: 'b', x: 40, y: 60, bearing: 0 },
  ...more,
});
const file = {
  display: { name: 'Quay', kind: 'diorama' },
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  people: [
    { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
    { id: 'bo', name: 'Bo Marl', initials: 'BM' },
  ],
  sections: [{ id: 'b', letter: 'B', name: 'Mill street', x: 0, y: 0, w: 96, d: 48, owner: 'ada' }],
  photos: [
    photo('first', '2031-03-01', { note: 'bare' }),
    // Six studs aside and 20° turned: the same spot. Ten studs aside: another.
    photo('second', '2031-04-01', { x: 46, bearing: 340, by: 'bo' }),
    photo('third', '2031-05-01'),
    photo('aside', '2031-04-15', { x: 50 }),
  ],
} satisfies Parameters<typeof sceneFrom>[0];
const open = (actor: Actor = { role: 'builder', person: 'ada' }) =>
  openPage(sceneFrom(file), <ProgressPage />, 'progress?sheet=photos', actor);
beforeAll(() => stopAt('2031-06-02'));
const pictures = () =>
  within(screen.getByRole('figure', { name: 'Before and after' }))
    .getAllByRole('img')
    .map((one) => one.getAttribute('alt')?.replace(/ \d{4}.*?(,|:)/, '$1'));

test('the spot with the newest photo is open, its first and its newest over each other; others are chosen', async () => {
  const page = await open();
  await page.sees('Section B at 40, 60, looking 0°');
  await page.sees('3 photos, the last');
  await page.sees('Section B at 50, 60, looking 0°');
  expect(pictures()).toHaveLength(2);
  expect(pictures()[0]).toMatch(/^After: 1 May/);
  expect(pictures()[1]).toMatch(/^Before: 1 Mar.*bare$/);
  const strip = within(screen.getByRole('list', { name: 'Strip through time' })).getAllByRole('listitem');
  expect(strip).toHaveLength(3);
  const press = (i: number, name: string) =>
    userEvent.click(within(strip[i] ?? document.body).getByRole('button', { name }));
  await press(1, 'After');
  expect(pictures()[0]).toMatch(/^After: 1 Apr.*Bo Marl/);
  // The same photo before and after is shown alone.
  await press(1, 'Before');
  expect(pictures()).toHaveLength(1);
  await page.sees('Taken: 1 Apr');
  expect(screen.queryByRole('slider')).toBeNull();
  // Another's photo is neither published nor removed by a builder.
  expect(screen.queryByRole('checkbox', { name: 'On the public page' })).toBeNull();
});

test('one more from the spot that is open is shown at once as what is after', async () => {
  jest.spyOn(crewApi, 'keepPhoto').mockResolvedValue({ file: digest('new'), width: 1600, height: 1200 });
  const page = await open();
  await page.press('From the spot that is open');
  await page.fill('Note', 'roofs on');
  const field = screen.getByLabelText('Take or choose a photo');
  // A file may be too large to send.
  const large = new File(['x'], 'huge.jpg', { type: 'image/jpeg' });
  Object.defineProperty(large, 'size', { value: 16_400_000 });
  fireEvent.change(field, { target: { files: [large] } });
  await page.sees('“huge.jpg” has 16.4 MB; a photo may have at most 15.');
  expect(page.acts).toEqual([]);
  const taken = new File(['x'], 'roofs.jpg', {
    type: 'image/jpeg',
    lastModified: new Date('2031-06-01T09:00:00Z').getTime(),
  });
  fireEvent.change(field, { target: { files: [taken] } });
  await page.sees('4 photos, the last');
  expect(listOf(page.scene(), 'photo').find(({ file: name }) => name === digest('new'))).toMatchObject({
    ...{ section: 'b', x: 40, y: 60, bearing: 0, by: 'ada', note: 'roofs on' },
    taken: '2031-06-01T09:00:00.000Z',
  });
  expect(pictures()[0]).toMatch(/^After: 1 Jun.*roofs on$/);
  expect(page.valueOf('Note')).toBe('');
  await userEvent.click(screen.getByRole('checkbox', { name: 'On the public page' }));
  expect(page.acts.at(-1)?.label).toBe('published a photo');
  await page.press(/^Remove the photo of 1 Jun/);
  await page.sees('3 photos, the last');
  await page.undo();
  await page.sees('4 photos, the last');
});

test('a photo that the server does not take is told, and what was typed stays', async () => {
  jest.spyOn(crewApi, 'keepPhoto').mockRejectedValue(new Error('The disk is full: nothing was saved.'));
  const page = await open();
  await page.fill('Note', 'roofs on');
  fireEvent.change(screen.getByLabelText('Take or choose a photo'), {
    target: { files: [new File(['x'], 'roofs.jpg', { type: 'image/jpeg' })] },
  });
  await page.sees('The disk is full: nothing was saved.');
  expect(page.valueOf('Note')).toBe('roofs on');
  expect(page.acts).toEqual([]);
});

test('whose account is nobody on the display takes none', async () => {
  const page = await open({ role: 'builder', person: null });
  await page.sees('Your account is nobody on this display yet');
  expect(screen.queryByLabelText('Take or choose a photo')).toBeNull();
});
