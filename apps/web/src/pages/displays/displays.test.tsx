import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useLocation } from 'react-router';
import { sceneFrom } from '@quarry/core/document';
import type { DisplayLine } from '@quarry/protocol/displays';
import { renderOn, sees } from '../../../test/renderOn.tsx';
import { stopAt } from '../../../test/openPage.tsx';
import { ApiProblem, api, queryClient } from '../../data/api.ts';
import { accountApi } from '../../data/accountApi.ts';
import { DisplaysPage } from './DisplaysPage.tsx';

// The list of displays and the form that begins one: with answers as a server gives them.

jest.mock('../../data/displayLink.ts', () => ({ DisplayLink: { open: jest.fn() } }));

const ada = { id: 'u1', login: 'ada', name: 'Ada Fenn', keeper: false };
const line = (id: string, name: string, more: Partial<DisplayLine> = {}): DisplayLine => ({
  ...{ id, name, kind: 'diorama', role: 'owner', seq: 3, changedAt: Date.now(), changedBy: null },
  ...{ showDate: null, size: { w: 48, d: 48 }, done: 0.25, unread: 0 },
  ...more,
});
const Place = () => <output data-place>{useLocation().pathname}</output>;
const place = () => document.querySelector('[data-place]')?.textContent;
const text = () => (document.body.textContent ?? '').replace(/\s+/g, ' ');
const open = async (displays: DisplayLine[]) => {
  jest.spyOn(api, 'displays').mockResolvedValue(displays);
  jest.spyOn(accountApi, 'letters').mockResolvedValue([]);
  await renderOn(
    sceneFrom({ display: { name: 'Any', kind: 'city' } }),
    <>
      <Place />
      <DisplaysPage user={ada} />
    </>,
  );
};
const button = (name: string) => screen.getByRole('button', { name });
const names = () =>
  screen.getAllByRole('listitem').map((item) => within(item).getAllByRole('link')[0]?.textContent);
beforeAll(() => stopAt('2031-06-02'));
beforeEach(() => {
  localStorage.clear();
  queryClient.clear();
});
afterEach(() => jest.restoreAllMocks());

describe('beginning a display', () => {
  test('a size as a tape says it comes to whole studs with what is left over; it becomes a rule', async () => {
    const create = jest.spyOn(api, 'createDisplay').mockResolvedValue({ id: 'new' });
    await open([]);
    await sees('No display yet');
    const size = screen.getByRole('textbox', { name: 'Size, width × depth' });
    expect(button('Begin').hasAttribute('disabled')).toBe(true);
    await userEvent.type(screen.getByRole('textbox', { name: 'Name' }), 'Shelf fell');
    await userEvent.clear(size);
    await userEvent.type(size, '42 by');
    expect(button('Begin').hasAttribute('disabled')).toBe(true);
    await userEvent.clear(size);
    await userEvent.type(size, '42 × 55 cm');
    // 420 mm take 52 studs (415.8 mm outside), 550 mm take 68 (543.8).
    await sees('52 × 68 studs fit: 415.8 mm × 543.8 mm. Left over: 4.2 mm and 6.2 mm.');
    await userEvent.type(screen.getByPlaceholderText('¤'), 'kr');
    await userEvent.selectOptions(screen.getByLabelText('Stands on'), 'a shelf, seen from the south');
    await userEvent.click(button('Begin'));
    expect(create).toHaveBeenCalledWith('Shelf fell', {
      ...{ kind: 'vignette', w: 52, d: 68, stand: 'shelf', deck: 0, isLimit: true, currency: 'kr' },
      top: { w: 420, d: 550 },
    });
    await waitFor(() => expect(place()).toBe('/d/new/brief'));
  });

  test('a landscape is no rule unless one says so; what the server refuses is told, and what was typed stays', async () => {
    jest
      .spyOn(api, 'createDisplay')
      .mockRejectedValue(
        new ApiProblem(507, { code: 'full', message: 'The disk is full: nothing was saved.' }),
      );
    await open([]);
    const rule = screen.getByRole<HTMLInputElement>('checkbox');
    expect(rule.checked).toBe(true);
    await userEvent.click(screen.getByRole('radio', { name: /^Diorama/ }));
    expect(rule.checked).toBe(false);
    await userEvent.type(screen.getByRole('textbox', { name: 'Name' }), 'Fell');
    await userEvent.click(button('Begin'));
    await sees('The disk is full: nothing was saved.');
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('Fell');
    expect(place()).toBe('/');
  });
});

describe('the list', () => {
  test('how large, how far, how long to the show; deleted only by its owner, after it is asked', async () => {
    const remove = jest.spyOn(api, 'removeDisplay').mockResolvedValue(undefined);
    await open([
      line('a', 'Skarn fell', { showDate: '2031-06-16', unread: 2 }),
      line('b', 'Quay', { role: 'builder', changedBy: 'Bo Marl', size: null }),
    ]);
    await sees('Skarn fell');
    expect(text()).toContain('Diorama · 48 × 48 studs, 0.38 × 0.38 m · you own it');
    expect(text()).toContain('25 % done');
    expect(text()).toContain('2 pieces of advice to read');
    expect(text()).toContain('Diorama · you are builder');
    expect(text()).toContain('Bo Marl changed it');
    // Few displays are not searched.
    expect(screen.queryByRole('searchbox')).toBeNull();
    expect(button('Delete Quay').hasAttribute('disabled')).toBe(true);
    await userEvent.click(button('Delete Skarn fell'));
    await sees('Delete Skarn fell?');
    expect(remove).not.toHaveBeenCalled();
    await userEvent.click(button('Delete for everybody'));
    expect(remove.mock.calls[0]?.[0]).toBe('a');
  });

  test('many are searched and sorted; a copy opens', async () => {
    const copy = jest.spyOn(api, 'copyDisplay').mockResolvedValue({ id: 'copy' });
    await open([
      line('a', 'Alder', { changedAt: 5, done: 0.9, showDate: '2031-09-01' }),
      line('b', 'Birch', { changedAt: 9, done: 0.1 }),
      line('c', 'Cedar', { changedAt: 7, done: 0.5, showDate: '2031-07-01', kind: 'city' }),
      ...['Dale', 'Elm', 'Fern'].map((name, i) => line(name, name, { changedAt: i, done: 0.95 })),
    ]);
    await sees('6 of 6');
    expect(names().slice(0, 3)).toEqual(['Birch', 'Cedar', 'Alder']);
    const order = screen.getByRole('combobox', { name: 'Order of the displays' });
    await userEvent.selectOptions(order, 'Show first');
    expect(names().slice(0, 2)).toEqual(['Cedar', 'Alder']);
    await userEvent.selectOptions(order, 'Least done');
    expect(names()[0]).toBe('Birch');
    await userEvent.selectOptions(order, 'Name');
    expect(names()).toEqual(['Alder', 'Birch', 'Cedar', 'Dale', 'Elm', 'Fern']);
    await userEvent.type(screen.getByRole('searchbox'), 'CITY');
    expect(names()).toEqual(['Cedar']);
    await userEvent.click(button('Copy Cedar'));
    expect(copy).toHaveBeenCalledWith('c', 'Cedar, copy');
    await waitFor(() => expect(place()).toBe('/d/copy/brief'));
    await userEvent.type(screen.getByRole('searchbox'), 'x');
    await sees('No display has “CITYx” in its name or kind.');
  });
});
