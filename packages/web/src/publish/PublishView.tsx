import type { PublicationAnswer } from '@tovel/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';
import { color, font } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { NotesList } from './NotesList';

const View = styled.div`
  grid-column: 1 / -1;
  min-height: 0;
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr) minmax(300px, 400px);
  > * {
    min-height: 0;
    overflow: auto;
  }
  h3 {
    font-size: 15px;
    margin-bottom: 8px;
  }
`;

const Form = styled.form`
  display: grid;
  align-content: start;
  gap: 14px;
  padding: 16px;
  background: ${color.side};
  border-right: 1px solid ${color.rule};
  small,
  [slot='description'] {
    color: ${color.ink2};
  }
`;

const Place = styled.section`
  padding: 16px 28px 28px;
  display: grid;
  align-content: start;
  gap: 12px;
  justify-items: start;
  code {
    font: 600 19px ${font.code};
    overflow-wrap: anywhere;
  }
  img {
    width: 172px;
    background: #ffffff;
    border: 1px solid ${color.rule};
  }
  p {
    max-width: 460px;
  }
  p.small {
    color: ${color.ink2};
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

const Problem = styled.p`
  color: ${color.red};
`;

/** The app for others: published under an address of its own, and what its visitors say. */
export function PublishView() {
  const { id } = useProject();
  const queries = useQueryClient();
  const key = ['publication', id];
  const { data, error } = useQuery({ queryKey: key, queryFn: () => api.publication(id) });
  const takeBack = useMutation({
    mutationFn: () => api.takeBack(id),
    onSuccess: () => queries.invalidateQueries({ queryKey: key }),
  });
  if (error) return <Empty title="It cannot be said whether the app is published" text={error.message} />;
  if (!data) return <Empty title="Looking …" text="" />;
  return (
    <View>
      <PublishForm answer={data} onPublished={(next) => queries.setQueryData(key, next)} />
      <Published answer={data} onTakeBack={() => takeBack.mutate()} />
      <NotesList />
    </View>
  );
}

function PublishForm({
  answer: { hosts, publication },
  onPublished,
}: {
  answer: PublicationAnswer;
  onPublished: (answer: PublicationAnswer) => void;
}) {
  const { id, name } = useProject();
  const [title, setTitle] = useState(publication?.title ?? name);
  const [version, setVersion] = useState(String((publication?.number ?? 0) + 1));
  const [host, setHost] = useState(new URL(publication?.address ?? 'http://127.0.0.1').hostname);
  const [pass, setPass] = useState('');
  const [isDropped, setDropped] = useState(false);
  const hasPass = (publication?.hasPass ?? false) && !isDropped;
  const publish = useMutation({
    mutationFn: () =>
      api.publish(id, { title, version, host, ...(pass ? { pass } : isDropped ? { pass: null } : {}) }),
    onSuccess: (next) => {
      onPublished(next);
      setVersion(String((next.publication?.number ?? 0) + 1));
      setPass('');
      setDropped(false);
    },
  });
  const chosen = hosts.find((one) => one.host === host) ?? hosts[0];
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    publish.mutate();
  };
  return (
    <Form onSubmit={submit}>
      <h3>Publish</h3>
      <Field label="Title" value={title} onChange={setTitle} />
      <Field label="Version" value={version} onChange={setVersion} />
      <Choice
        label="Served at"
        value={chosen.host}
        options={hosts.map((one) => ({ id: one.host, label: one.host }))}
        onChange={setHost}
      />
      <small>{chosen.says}.</small>
      <Field
        label="Pass phrase, if visitors shall need one"
        type="password"
        autoComplete="new-password"
        value={pass}
        onChange={setPass}
        hint={
          hasPass
            ? 'One is wanted now; leave this empty to keep it.'
            : 'Without one, whoever has the address sees the app.'
        }
      />
      {hasPass && (
        <Button $kind="quiet" onPress={() => setDropped(true)}>
          Ask for no pass phrase any more
        </Button>
      )}
      <Row>
        <Button
          type="submit"
          $kind="primary"
          isDisabled={!title.trim() || !version.trim() || publish.isPending}
        >
          {publish.isPending ? 'Publishing …' : publication ? 'Publish anew' : 'Publish'}
        </Button>
      </Row>
      {publish.error && <Problem role="alert">{publish.error.message}</Problem>}
    </Form>
  );
}

function Published({
  answer: { publication },
  onTakeBack,
}: {
  answer: PublicationAnswer;
  onTakeBack: () => void;
}) {
  const { history } = useStanding();
  if (!publication)
    return (
      <Place aria-label="The published app">
        <h3>Not published yet</h3>
        <p>
          Publishing freezes the app as it is now and serves it under an address of its own, which stays the
          same when it is published anew. Visitors see the app alone, and nothing of this project.
        </p>
      </Place>
    );
  const { address, code, title, version, publishedAt, hasPass, isOpen, seq, problem } = publication;
  const at = new Date(publishedAt).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
  const steps = history.seq - seq;
  return (
    <Place aria-label="The published app">
      <h3>
        {title}, version {version}
      </h3>
      {isOpen ? (
        <>
          <code>{address}</code>
          <Row>
            <Button $kind="primary" onPress={() => window.open(address, '_blank', 'noopener')}>
              Open
            </Button>
            <Button onPress={() => void navigator.clipboard.writeText(address)}>Copy the address</Button>
            <Button onPress={() => void navigator.clipboard.writeText(`${address}?notes`)}>
              Copy the address for notes
            </Button>
            <Button onPress={onTakeBack}>Take back</Button>
          </Row>
          {problem && <Problem role="alert">{problem}</Problem>}
          <img alt={`QR code of ${address}`} src={`data:image/svg+xml,${encodeURIComponent(code)}`} />
          <p className="small">
            Published {at}
            {hasPass ? ', behind a pass phrase' : ''}.{' '}
            {steps > 0
              ? `${steps} ${steps === 1 ? 'step' : 'steps'} were made since; visitors do not see them.`
              : ''}
          </p>
          <p>
            With <b>?notes</b> at the end of the address visitors can press an element and leave a note.
          </p>
        </>
      ) : (
        <p>Taken back: nobody sees it. Its address, {address}, is kept for when it is published again.</p>
      )}
    </Place>
  );
}
