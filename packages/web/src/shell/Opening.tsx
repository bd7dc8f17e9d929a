import { Empty } from '../ui/Empty';
import { Bar, Brand, ComingStop, Rail, ShellGrid } from './rail';
import { stations } from './stations';

/** The frame of a project while the project, or the code that shows it, is on its way. */
export function Opening() {
  return (
    <ShellGrid aria-busy="true">
      <Bar>
        <Brand to="/" aria-label="Tovel, all projects">
          <b>Tovel</b>
          <span>Opening …</span>
        </Brand>
        <Rail as="div" aria-hidden="true" $count={stations.length}>
          {stations.map(({ path, title }) => (
            <ComingStop key={path}>
              <i />
              {title}
            </ComingStop>
          ))}
        </Rail>
      </Bar>
      <main style={{ gridRow: 3 }}>
        <Empty title="Opening the project …" text="" />
      </main>
    </ShellGrid>
  );
}
