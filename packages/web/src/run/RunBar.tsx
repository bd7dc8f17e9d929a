import { type FormEvent, type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button, fieldBox, Segments } from '../ui/controls';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 8px 16px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  form {
    flex: 1;
    min-width: 100px;
  }
  /* The name of a screen may be long; the rest of the bar stays on its line. */
  > a {
    max-width: 160px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Address = styled.input`
  ${fieldBox}
  font: 12px ${font.code};
`;

const WIDTHS = [
  { label: '390', width: 390 },
  { label: '768', width: 768 },
  { label: '1280', width: 1280 },
  { label: 'Whole', width: null },
] as const;

/** What can be opened beside the running app, and how wide that is, in px. */
export const PANELS = {
  adapt: { title: 'Adapt', width: 336 },
  state: { title: 'What it remembers', width: 286 },
  tape: { title: 'Tape', width: 286 },
} as const;
export type PanelName = keyof typeof PANELS;

/** Where the app is, and whether there is a way back and on. */
export interface Place {
  readonly path: string;
  readonly canGoBack: boolean;
  readonly canGoForward: boolean;
}

interface RunBarProps {
  readonly place: Place;
  /** Key of the screen that is seen. */
  readonly here: string | null;
  readonly tell: (message: object) => void;
  /** Records what is done. */
  readonly recording: ReactNode;
  readonly openEnds: { readonly count: number; readonly isLit: boolean; readonly onLit: () => void };
  readonly panel: PanelName | null;
  readonly onPanel: (panel: PanelName | null) => void;
  /** In CSS px; null for all the room that there is, several widths beside each other are none of it. */
  readonly width: number | null | 'together';
  readonly onWidth: (width: number | null | 'together') => void;
}

/** What is done with the running app as a whole: where it is, what is shown of it and beside it, and how wide it is. */
export function RunBar({
  place,
  here,
  tell,
  recording,
  openEnds,
  panel,
  onPanel,
  width,
  onWidth,
}: RunBarProps) {
  const { base, past, app } = useProject();
  const name = here === null ? '' : app.screens[here].name;
  return (
    <Bar role="group" aria-label="Run">
      <Button aria-label="Back" isDisabled={!place.canGoBack} onPress={() => tell({ tovel: 'back' })}>
        ←
      </Button>
      <Button
        aria-label="Forward"
        isDisabled={!place.canGoForward}
        onPress={() => tell({ tovel: 'forward' })}
      >
        →
      </Button>
      <Button onPress={() => tell({ tovel: 'reload' })}>Reload</Button>
      {recording}
      <AddressLine key={place.path} path={place.path} onGo={(to) => tell({ tovel: 'go', to })} />
      {here !== null && (
        <Link to={`${base}/junction/${here}`} title={name}>
          {name} in Junction
        </Link>
      )}
      <Button aria-pressed={openEnds.isLit} isDisabled={past !== null} onPress={openEnds.onLit}>
        {openEnds.count} {openEnds.count === 1 ? 'open end' : 'open ends'} here
      </Button>
      {(['adapt', 'state', 'tape'] as const).map((one) => (
        <Button
          key={one}
          aria-pressed={panel === one}
          isDisabled={one === 'adapt' && (past !== null || here === null)}
          onPress={() => onPanel(panel === one ? null : one)}
        >
          {PANELS[one].title}
        </Button>
      ))}
      <Segments role="group" aria-label="Width in px">
        {WIDTHS.map((choice) => (
          <Button
            key={choice.label}
            aria-pressed={width === choice.width}
            onPress={() => onWidth(choice.width)}
          >
            {choice.label}
          </Button>
        ))}
        <Button aria-pressed={width === 'together'} onPress={() => onWidth('together')}>
          Three
        </Button>
      </Segments>
    </Bar>
  );
}

/** The address in the app; another one is gone to. */
function AddressLine({ path, onGo }: { path: string; onGo: (to: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const go = (event: FormEvent): void => {
    event.preventDefault();
    const to = (typed ?? path).trim();
    onGo(to.startsWith('/') ? to : `/${to}`);
  };
  return (
    <form onSubmit={go}>
      <Address
        aria-label="Address in the app"
        value={typed ?? path}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => setTyped(null)}
        spellCheck={false}
      />
    </form>
  );
}
