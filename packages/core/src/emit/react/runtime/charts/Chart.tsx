import { useEffect, useRef } from 'react';
import { drawChart, type Drawn, inWords } from './drawChart';

interface ChartProps {
  kind: Drawn['kind'];
  /** What it is called. */
  label: string;
  labels?: readonly string[];
  values: readonly string[];
  className?: string;
}

/** A chart of what is worked out, as large as its class says. */
export function Chart({ kind, label, labels = [], values, className }: ChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  // As a text: it is drawn anew only where it says something else.
  const points = JSON.stringify({ labels, values });
  useEffect(() => {
    const said = JSON.parse(points) as Pick<Drawn, 'labels' | 'values'>;
    return canvas.current ? drawChart(canvas.current, { kind, label, ...said }) : undefined;
  }, [kind, label, points]);
  return (
    <div className={className}>
      <div style={{ position: 'relative', width: '100%', height: '100%', minHeight: 120 }}>
        <canvas ref={canvas} role="img" aria-label={inWords({ label, labels, values })} />
      </div>
    </div>
  );
}
