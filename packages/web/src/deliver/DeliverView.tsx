import {
  type CodeRead,
  placeOfElement,
  putDelivery,
  screensByKey,
  targetOf,
  targets,
  type TargetName,
} from '@tovel/core';
import { Fragment, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useDownload } from '../api/use_download';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice, Segments } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { ChangesView } from './changes/ChangesView';
import { useCodeChanges, useDeliveries } from './changes/use_code_changes';
import { Code } from './Code';
import { CodeEditor } from './CodeEditor';
import { GoneFiles, HandWritten } from './HandWritten';
import { FileTree } from './FileTree';
import { ElementPicture } from '../picture/ElementPicture';
import { Figures } from './Figures';
import { OneFile } from './OneFile';
import { RepositoryView } from './repository/RepositoryView';
import { PublishView } from '../publish/PublishView';
import { useQueryParam } from '../ui/use_query_param';
import { useEmitted } from './use_emitted';

const View = styled.div<{ $hasPicture: boolean }>`
  height: 100%;
  display: grid;
  grid-template-columns:
    268px minmax(0, 1fr)
    ${({ $hasPicture }) => ($hasPicture ? 'minmax(300px, 400px)' : '')};
  grid-template-rows: auto minmax(0, 1fr);
  > nav {
    grid-row: 2;
    min-height: 0;
    display: grid;
    grid-template-rows: minmax(0, 1fr) auto;
    background: ${color.side};
    border-right: 1px solid ${color.rule};
    padding-top: 8px;
  }
`;

const Bar = styled.div`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  padding: 8px 16px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  h2 {
    font-size: 15px;
  }
  p {
    flex: 1 1 200px;
    color: ${color.ink2};
  }
  strong {
    color: ${color.red};
  }
`;

const One = styled.div`
  min-width: 0;
  min-height: 0;
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  > div > p {
    padding: 7px 16px;
    color: ${color.ink2};
    border-bottom: 1px solid ${color.rule};
    overflow-wrap: anywhere;
  }
`;

const Waiting = styled.p`
  padding: 10px 12px 12px;
  border-top: 1px solid ${color.rule};
  color: ${color.ink2};
  font-size: 12px;
`;

const TARGETS = (Object.keys(targets) as TargetName[]).map((id) => ({ id, label: targets[id].name }));

const TESTS = [
  { id: 'with', label: 'Tests' },
  { id: 'without', label: 'No tests' },
] as const;
const LOGIC = [
  { id: 'acting', label: 'Hooks' },
  { id: 'every', label: 'Hooks everywhere' },
  { id: 'without', label: 'No hooks' },
] as const;
const PLACES = [
  { id: 'code', label: 'Code' },
  { id: 'changes', label: 'Changes' },
  { id: 'repository', label: 'Repository' },
  { id: 'publish', label: 'Publish' },
] as const;
/** Places that stand in place of the code. */
const BESIDE: ReadonlySet<string> = new Set(['changes', 'repository', 'publish']);
const NAMING = [
  { id: 'pascal', label: 'MyLoans.tsx' },
  { id: 'kebab', label: 'my-loans.tsx' },
] as const;

/** What came of writing into a file, in words. */
function toldOf({ offers, isKept }: CodeRead): string {
  const kept = isKept ? 'What means nothing in the project is kept as you wrote it.' : '';
  if (!offers.length) return kept;
  const [first, ...rest] = offers.map(({ says }) => says);
  const more = rest.length ? ` and ${rest.length} more` : '';
  return `Changed in the project: ${first}${more}. ${kept}`.trim();
}

/** The code as it will be taken away, beside the screens that it makes. */
export function DeliverView() {
  const { id, base, graph, design, app, session, past } = useProject();
  const navigate = useNavigate();
  const { emitted, isWhole, problem, done, total, read } = useEmitted();
  /** Files that are written into, as far as that has come, by path; and what came of the last one. */
  const [drafts, setDrafts] = useState<ReadonlyMap<string, string>>(new Map());
  const [told, setTold] = useState<string | null>(null);
  const [path, setPath] = useState<string | null>(null);
  const [element, setElement] = useState<string | null>(null);
  const target = targetOf(app);
  const start = app.start && emitted?.fileOfScreen.get(app.start);
  const current = emitted?.files.find((file) => file.path === (path ?? start)) ?? emitted?.files[0];
  const [place, setPlace] = useQueryParam('in', 'code');
  const deliveries = useDeliveries();
  const { download, isBusy, problem: notPacked } = useDownload();
  // Both are written by one worker: what is looked at comes first, and what nobody looks at never.
  const isCodeShown = !BESIDE.has(place);
  const since = useCodeChanges(isCodeShown && isWhole ? (deliveries.data?.[0] ?? null) : null);
  const notes = useMemo(
    () =>
      new Map([
        ...(since.changes ?? []).flatMap(({ path: file, fate }) =>
          fate === 'removed' ? [] : [[file, fate === 'new' ? 'new' : 'changed'] as const],
        ),
        ...(emitted?.handWritten ?? []).flatMap(({ file, conflicts }) =>
          file === null ? [] : [[file, conflicts.length ? 'to decide' : 'by hand'] as const],
        ),
        ...[...drafts.keys()].map((file) => [file, 'not saved'] as const),
      ]),
    [emitted, drafts, since.changes],
  );
  if (!graph.screens.length) {
    return (
      <Empty title="No code yet" text="Bring in the screens of the app; the code stands here at once.">
        <Button $kind="primary" onPress={() => void navigate(`${base}/intake`)}>
          Bring screens in
        </Button>
      </Empty>
    );
  }
  if (problem !== null && !emitted)
    return (
      <Empty title="The code could not be written" text={`${problem}. Nothing of the project is lost.`} />
    );
  if (!emitted || !current)
    return <Empty title="Writing the code …" text={total ? `${done} of ${total} screens` : ''} />;
  const draft = drafts.get(current.path);
  const isEditing = draft !== undefined;
  const setDraft = (file: string, text: string | null): void =>
    setDrafts((now) => {
      const next = new Map(now);
      if (text === null) next.delete(file);
      else next.set(file, text);
      return next;
    });
  const part = emitted.handWritten?.find(({ file }) => file === current.path);
  const save = async (file: string, text: string): Promise<void> => {
    const result = await read(file, text);
    if (result.change) session.change(`Write into ${file}`, result.change);
    setTold(result.change ? toldOf(result) : null);
    setDraft(file, null);
  };
  const screen = 'screen' in current && current.screen ? screensByKey(design).get(current.screen) : undefined;
  const written =
    screen && element !== null ? placeOfElement(emitted.files, current.path, screen, element) : null;
  const isHere = written?.path === current.path && 'text' in current;
  const marked = isHere ? (current.lines?.[written.line] ?? null) : element;
  const pick = (key: string): void => {
    setElement(key);
    const found = screen && placeOfElement(emitted.files, current.path, screen, key);
    // What is written into a file is gone on with there.
    if (found && !isEditing) setPath(found.path);
  };
  return (
    <View $hasPicture={!!screen && place === 'code'}>
      <Bar>
        <Segments role="group" aria-label="What is shown">
          {PLACES.map(({ id: which, label }) => (
            <Button key={which} aria-pressed={place === which} onPress={() => setPlace(which)}>
              {label}
            </Button>
          ))}
        </Segments>
        <Choice
          label="Written as"
          isLabelHidden
          value={target}
          options={TARGETS}
          onChange={(next) => {
            setPath(null);
            session.change(`The code is written as ${targets[next].name}`, putDelivery('target', next));
          }}
        />
        <Choice
          label="Hooks for hand-written code"
          isLabelHidden
          value={app.delivery.logic ?? 'acting'}
          options={LOGIC}
          onChange={(next) => {
            setPath(null);
            session.change('Where people hook in', putDelivery('logic', next));
          }}
        />
        {target === 'react' && (
          <>
            <Choice
              label="Tests"
              isLabelHidden
              value={app.delivery.tests ?? 'with'}
              options={TESTS}
              onChange={(next) => session.change(`The code comes ${next} tests`, putDelivery('tests', next))}
            />
            <Choice
              label="Names of files"
              isLabelHidden
              value={app.delivery.naming ?? 'pascal'}
              options={NAMING}
              onChange={(next) => {
                setPath(null);
                session.change('How files are called', putDelivery('naming', next));
              }}
            />
          </>
        )}
        <p>
          {targets[target].title} · {emitted.files.length} files.{' '}
          {targets[target].commands.map((command, i) => (
            <Fragment key={command}>
              {i > 0 && ', '}
              <code>{command}</code>
            </Fragment>
          ))}
        </p>
        <Button isDisabled={isBusy} onPress={() => download(api.archiveUrl(id))}>
          Export as .tovel
        </Button>
        <Button $kind="primary" isDisabled={isBusy} onPress={() => download(api.codeUrl(id))}>
          {isBusy ? 'Packing …' : 'Download zip'}
        </Button>
        {notPacked !== null && <strong role="alert">{notPacked}</strong>}
      </Bar>
      {place === 'publish' && <PublishView />}
      {place === 'changes' && <ChangesView />}
      {place === 'repository' && <RepositoryView />}
      {isCodeShown && (
        <>
          <nav aria-label="Files of the code">
            <FileTree
              files={emitted.files}
              notes={notes}
              selected={current.path}
              onSelect={(next) => {
                setPath(next);
                setElement(null);
              }}
            />
            {isWhole ? <Figures emitted={emitted} /> : <Waiting role="status">Tidying the code …</Waiting>}
          </nav>
          {'text' in current ? (
            <One>
              <OneFile
                emitted={emitted}
                path={current.path}
                text={current.text}
                {...(isEditing || past !== null || !isWhole
                  ? {}
                  : {
                      onEdit: () => {
                        setTold(null);
                        setDraft(current.path, current.text);
                      },
                    })}
              />
              <div>
                {problem !== null && (
                  <p role="alert">
                    This is the code of a moment ago. It could not be written anew: {problem}
                  </p>
                )}
                {emitted.unread?.map((unread) => (
                  <p key={unread} role="alert">
                    {unread}. This file is as it was written first, and will not build.
                  </p>
                ))}
                {told !== null && !isEditing && <p role="status">{told}</p>}
                {part && !isEditing && <HandWritten part={part} />}
                <GoneFiles parts={emitted.handWritten ?? []} />
              </div>
              {isEditing ? (
                <CodeEditor
                  key={current.path}
                  path={current.path}
                  text={current.text}
                  line={isHere ? written.line : 0}
                  onSave={(text) => save(current.path, text)}
                  draft={draft}
                  onType={(text) => setDraft(current.path, text)}
                  onLeave={() => setDraft(current.path, null)}
                />
              ) : (
                <Code
                  path={current.path}
                  text={current.text}
                  lines={current.lines ?? []}
                  element={marked}
                  onLine={setElement}
                />
              )}
            </One>
          ) : (
            <Empty title={current.path.replace(/^.*\//, '')} text="A picture; it is in the zip." />
          )}
          {screen && <ElementPicture screen={screen} element={element} onPick={pick} />}
        </>
      )}
    </View>
  );
}
