import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { ProjectSummary } from '@tovel/core';
import { useEffect, useState } from 'react';
import { Menu, MenuItem, MenuTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { Sheet } from '../shell/Sheet';
import { color, size } from '../theme/theme';
import { Button, Field, ListSheet } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { FileButton } from '../ui/FileButton';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: ${size.header}px minmax(0, 1fr);
`;

const Head = styled.header`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 24px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  b {
    font-size: 17px;
    font-stretch: 115%;
  }
`;

const Body = styled.main`
  overflow: auto;
  padding: 32px 24px;
`;

const Sheets = styled.div`
  max-width: 920px;
  margin: 0 auto;
`;

const Title = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 12px;
  h1 {
    font-size: 20px;
    margin-right: auto;
  }
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  background: ${color.sheet};
  border: 1px solid ${color.rule};
  table-layout: fixed;
  th {
    text-align: left;
    font-weight: 600;
    font-size: 11.5px;
    color: ${color.ink2};
    padding: 8px 12px;
    border-bottom: 1px solid ${color.ink};
  }
  td {
    padding: 0 12px;
    height: 48px;
    border-bottom: 1px solid ${color.rule};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  tr:last-child td {
    border-bottom: 0;
  }
  tbody tr:hover td {
    background: ${color.lakeTint};
  }
  .num {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
`;

const Open = styled(Link)`
  font-weight: 650;
  font-size: 15px;
  text-decoration: none;
  display: block;
  line-height: 48px;
  overflow: hidden;
  text-overflow: ellipsis;
`;

const Toast = styled.div`
  position: fixed;
  left: 50%;
  bottom: 24px;
  transform: translateX(-50%);
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 8px 10px 8px 16px;
  background: ${color.footer};
  color: ${color.footerText};
`;

const Entry = styled(MenuItem)`
  padding: 7px 14px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${color.ink};
    color: ${color.onInk};
  }
`;

const when = (iso: string): string =>
  new Date(iso).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });

/** The first page: open a project, and what else can be done with one. */
export function ProjectsPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { data, error } = useQuery({ queryKey: ['projects'], queryFn: api.projects });
  const [naming, setNaming] = useState<ProjectSummary | 'new' | null>(null);
  const [deleted, setDeleted] = useState<ProjectSummary | null>(null);
  const act = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onSettled: () => queries.invalidateQueries({ queryKey: ['projects'] }),
  });

  useEffect(() => {
    document.title = 'Projects · Tovel';
  }, []);

  const projects = data?.filter((project) => !project.deletedAt);
  const openFile = async (file: File): Promise<void> => {
    act.mutate(async () => {
      const { id } = await api.openArchive(
        new Uint8Array(await file.arrayBuffer()),
        file.name.replace(/\.tovel$/, ''),
      );
      void navigate(`/p/${id}`);
    });
  };
  const menu = (project: ProjectSummary) => (key: React.Key) => {
    if (key === 'rename') setNaming(project);
    if (key === 'copy') act.mutate(() => api.copyProject(project.id));
    if (key === 'export') window.location.assign(api.archiveUrl(project.id));
    if (key === 'delete') act.mutate(() => api.deleteProject(project.id).then(() => setDeleted(project)));
  };

  return (
    <Page>
      <Head>
        <b>Tovel</b>
        <span style={{ color: color.ink2 }}>from screens to a working front end</span>
      </Head>
      <Body>
        <Sheets>
          <Title>
            <h1>Projects</h1>
            <FileButton
              label="A .tovel file"
              accept=".tovel"
              kind="quiet"
              onChoose={(file) => void openFile(file)}
            >
              Open a .tovel file
            </FileButton>
            <Button onPress={() => setNaming('new')}>New project</Button>
          </Title>
          {(error ?? act.error) && (
            <p role="alert" style={{ color: color.red, marginBottom: 12 }}>
              {(error ?? act.error)!.message}
            </p>
          )}
          {projects?.length === 0 && (
            <Empty
              title="No projects yet"
              text="A project holds the screens of one app and all that they shall do."
            >
              <Button $kind="primary" onPress={() => setNaming('new')}>
                Make the first one
              </Button>
            </Empty>
          )}
          {projects && projects.length > 0 && (
            <Table>
              <thead>
                <tr>
                  <th style={{ width: '44%' }}>Name</th>
                  <th className="num" style={{ width: 90 }}>
                    Screens
                  </th>
                  <th className="num" style={{ width: 120 }}>
                    Live
                  </th>
                  <th>Last change</th>
                  <th style={{ width: 92 }}>
                    <span hidden>More</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {projects.map((project) => (
                  <tr key={project.id}>
                    <td>
                      <Open to={`/p/${project.id}`} title={project.name}>
                        {project.name}
                      </Open>
                    </td>
                    <td className="num">{project.screens}</td>
                    <td className="num">
                      {project.live} of {project.elements}
                    </td>
                    <td>{when(project.changedAt)}</td>
                    <td className="num">
                      <MenuTrigger>
                        <Button $kind="quiet" aria-label={`More for ${project.name}`}>
                          More
                        </Button>
                        <ListSheet placement="bottom end">
                          <Menu onAction={menu(project)}>
                            <Entry id="rename">Rename …</Entry>
                            <Entry id="copy">Duplicate</Entry>
                            <Entry id="export">Export as .tovel</Entry>
                            <Entry id="delete">Delete</Entry>
                          </Menu>
                        </ListSheet>
                      </MenuTrigger>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          )}
        </Sheets>
      </Body>
      {naming && (
        <NameSheet
          project={naming === 'new' ? null : naming}
          onClose={() => setNaming(null)}
          onName={(name) => {
            setNaming(null);
            if (naming !== 'new') act.mutate(() => api.renameProject(naming.id, name));
            else act.mutate(() => api.createProject(name).then(({ id }) => navigate(`/p/${id}/intake`)));
          }}
        />
      )}
      {deleted && (
        <Toast role="status">
          <span>“{deleted.name}” was deleted.</span>
          <Button
            onPress={() => act.mutate(() => api.restoreProject(deleted.id).then(() => setDeleted(null)))}
          >
            Undo
          </Button>
          <Button $kind="quiet" style={{ color: 'inherit' }} onPress={() => setDeleted(null)}>
            Dismiss
          </Button>
        </Toast>
      )}
    </Page>
  );
}

function NameSheet({
  project,
  onClose,
  onName,
}: {
  project: ProjectSummary | null;
  onClose: () => void;
  onName: (name: string) => void;
}) {
  const [name, setName] = useState(project?.name ?? '');
  const [wasTried, setTried] = useState(false);
  const problem = !name.trim()
    ? 'A project needs a name.'
    : name.trim().length > 120
      ? 'A name has at most 120 characters.'
      : null;
  return (
    <Sheet title={project ? `Rename “${project.name}”` : 'New project'} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          setTried(true);
          if (!problem) onName(name.trim());
        }}
      >
        <Field label="Name" value={name} onChange={setName} autoFocus problem={wasTried ? problem : null} />
        <div style={{ display: 'flex', gap: 8, marginTop: 14, justifyContent: 'flex-end' }}>
          <Button onPress={onClose}>Cancel</Button>
          <Button type="submit" $kind="primary">
            {project ? 'Rename' : 'Make it'}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
