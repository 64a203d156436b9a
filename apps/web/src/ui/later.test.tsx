import { act, render, screen } from '@testing-library/react';
import { ErrorBoundary } from 'react-error-boundary';
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

test('a file that does not come is an error where it is shown, and is asked for again', async () => {
  jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const load = jest.fn(() => Promise.resolve(Sheet)).mockRejectedValueOnce(new TypeError('no network'));
  const Later = later(load);
  const shown = () => (
    <ErrorBoundary fallbackRender={({ error }) => <p>Broke: {String(error)}</p>}>
      <Later of="the fell" />
    </ErrorBoundary>
  );
  const first = render(shown());
  expect(first.container.textContent).toBe('');
  expect(await screen.findByText('Broke: TypeError: no network')).toBeTruthy();
  first.unmount();
  render(shown());
  expect(await screen.findByText('Sheet of the fell')).toBeTruthy();
});
