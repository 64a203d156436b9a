import type { ApexOptions } from 'apexcharts';
import { sumOrder } from '@quarry/core/materials';
import type { Order } from '@quarry/core/document';
import { useView } from '../../data/view.ts';
import { useChart } from '../../ui/useChart.ts';

/** Money over time: what orders were guessed at and what they cost, summed by the day they are due. */
export function CostChart({ orders, currency }: { orders: readonly Order[]; currency: string }) {
  const theme = useView((view) => view.theme);
  const dated = orders
    .filter((order): order is Order & { expected: string } => order.expected !== null)
    .toSorted((a, b) => (a.expected < b.expected ? -1 : 1));
  if (dated.length < 2) return null;
  const summed = (of: (order: Order) => number) => {
    let sum = 0;
    return dated.map((order) => {
      sum += of(order);
      return { x: order.expected, y: Math.round(100 * sum) / 100 };
    });
  };
  return (
    <figure className="pt-3">
      <figcaption className="ink-2 text-xs">Money by the day parcels are due, {currency}, summed</figcaption>
      <Drawn
        night={theme === 'night'}
        series={[
          { name: 'guessed', data: summed((order) => sumOrder(order).guessed ?? 0) },
          { name: 'paid, or as listed', data: summed((order) => order.paid ?? sumOrder(order).expected) },
        ]}
      />
    </figure>
  );
}

function Drawn({
  night,
  series,
}: {
  night: boolean;
  series: { name: string; data: { x: string; y: number }[] }[];
}) {
  // Redrawn when the figures differ, not when the list is a new one.
  const ref = useChart(
    (): ApexOptions => ({
      series,
      chart: {
        ...{ type: 'line', height: 200, background: 'transparent', fontFamily: 'inherit' },
        ...{ toolbar: { show: false }, animations: { enabled: false }, zoom: { enabled: false } },
      },
      theme: { mode: night ? 'dark' : 'light' },
      colors: night ? ['#a0a8ac', '#e07a55'] : ['#5b646a', '#a8442a'],
      stroke: { width: 2, curve: 'stepline', dashArray: [4, 0] },
      markers: { size: 3 },
      xaxis: { type: 'datetime' },
      yaxis: { labels: { formatter: (value: number) => value.toFixed(0) } },
      grid: { borderColor: night ? '#3a454c' : '#cfc8b8' },
      legend: { position: 'top', horizontalAlign: 'left' },
    }),
    JSON.stringify({ series, night }),
  );
  return <div ref={ref} className="contain-inline-size" />;
}
