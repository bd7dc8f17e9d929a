import { type EmittedProject, withWhatItNeeds } from '@tovel/core';
import { useEffect, useMemo, useState } from 'react';
import styled from 'styled-components';
import { api } from '../api/client';
import { useDownload } from '../api/use_download';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';

const Head = styled.div`
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 16px;
  border-bottom: 1px solid ${color.rule};
  background: ${color.sheet};
  h3 {
    min-width: 0;
    margin-right: auto;
    font: 12px/1.4 ${font.code};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  strong {
    color: ${color.red};
  }
`;

/** How long it is said that something was copied, in ms. */
const SAID = 2500;

/** The file that is shown: to be copied, or taken alone with what it takes from others. */
export function OneFile({
  emitted,
  path,
  text,
  onEdit,
}: {
  emitted: EmittedProject;
  path: string;
  text: string;
  /** Not there while it is written into, and where it cannot be. */
  onEdit?: () => void;
}) {
  const { id } = useProject();
  const { download, isBusy, problem } = useDownload();
  const count = useMemo(() => withWhatItNeeds(emitted, path).length, [emitted, path]);
  const [copied, setCopied] = useState<'Copied' | 'Could not copy' | null>(null);
  useEffect(() => {
    if (copied === null) return;
    const timer = setTimeout(() => setCopied(null), SAID);
    return () => clearTimeout(timer);
  }, [copied]);
  return (
    <Head>
      <h3 title={path}>{path}</h3>
      {onEdit && (
        <Button $kind="quiet" onPress={onEdit}>
          Edit
        </Button>
      )}
      <Button
        $kind="quiet"
        onPress={() =>
          void navigator.clipboard.writeText(text).then(
            () => setCopied('Copied'),
            () => setCopied('Could not copy'),
          )
        }
      >
        {copied ?? 'Copy'}
      </Button>
      {problem !== null && <strong role="alert">{problem}</strong>}
      <Button $kind="quiet" isDisabled={isBusy} onPress={() => download(api.codeUrl(id, path))}>
        {count === 1 ? 'Zip of it' : `Zip of it and the ${count - 1} it needs`}
      </Button>
    </Head>
  );
}
