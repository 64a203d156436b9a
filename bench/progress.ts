/** Odds for a large crew: sixty sections, five thousand runs. */
import { outlook } from '../packages/core/src/progress/index.ts';
import { sceneFrom } from '../packages/core/src/document/index.ts';
import { median, type Row } from './table.ts';

const SECTIONS = 60;
const PEOPLE = 12;
const RUNS = 5000;
/** How long a page may wait for its odds, ms. */
const AIM_MS = 1000;

function scene(show: boolean) {
  const people = Array.from({ length: PEOPLE }, (_, i) => ({
    id: `p${i}`,
    name: `Builder ${i}`,
    initials: `B${i % 10}`,
  }));
  return sceneFrom({
    display: {
      name: 'Large',
      kind: 'diorama',
      startDate: '2031-03-01',
      showDate: show ? '2031-09-01' : null,
    },
    people,
    sections: Array.from({ length: SECTIONS }, (_, i) => ({
      ...{
        id: `s${i}`,
        letter: String.fromCharCode(65 + (i % 26)),
        name: `Section ${i}`,
        owner: `p${i % PEOPLE}`,
      },
      ...{
        x: (i % 10) * 48,
        y: Math.floor(i / 10) * 48,
        w: 48,
        d: 48,
        hours: 20 + (i % 7) * 6,
        stage: 'ground',
      },
    })),
    calendars: people.map(({ id }, i) => ({
      ...{ id: `c${i}`, person: id, weekly: [2, 0, 2, 0, 0, 5, 2] },
    })),
  });
}

export function benchProgress(): Row[] {
  const ask = (of: ReturnType<typeof scene>) => {
    const answer = outlook(of, '2031-05-01', { runs: RUNS, seed: 1, counts: {} });
    if (!answer.ok) throw new Error(answer.missing.join());
  };
  // Without a show there is nothing whose odds could be moved.
  const [bare, whole] = [scene(false), scene(true)];
  const what = `odds: ${RUNS.toLocaleString('en')} runs over ${SECTIONS} sections`;
  return [
    { what, measured: median(7, () => ask(bare)), unit: 'ms', aim: AIM_MS, better: 'less' },
    {
      what: `${what}, and what moves them`,
      measured: median(7, () => ask(whole)),
      unit: 'ms',
      better: 'less',
    },
  ];
}
