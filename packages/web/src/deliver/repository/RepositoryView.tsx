import { all, type Change, type PushPlan } from '@tovel/core';
import { useState } from 'react';
import { TextArea, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { useProject } from '../../project/context';
import { color, font } from '../../theme/theme';
import { Button, fieldBox, Label } from '../../ui/controls';
import { Empty } from '../../ui/Empty';
import { ChangedFiles } from '../changes/ChangedFiles';
import { filesByFate } from './files_by_fate';
import { Connection } from './Connection';
import { AskedPicture, FileChange } from './FileChange';
import { type RepositoryState, useRepository } from './use_repository';
import { Side } from '../side';

const View = styled.div`
  grid-column: 1 / -1;
  min-height: 0;
  display: grid;
  grid-template-columns: 300px 250px minmax(0, 1fr) auto;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
`;

const Message = styled(TextArea)`
  ${fieldBox}
  min-height: 116px;
  resize: vertical;
  font: 12px/1.5 ${font.code};
`;

const Below = styled.div`
  display: grid;
  gap: 6px;
  margin-top: 8px;
`;

const Beginning = styled.div`
  grid-column: 1 / -1;
  overflow: auto;
  padding: 28px 32px;
  h2 {
    font-size: 20px;
  }
  > p {
    max-width: 560px;
    margin: 8px 0 18px;
    color: ${color.ink2};
  }
`;

const Problem = styled.p`
  color: ${color.red};
`;

/** The code in a repository of the team: what is there, what pushing would do to each file, and pushing. */
export function RepositoryView() {
  const repository = useRepository();
  const { connection, look } = repository;
  const [isChanging, setChanging] = useState(false);
  if (connection.isPending) return <Empty title="Looking …" text="" />;
  if (!connection.data || isChanging)
    return (
      <Beginning>
        <h2>{isChanging ? 'Another repository or branch' : 'Into the repository of your team'}</h2>
        <p>
          The code is merged with what people wrote there, by the syntax of its language, and pushed by git.
          Nothing is forced and nothing is written over unseen.
        </p>
        <Connection repository={repository} {...(isChanging ? { onDone: () => setChanging(false) } : {})} />
      </Beginning>
    );
  if (look.isFetching)
    return (
      <Empty
        title="Looking into the repository …"
        text="Git fetches the branch, and each file is held against what is written now."
      />
    );
  return <Looked repository={repository} onChange={() => setChanging(true)} />;
}

function Looked({ repository, onChange }: { repository: RepositoryState; onChange: () => void }) {
  const { connection, disconnect, look, lookAgain, push, pushed, answers, answer } = repository;
  const plan = look.data;
  const groups = plan ? filesByFate(plan, (ask) => answers.has(ask)) : [];
  const [chosen, setChosen] = useState<string | null>(null);
  const files = groups.flatMap((group) => group.files);
  const current = files.find(({ path }) => path === chosen) ?? files[0];
  const asks = plan?.asks.filter(({ path }) => path === current?.path) ?? [];
  const open = plan?.asks.filter(({ id }) => !answers.has(id)).length ?? 0;
  const { address, branch } = connection.data!;
  const changes = plan?.files.filter(({ fate }) => !['same', 'kept', 'left-out'].includes(fate)).length ?? 0;
  return (
    <View>
      <Side aria-label="Repository">
        <section>
          <h3>Repository</h3>
          <code>{address}</code>
          <p>
            Branch <code>{branch}</code>
            {plan?.head === null && ', new'}
          </p>
          <Row>
            <Button onPress={() => void lookAgain()}>Look again</Button>
            <Button onPress={onChange}>Change</Button>
            <Button isDisabled={disconnect.isPending} onPress={() => disconnect.mutate()}>
              Disconnect
            </Button>
          </Row>
        </section>
        {look.error && <Problem role="alert">{look.error.message}</Problem>}
        {disconnect.error && <Problem role="alert">{disconnect.error.message}</Problem>}
        {plan && (
          <>
            {plan.commits.length > 0 && (
              <section>
                <h3>Pushed there since</h3>
                <ul aria-label="Commits of others">
                  {plan.commits.map((commit) => (
                    <li key={commit.hash}>
                      {commit.message}
                      <small>
                        {commit.author},{' '}
                        {new Date(commit.at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' })}
                      </small>
                    </li>
                  ))}
                </ul>
              </section>
            )}
            {plan.offers.length > 0 && <Offers offers={plan.offers} onTaken={lookAgain} />}
            {plan.added.length > 0 && (
              <section>
                <h3>Packages that are added</h3>
                <code>{plan.added.join(', ')}</code>
              </section>
            )}
            {plan.notices.length > 0 && (
              <section>
                <h3>To be looked at</h3>
                <ul>
                  {plan.notices.map((notice) => (
                    <li key={notice}>{notice}</li>
                  ))}
                </ul>
              </section>
            )}
            <Pushing
              key={plan.message}
              message={plan.message}
              open={open}
              changes={changes}
              isPending={push.isPending}
              problem={push.error?.message ?? null}
              pushed={pushed}
              onPush={(message) => push.mutate({ plan, message })}
            />
          </>
        )}
      </Side>
      {current ? (
        <>
          <ChangedFiles
            label="Files that would change"
            groups={groups}
            selected={current.path}
            onSelect={setChosen}
          />
          <FileChange file={current} asks={asks} answers={answers} onAnswer={answer} />
          <AskedPicture asks={asks} />
        </>
      ) : (
        plan && (
          <div style={{ gridColumn: '2 / -1' }}>
            <Empty title="Nothing to push" text="The branch holds what would be written now." />
          </div>
        )
      )}
    </View>
  );
}

/** What people changed in the code and what means something in the project: taken over, the two say the same again. */
function Offers({ offers, onTaken }: { offers: PushPlan['offers']; onTaken: () => Promise<void> }) {
  const { session } = useProject();
  const take = async (label: string, changes: readonly Change[]): Promise<void> => {
    session.change(label, changes.length === 1 ? changes[0] : all(changes));
    await session.settled();
    await onTaken();
  };
  return (
    <section>
      <h3>Means something in the project</h3>
      <ul aria-label="What can be taken over">
        {offers.map(({ path, line, says, change }) => (
          <li key={`${path} ${line} ${says}`}>
            {says}
            <small>
              {path}, line {line}
            </small>
            <Button $kind="quiet" onPress={() => void take(says, [change as Change])}>
              Take over
            </Button>
          </li>
        ))}
      </ul>
      {offers.length > 1 && (
        <Row>
          <Button
            onPress={() =>
              void take(
                'What the code in the repository says',
                offers.map(({ change }) => change as Change),
              )
            }
          >
            Take all over
          </Button>
        </Row>
      )}
    </section>
  );
}

function Pushing({
  message: proposed,
  open,
  changes,
  isPending,
  problem,
  pushed,
  onPush,
}: {
  message: string;
  open: number;
  changes: number;
  isPending: boolean;
  problem: string | null;
  pushed: string | null;
  onPush: (message: string) => void;
}) {
  const [message, setMessage] = useState(proposed);
  if (!changes && !open)
    return <p role="status">{pushed ? `Pushed as ${pushed.slice(0, 8)}.` : 'Nothing to push.'}</p>;
  return (
    <section>
      <h3>Push</h3>
      <TextField value={message} onChange={setMessage}>
        <Label>Message of the commit</Label>
        <Message />
      </TextField>
      <Below>
        <Button
          $kind="primary"
          isDisabled={open > 0 || isPending || !message.trim()}
          onPress={() => onPush(message)}
        >
          {isPending ? 'Pushing …' : `Push ${changes} ${changes === 1 ? 'file' : 'files'}`}
        </Button>
        {open > 0 && (
          <small>{open === 1 ? 'One conflict is' : `${open} conflicts are`} to be decided first.</small>
        )}
        {problem && <Problem role="alert">{problem}</Problem>}
        {pushed && <p role="status">Pushed as {pushed.slice(0, 8)}.</p>}
      </Below>
    </section>
  );
}
