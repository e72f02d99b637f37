'use client';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  type ChartData,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
} from 'chart.js';
import { useEffect, useMemo, useState } from 'react';
import { Chart as ChartOn } from 'react-chartjs-2';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, LineController, LineElement, PointElement);

/** Hours by name for one period. */
export interface Series {
  readonly name: string;
  readonly hours: readonly number[];
}

const ROW = 34;

/** A pattern that tells the other period without colour: slanted lines. */
function hatched(colour: string): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = tile.height = 8;
  const pen = tile.getContext('2d');
  if (!pen) return colour;
  pen.strokeStyle = colour;
  pen.lineWidth = 1.5;
  for (const from of [-8, 0, 8]) {
    pen.beginPath();
    pen.moveTo(from, 8);
    pen.lineTo(from + 8, 0);
    pen.stroke();
  }
  return pen.createPattern(tile, 'repeat') ?? colour;
}

/** The colours of the theme as they stand on the page; read again where that changes with the day. */
function useThemeColours() {
  const read = () => {
    const style = getComputedStyle(document.documentElement);
    const of = (name: string) => style.getPropertyValue(`--${name}`).trim();
    return { moss: of('moss'), clay: of('clay'), ink: of('ink'), line: of('hair'), soft: of('soft') };
  };
  const [colours, setColours] = useState(read);
  useEffect(() => {
    const night = window.matchMedia('(prefers-color-scheme: dark)');
    const again = () => setColours(read());
    night.addEventListener('change', again);
    return () => night.removeEventListener('change', again);
  });
  return colours;
}

/**
 * Hours as bars: lying, a row for each name, or standing, week by week. The first period is solid, the other slanted lines; what is wished for is a
 * stroke across. Everything it shows stands in the table under it.
 */
export function TimeChart(props: {
  label: string;
  names: readonly string[];
  series: readonly Series[];
  wished?: readonly (number | null)[];
  standing?: boolean;
}) {
  const { label, names, series, wished, standing = false } = props;
  const colours = useThemeColours();
  const data = useMemo((): ChartData<'bar' | 'line', (number | null)[], string> => {
    const bars = series.map(({ name, hours }, i) => ({
      type: 'bar' as const,
      label: name,
      data: [...hours],
      backgroundColor: i === 0 ? colours.moss : hatched(colours.moss),
      borderColor: colours.moss,
      borderWidth: 1,
      maxBarThickness: 14,
      order: 2,
    }));
    if (!wished?.some((one) => one !== null)) return { labels: [...names], datasets: bars };
    const strokes = {
      type: 'line' as const,
      label: '',
      data: [...wished],
      showLine: false,
      pointStyle: 'line' as const,
      rotation: standing ? 0 : 90,
      radius: 14,
      borderWidth: 3,
      borderColor: colours.clay,
      pointBorderColor: colours.clay,
      order: 1,
    };
    return { labels: [...names], datasets: [...bars, strokes] };
  }, [names, series, wished, standing, colours]);
  const ticks = { color: colours.ink, font: { family: 'Hanken Grotesk Variable', size: 12 } };
  return (
    <div style={{ height: standing ? 220 : Math.max(1, names.length) * ROW + 34 }}>
      <ChartOn
        type="bar"
        aria-label={label}
        data={data}
        options={{
          indexAxis: standing ? 'x' : 'y',
          animation: false,
          maintainAspectRatio: false,
          events: [],
          scales: {
            x: { ticks, grid: { color: colours.line }, beginAtZero: true },
            y: { ticks, grid: { color: colours.line }, beginAtZero: true },
          },
        }}
      />
    </div>
  );
}
