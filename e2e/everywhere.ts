import type { Page } from 'puppeteer-core';
import { axe, faintColours } from './axe.ts';

// Every page and sheet, and what each must hold by axe.

/** Every page of a display. */
export const PAGES = [
  'brief',
  'survey',
  'plan',
  'cut',
  'sight',
  'stockpile',
  'progress',
  'crew',
  'transport',
  'bench',
];

/** Sheets and panels within pages. */
export const TABS: Partial<Record<string, string[]>> = {
  bench: [
    'Rings',
    'Roofs',
    'Turned walls',
    'Hinges',
    'Bays',
    'Stacks',
    'Block',
    'Picture',
    'Enlarged',
    'Lift',
    'Sideways',
  ],
  brief: ['Scale', 'Space', 'Dates', 'Cast', 'Versions'],
  crew: ['People', 'Advice', 'History', 'Since last report', 'Owners'],
  progress: ['Tonight', 'Sessions', 'Tasks', 'Outlook', 'Agenda', 'Photos', 'One day', 'Sections'],
  cut: ['By hand', 'Lifting', 'Stability', 'Seams', 'Order', 'Alternatives'],
  stockpile: [
    'Matrix',
    'Count',
    'Lists',
    'Orders',
    'Buy',
    'Placeholders',
    'Colours',
    'Methods',
    'Layers',
    'Bases',
    'Needs',
  ],
  sight: ['Buildings and scenes', 'Who looks', 'Walk', 'Sections'],
  transport: [
    ...['Vehicles', 'Crates', 'Brought along', 'Order', 'Light and power', 'Supplies', 'Parts and switches'],
    ...['Circuits', 'Kit', 'At the show', 'Day', 'Load'],
  ],
  survey: ['Larkmoor', 'Access route', 'Reach', 'Loads', 'Visitors', 'Room'],
};

/** Expects that axe finds nothing on what is shown, nor in its colours by night and by day. */
export async function expectAccessible(page: Page, where: string): Promise<void> {
  expect({ where, found: await axe(page) }).toEqual({ where, found: [] });
  for (const theme of ['night', 'day']) {
    // The switch of the frame sets this attribute too; beside it, it only draws the boards again, which axe does not read.
    await page.evaluate((to) => void (document.documentElement.dataset.theme = to), theme);
    expect({ where, theme, faint: await faintColours(page) }).toEqual({ where, theme, faint: [] });
  }
}
