import { useQuery } from '@tanstack/react-query';
import type { ApexOptions } from 'apexcharts';
import { burnUp, earnedValue, effortOf, plannedLine, showsOf } from '@quarry/core/progress';
import { listOf } from '@quarry/core/document';
import { keys } from '../../data/api.ts';
import { crewApi } from '../../data/crewApi.ts';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { Failure, Heading } from '../../ui/parts.tsx';
import { useChart } from '../../ui/useChart.ts';
import { localZone } from '../../ui/clock.ts';
import { today } from '../../ui/days.ts';
import { useCounts } from '../../workers/useCounts.ts';

/** Hours in time: planned, earned and spent up to today with the shows ahead, and who built how much in each week. */
export function BurnCharts() {
  const scene = useDisplay(({ scene }) => scene);
  const seq = useDisplay(({ seq }) => seq);
  const link = useLink();
  const counts = useCounts();
  const shares = useQuery({
    queryKey: [...keys.history(link.id), 'shares', seq],
    queryFn: () => crewApi.shares(link.id, localZone()),
    placeholderData: (before) => before,
  });
  const { budget } = earnedValue(scene, today(), counts ?? {}, 'hours');
  const { days, hours, weeks } = burnUp(scene);
  const planned = plannedLine(scene, budget);
  if (shares.error) return <Failure title="The charts cannot be drawn" message={shares.error.message} />;
  if (budget === 0 && days.length === 0) return null;
  const effort = new Map(
    listOf(scene, 'section').map((section) => [
      section.id,
      effortOf(scene, section, counts ?? {}).hours ?? 0,
    ]),
  );
  const earned = (shares.data ?? []).map(({ date, done }) => ({
    x: date,
    y: Object.entries(done).reduce((sum, [id, share]) => sum + share * (effort.get(id) ?? 0), 0),
  }));
  return (
    <section aria-labelledby="burn" className="pt-4">
      <Heading id="burn">Hours so far</Heading>
      <Chart
        label={`Hours planned, earned and spent: ${Math.round(earned.at(-1)?.y ?? 0)} earned and ${Math.round(hours.at(-1) ?? 0)} spent of ${Math.round(budget)}`}
        kind="line"
        series={[
          { name: 'planned', data: planned?.map(({ date, value }) => ({ x: date, y: value })) ?? [] },
          { name: 'earned', data: earned },
          { name: 'spent', data: days.map((date, i) => ({ x: date, y: hours[i] ?? 0 })) },
        ]}
        lines={[
          ...showsOf(scene).map(({ date, name }) => ({ date, word: name })),
          { date: today(), word: 'today' },
        ]}
      />
      {weeks.length > 0 && (
        <>
          <Heading>Hours at the table, by week</Heading>
          <Chart
            label="Hours at the table by week and builder"
            kind="bar"
            series={listOf(scene, 'person')
              .filter(({ id }) => weeks.some((week) => week.hours[id]))
              .map(({ id, name }) => ({
                name,
                data: weeks.map(({ monday, hours: of }) => ({ x: monday, y: of[id] ?? 0 })),
              }))}
            lines={[]}
          />
        </>
      )}
    </section>
  );
}

interface ChartProps {
  label: string;
  kind: 'line' | 'bar';
  series: { name: string; data: { x: string; y: number }[] }[];
  lines: { date: string; word: string }[];
}

const DAY_COLOURS = ['#5b646a', '#a8442a', '#1f6a70', '#8a6414', '#4a5d23'];
const NIGHT_COLOURS = ['#a0a8ac', '#e07a55', '#5fb3b9', '#d3a94a', '#9db36b'];

function Chart({ label, kind, series, lines }: ChartProps) {
  const night = useView((view) => view.theme) === 'night';
  // Redrawn when the figures differ, not when the lists are new ones.
  const figures = JSON.stringify({ kind, series, lines, night });
  const ref = useChart(() => optionsOf({ label, kind, series, lines }, night), figures);
  return <div ref={ref} role="img" className="contain-inline-size" aria-label={label} />;
}

function optionsOf({ kind, series, lines }: ChartProps, night: boolean): ApexOptions {
  const line = kind === 'line';
  return {
    series,
    chart: {
      ...{
        type: kind,
        height: line ? 240 : 190,
        background: 'transparent',
        fontFamily: 'inherit',
        stacked: !line,
      },
      ...{ toolbar: { show: false }, animations: { enabled: false }, zoom: { enabled: false } },
    },
    theme: { mode: night ? 'dark' : 'light' },
    colors: night ? NIGHT_COLOURS : DAY_COLOURS,
    // Told apart without colour too: by their dashes, and bars by their hatch.
    stroke: line
      ? { width: 2, curve: ['straight', 'stepline', 'stepline'], dashArray: [6, 0, 2] }
      : { width: 1 },
    fill: line
      ? {}
      : {
          type: 'pattern',
          pattern: { style: ['slantedLines', 'squares', 'verticalLines', 'circles', 'horizontalLines'] },
        },
    markers: line ? { size: [0, 3, 0] } : {},
    dataLabels: { enabled: false },
    xaxis: { type: 'datetime', labels: { datetimeUTC: true } },
    yaxis: { labels: { formatter: (value: number) => `${value.toFixed(0)} h` } },
    grid: { borderColor: night ? '#3a454c' : '#cfc8b8' },
    legend: { position: 'top', horizontalAlign: 'left', showForSingleSeries: true },
    annotations: {
      xaxis: lines.map(({ date, word }) => ({
        x: Date.parse(date),
        borderColor: night ? '#e6e1d5' : '#2b3338',
        strokeDashArray: 3,
        label: {
          text: word,
          orientation: 'vertical',
          style: { background: 'transparent', color: night ? '#e6e1d5' : '#2b3338' },
        },
      })),
    },
  };
}
