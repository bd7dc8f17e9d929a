/** What a chart shows: how large each of its points is, and what stands beneath it. */
export interface Drawn {
  readonly kind: 'bar' | 'line' | 'pie';
  readonly label: string;
  readonly labels: readonly string[];
  readonly values: readonly string[];
}

/** A value as a number: the number in it; 0 where there is none. */
const sizeOf = (value: string): number =>
  Number(/-?\d[\d,]*(\.\d+)?/.exec(value)?.[0].replaceAll(',', '') ?? 0);

/** Shades of the colour of the text around it, one a piece. */
const shades = (count: number): string[] =>
  Array.from(
    { length: count },
    (_, i) => `color-mix(in srgb, currentColor ${Math.round(90 - (60 * i) / count)}%, transparent)`,
  );

/**
 * Draws a chart. What draws it is loaded when there is one.
 * @returns what takes it away again
 */
export function drawChart(canvas: HTMLCanvasElement, drawn: Drawn): () => void {
  const { kind, label, labels, values } = drawn;
  let end = (): void => {};
  let isGone = false;
  void import('chart.js/auto').then(({ Chart }) => {
    const context = isGone ? null : canvas.getContext('2d');
    if (!context) return;
    const { color } = getComputedStyle(canvas);
    const colors =
      kind === 'pie'
        ? shades(values.length).map((shade) => shade.replace('currentColor', color))
        : color;
    const chart = new Chart(context, {
      type: kind,
      data: {
        labels: values.map((_, i) => labels[i] ?? ''),
        datasets: [
          {
            label,
            data: values.map(sizeOf),
            backgroundColor: colors,
            borderColor: kind === 'line' ? color : 'transparent',
          },
        ],
      },
      options: {
        animation: matchMedia('(prefers-reduced-motion: reduce)').matches ? false : undefined,
        maintainAspectRatio: false,
        // Of things that are counted there are no halves.
        ...(kind === 'pie' || !values.map(sizeOf).every(Number.isInteger)
          ? {}
          : { scales: { y: { beginAtZero: true, ticks: { precision: 0 } } } }),
        plugins: { legend: { display: kind === 'pie' } },
      },
    });
    end = () => chart.destroy();
  });
  return () => {
    isGone = true;
    end();
  };
}

/** What a chart says to who does not see it. */
export const inWords = ({ label, labels, values }: Omit<Drawn, 'kind'>): string =>
  `${label}: ${values.map((value, i) => `${labels[i] ?? i + 1} ${value}`).join(', ')}`;
