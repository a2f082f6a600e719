// Bars.tsx — how many there are of each size.
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { Bar } from 'react-chartjs-2';
import type { Bin } from '../../../core/index.ts';
import { formatCount } from '../../format.ts';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

interface BarsProps {
  title: string;
  bins: readonly Bin[];
  /** What stands under a bar. */
  label: (bin: Bin) => string;
}

export function Bars({ title, bins, label }: BarsProps) {
  const colour = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name);
  const ticks = { color: colour('--quiet'), font: { size: 11, family: 'Source Code Pro' } };
  return (
    <figure className="my-2">
      <figcaption className="mb-1 text-quiet text-sm">{title}</figcaption>
      <div className="h-28">
        <Bar
          aria-label={`${title}: ${bins.map((bin) => `${label(bin)}: ${bin.count}`).join(', ')}`}
          data={{
            labels: bins.map(label),
            datasets: [
              {
                data: bins.map(({ count }) => count),
                backgroundColor: colour('--tide'),
                barPercentage: 0.94,
                categoryPercentage: 1,
                minBarLength: 0,
              },
            ],
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            plugins: {
              tooltip: {
                displayColors: false,
                callbacks: {
                  title: ([item]) => `${bins[item!.dataIndex]!.from} to ${bins[item!.dataIndex]!.to}`,
                  label: ({ raw }) => formatCount(Number(raw)),
                },
              },
            },
            scales: {
              x: { grid: { display: false }, ticks: { ...ticks, maxRotation: 0, autoSkipPadding: 6 } },
              y: {
                beginAtZero: true,
                border: { display: false },
                ticks: { ...ticks, maxTicksLimit: 4, precision: 0, callback: (value) => formatCount(Number(value)) },
              },
            },
          }}
        />
      </div>
    </figure>
  );
}
