// Histogram.tsx — how many pixels have which grey, and where a level parts them.
import { BarController, BarElement, CategoryScale, Chart, LinearScale } from 'chart.js';
import { Bar } from 'react-chartjs-2';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

/** Bars, each of several greys. */
const BARS = 64;
const LABELS = Array.from({ length: BARS }, (_, i) => i);

interface HistogramProps {
  /** Pixels of each of 256 greys, dark first. */
  histogram: Uint32Array;
  /** Marks, 0 … 1. */
  marks: readonly number[];
}

export function Histogram({ histogram, marks }: HistogramProps) {
  const each = histogram.length / BARS;
  // Paper is most of any scan: roots keep the rest visible beside it.
  const heights = LABELS.map((i) => Math.sqrt(histogram.subarray(i * each, (i + 1) * each).reduce((a, b) => a + b, 0)));
  return (
    <div className="relative my-2 h-16 border-rule border-b" role="img" aria-label="Histogram of the greys">
      <Bar
        data={{
          labels: LABELS,
          datasets: [
            { data: heights, backgroundColor: 'rgb(93 102 118 / 0.7)', barPercentage: 1, categoryPercentage: 1 },
          ],
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          events: [],
          scales: { x: { display: false }, y: { display: false, beginAtZero: true } },
        }}
      />
      {marks.map((mark) => (
        <span key={mark} className="absolute inset-y-0 w-px bg-ember" style={{ left: `${100 * mark}%` }} />
      ))}
    </div>
  );
}
