import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { later } from './later.tsx';

const Sheet = ({ of }: { of: string }) => <p>Sheet of {of}</p>;

test('a file is asked for once, says what is done meanwhile, and is there at once from then on', async () => {
  const load = jest.fn(() => Promise.resolve(Sheet));
  const Later = later(load, 'Opening the sheet');
  expect(load).not.toHaveBeenCalled();
  const first = render(<Later of="the fell" />);
  expect(screen.getByRole('status').textContent).toContain('Opening the sheet');
  await act(Later.load);
  expect(screen.getByText('Sheet of the fell')).toBeTruthy();
  first.unmount();
  render(<Later of="the quay" />);
  expect(screen.getByText('Sheet of the quay')).toBeTruthy();
  expect(load).toHaveBeenCalledTimes(1);
});

test('a file that does not come leaves the rest of the page, and is asked for again', async () => {
  const load = jest.fn(() => Promise.resolve(Sheet)).mockRejectedValueOnce(new TypeError('no network'));
  const Later = later(load);
  const { container } = render(
    <>
      <h1>Stockpile</h1>
      <Later of="the fell" />
    </>,
  );
  expect(container.textContent).toBe('Stockpile');
  expect(await screen.findByText('This part of the page did not load')).toBeTruthy();
  expect(screen.getByText('Stockpile')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByText('Sheet of the fell')).toBeTruthy();
  expect(load).toHaveBeenCalledTimes(2);
});
