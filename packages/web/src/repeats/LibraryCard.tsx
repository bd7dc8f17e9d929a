import { useRef } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Row } from '../workbench/panel';
import { sureTheirs, type TheirsFound, useLibraryReading, useTheirDeeds } from './use_theirs';

const Card = styled.section`
  max-height: 250px;
  overflow: auto;
  padding: 10px 16px 14px;
  display: grid;
  gap: 8px;
  align-content: start;
  background: ${color.side};
  border-top: 1px solid ${color.ink};
  border-right: 1px solid ${color.rule};
  h3 {
    font-size: 13px;
  }
  p {
    color: ${color.ink2};
  }
  b {
    overflow-wrap: anywhere;
  }
`;

const Problem = styled.p`
  && {
    color: ${color.red};
  }
`;

/** So many names or problems are listed; the others are counted. */
const LISTED = 8;
const listed = (all: readonly string[]): string =>
  all.length > LISTED ? `${all.slice(0, LISTED).join(', ')} and ${all.length - LISTED} more` : all.join(', ');

/** The components that the team has already: reading them, and what of the drawn ones they may be. */
export function LibraryCard({ theirs }: { theirs: TheirsFound }) {
  const { app } = useProject();
  const reading = useLibraryReading();
  const sure = sureTheirs(theirs, app);
  const { takeAll, forget } = useTheirDeeds();
  const folder = useRef<HTMLInputElement>(null);
  const libraries = Object.entries(app.libraries);
  const unmatched = Object.entries(app.components)
    .filter(([id, component]) => !component.theirs && !theirs.has(id))
    .map(([, { name }]) => name);
  const used = Object.values(app.components).filter((component) => component.theirs).length;
  return (
    <Card aria-label="Your own components">
      <h3>Your own components</h3>
      {libraries.length === 0 && (
        <p>
          Choose the folder of the components that your team has (TypeScript, React). Delivered code then uses
          those in the place of drawn ones.
        </p>
      )}
      {libraries.map(([id, library]) => (
        <Row key={id} style={{ justifyContent: 'space-between' }}>
          <span>
            <b>{library.name}</b>{' '}
            {library.components.length === 1 ? '1 component' : `${library.components.length} components`}
            {library.version ? `, ${library.version}` : ''}
          </span>
          <Button $kind="quiet" onPress={() => forget(id, library)} aria-label={`Forget ${library.name}`}>
            Forget
          </Button>
        </Row>
      ))}
      {libraries.length > 0 && (
        <p role="status">
          {used} in use.{' '}
          {unmatched.length > 0 && `No match for ${listed(unmatched)}: these are written as drawn.`}
        </p>
      )}
      <Row>
        {sure.length > 0 && (
          <Button $kind="primary" onPress={() => takeAll(sure)}>
            Use {sure.length} that {sure.length === 1 ? 'is' : 'are'} sure
          </Button>
        )}
        <Button onPress={() => folder.current?.click()} isDisabled={reading.isPending}>
          {reading.isPending
            ? 'Reading and drawing them …'
            : libraries.length
              ? 'Read again, or another'
              : 'Choose their folder'}
        </Button>
      </Row>
      {reading.error && <Problem role="alert">{reading.error.message}</Problem>}
      {(reading.data?.problems.length ?? 0) > 0 && <p role="status">{listed(reading.data!.problems)}</p>}
      <input
        ref={folder}
        type="file"
        hidden
        aria-label="Folder of your components"
        {...{ webkitdirectory: '' }}
        onChange={({ target }) => {
          if (target.files?.length) reading.mutate(target.files, { onSettled: () => (target.value = '') });
        }}
      />
    </Card>
  );
}
