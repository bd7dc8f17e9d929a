import {
  all,
  type ApiCredential,
  apiOf,
  type ApiOperation,
  type CallProposal,
  type ComingFrom,
  grouped,
  letComeFrom,
  makeCalls,
  putApi,
  putCollection,
} from '@tovel/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';
import { counted } from '../ui/counted';
import { ApiSheet } from './ApiSheet';
import { withBehind } from './ComesFrom';
import { SeenColumn } from './middle';

const Column = styled(SeenColumn)`
  padding: 0 0 28px;
  h4 {
    display: flex;
    align-items: center;
    gap: 12px;
    margin: 18px 18px 0;
    padding-bottom: 6px;
    font-size: 13.5px;
    border-bottom: 1px solid ${color.ink};
    small {
      color: ${color.ink2};
      font-weight: 400;
      margin-right: auto;
    }
  }
  section > p {
    margin: 8px 18px 6px;
    color: ${color.ink2};
  }
  table {
    margin: 0 18px 10px;
  }
  td:first-child {
    width: 36%;
  }
  td:nth-child(2) {
    width: 96px;
  }
`;

const Proposals = styled.ul`
  margin: 6px 18px 0;
  li {
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 5px 0;
    border-bottom: 1px solid ${color.rule};
  }
  span {
    flex: 1;
  }
  small {
    color: ${color.ink2};
  }
  code {
    font: 12px ${font.code};
  }
`;

const DOES: Readonly<Record<ApiOperation['does'], string>> = {
  list: 'lists',
  read: 'reads one',
  add: 'adds',
  change: 'changes',
  remove: 'removes',
  'sign-in': 'signs in',
  'sign-out': 'signs out',
  other: 'something else',
};

/** Proposals from this on are taken together. */
const SURE = 0.7;

/** The described APIs of a project: what each operation is taken for, and which collections can come from it. */
export function ApisShown({
  proposals,
  calls,
  canChange,
}: {
  proposals: readonly ComingFrom[];
  /** Where signing in and out can be asked of an API. */
  calls: readonly CallProposal[];
  canChange: boolean;
}) {
  const { design, app, session } = useProject();
  const [isAdding, setAdding] = useState(false);
  const sure = proposals.filter(({ confidence }) => confidence >= SURE);
  const ids = Object.keys(app.apis).sort();
  const take = (taken: readonly ComingFrom[]): void =>
    session.change(
      taken.length === 1
        ? `${taken[0].name} come from ${taken[0].behind.list}`
        : `${taken.length} collections come from an API`,
      letComeFrom({ design, app }, taken),
    );
  const forget = (id: string): void =>
    session.change(
      `Give ${app.apis[id].name} up`,
      all([
        putApi(id, null),
        ...Object.entries(app.collections).flatMap(([key, collection]) =>
          collection.behind?.api === id ? [putCollection(key, withBehind(collection, null))] : [],
        ),
      ]),
    );
  return (
    <Column aria-label="Described APIs">
      <header>
        <p>
          Records are kept in the app until an API is described: by an OpenAPI document, or by an example of
          what it answers. Then they come from there; until it exists a stand-in answers, in Run and in the
          code.
        </p>
        {canChange && (
          <Button $kind={ids.length ? undefined : 'primary'} onPress={() => setAdding(true)}>
            Describe an API …
          </Button>
        )}
        {canChange && sure.length > 0 && (
          <Button $kind="primary" onPress={() => take(sure)}>
            {sure.length === 1
              ? 'Let the sure one come from it'
              : `Let ${sure.length} sure ones come from it`}
          </Button>
        )}
      </header>
      {proposals.length + calls.length > 0 && (
        <Proposals aria-label="What fits">
          {proposals.map((one) => (
            <li key={one.collection}>
              <span>
                <b>{one.name}</b>
                {one.proposal ? ', which would be taken,' : ''} can come from <code>{one.behind.list}</code>{' '}
                <small>
                  {Math.round(one.confidence * 100)} % sure: {one.reason}
                </small>
              </span>
              {canChange && <Button onPress={() => take([one])}>Take it</Button>}
            </li>
          ))}
          {[...grouped(calls, ({ operation }) => operation)].map(([operation, own]) => (
            <li key={operation}>
              <span>
                <b>
                  {own.length === 1
                    ? own[0].label
                    : `${own[0].label} and ${counted(own.length - 1, 'more place')}`}
                </b>{' '}
                can ask <code>{operation}</code> <small>{own[0].reason}</small>
              </span>
              {canChange && (
                <Button
                  onPress={() =>
                    session.change(
                      own.length === 1
                        ? `${own[0].label} asks ${operation}`
                        : `${own.length} places ask ${operation}`,
                      makeCalls(own),
                    )
                  }
                >
                  Take it
                </Button>
              )}
            </li>
          ))}
        </Proposals>
      )}
      {ids.map((id) => (
        <DescribedApi key={id} id={id} {...(canChange ? { onForget: () => forget(id) } : {})} />
      ))}
      {isAdding && <ApiSheet onClose={() => setAdding(false)} />}
    </Column>
  );
}

/** What one API can be asked, and which collections come from it. */
function DescribedApi({ id, onForget }: { id: string; onForget?: () => void }) {
  const { app } = useProject();
  const [, setParams] = useSearchParams();
  const { servers, operations, credentials, problems } = apiOf(app, id)!;
  const wants = credentials.filter(({ name }) => operations.some((one) => one.credentials.includes(name)));
  return (
    <section aria-label={app.apis[id].name}>
      <h4>
        {app.apis[id].name}
        <small>
          {counted(operations.length, 'operation')}
          {servers.length ? ` at ${servers.join(', ')}` : ''}
          {problems.length ? `; ${problems.length} places could not be read` : ''}
        </small>
        {onForget && (
          <Button $kind="quiet" onPress={onForget}>
            Give it up
          </Button>
        )}
      </h4>
      {wants.length > 0 && (
        <p>
          It is sent {listed.format(wants.map(saysOfCredential))}. The environment of the app says what that
          is (<code>.env.example</code> names it); nothing of it is kept here.
        </p>
      )}
      <table>
        <tbody>
          {operations.map((operation) => {
            const user = Object.entries(app.collections).find(
              ([, { behind }]) =>
                behind?.api === id &&
                [behind.list, behind.read, behind.add, behind.change, behind.remove].includes(operation.id),
            );
            return (
              <tr key={`${operation.method} ${operation.path}`}>
                <td>
                  <code>
                    {operation.method.toUpperCase()} {operation.path}
                  </code>
                </td>
                <td>{DOES[operation.does]}</td>
                <td>
                  {user && (
                    <Button $kind="quiet" onPress={() => setParams({ at: user[0] })}>
                      {user[1].name}
                    </Button>
                  )}{' '}
                  <small>
                    {operation.reason}
                    {asked(operation)}
                  </small>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

/** What the parameters of an operation are for, in words. */
function asked({ parameters }: ApiOperation): string {
  const said = parameters.filter((one) => one.in === 'query' && one.for !== 'other');
  return said.length
    ? `; ${said.map(({ name, for: purpose }) => `${name}: ${purpose.replace('-', ' ')}`).join(', ')}`
    : '';
}

/** What goes along with requests, in words. */
function saysOfCredential({ kind, in: place, as }: ApiCredential): string {
  if (kind === 'key') return place === 'query' ? `“${as}” in the address` : `the ${place} “${as}”`;
  return kind === 'basic' ? 'a name and a password' : 'a token of who has signed in';
}

const listed = new Intl.ListFormat('en-GB', { type: 'conjunction' });
