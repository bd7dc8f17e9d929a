import {
  closersOf,
  cutApart,
  cutOverlay,
  elementsByKey,
  isCutApart,
  isUsed,
  joinAgain,
  orderedScreens,
  type Overlay,
  overlayOf,
  type OverlayKind,
  type PanelProposal,
  plainDialog,
  proposePanel,
  putScreen,
  screensByKey,
  type Side,
  uncutOverlay,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Check } from '../ui/Check';
import { Button, Choice } from '../ui/controls';
import { Milliseconds } from './ArrivalFields';

const Grid = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 14px;
  margin-bottom: 16px;
  label {
    display: flex;
    gap: 8px;
    align-items: baseline;
  }
  p {
    grid-column: 1 / -1;
    color: ${color.ink2};
  }
`;

const Over = styled.div`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 14px;
  max-height: 150px;
  overflow: auto;
  &::before {
    content: 'Opens over';
    grid-column: 1 / -1;
    font-size: 11.5px;
    color: ${color.ink2};
  }
`;

const KINDS: readonly { id: OverlayKind; label: string }[] = [
  { id: 'dialog', label: 'Dialog' },
  { id: 'drawer', label: 'Drawer' },
  { id: 'sheet', label: 'Sheet' },
  { id: 'popover', label: 'Popover' },
  { id: 'menu', label: 'Menu' },
  { id: 'toast', label: 'Toast' },
];
const SIDES: readonly { id: Side; label: string }[] = [
  { id: 'left', label: 'left' },
  { id: 'right', label: 'right' },
  { id: 'bottom', label: 'bottom' },
  { id: 'top', label: 'top' },
];

/** What each kind is like where nothing else is said. */
const usual = (kind: OverlayKind, now: Overlay): Overlay => {
  const { side: _side, ms: _ms, ...rest } = now;
  const isToast = kind === 'toast';
  return {
    ...rest,
    kind,
    modal: kind === 'dialog' || kind === 'drawer' || kind === 'sheet',
    escape: !isToast,
    outside: !isToast,
    ...(kind === 'drawer' ? { side: 'left' as const } : kind === 'sheet' ? { side: 'bottom' as const } : {}),
    ...(isToast ? { ms: 4000 } : {}),
  };
};

/** How a screen opens over others: made of it by one command, or changed afterwards. */
export function OverlaySheet({ screen, onClose }: { screen: string; onClose: () => void }) {
  const project = useProject();
  const { app, drawn, session } = project;
  const entry = app.screens[screen];
  const isNow = entry.use === 'overlay';
  const isApart = isNow && isCutApart(project, screen);
  const drawing = screensByKey(drawn).get(screen);
  const others = orderedScreens(app).filter((key) => key !== screen && isUsed(project, key));
  const [under, setUnder] = useState(entry.of ?? alikeName(app, screen, others) ?? 'none');
  const found = useMemo(
    () => (drawing ? proposePanel(drawing, screensByKey(drawn).get(under) ?? null) : null),
    [drawing, drawn, under],
  );
  const [changed, setChanged] = useState<Overlay | null>(null);
  const overlay = changed ?? (isNow ? overlayOf(entry) : (found?.overlay ?? plainDialog));
  const set = (more: Partial<Overlay>): void => setChanged({ ...overlay, ...more });
  const panel = found && drawing && elementsByKey(drawing).get(found.panel);
  const closers = found && drawing && !isNow ? closersOf(project, drawing, found.panel) : [];

  const make = (): void => {
    const proposal: PanelProposal | null = found && { ...found, overlay };
    const of = under === 'none' ? null : under;
    if (isNow) session.change(`Change how ${entry.name} opens`, putScreen(screen, { ...entry, overlay }));
    else if (proposal && !of)
      session.change(`Cut ${proposal.name} out of ${entry.name}`, cutApart(project, screen, proposal));
    else if (proposal)
      session.change(`Cut ${entry.name} into screen and overlay`, cutOverlay(project, screen, proposal, of));
    else
      session.change(
        `Make ${entry.name} an overlay`,
        cutOverlay(project, screen, { panel: `${screen}:`, name: entry.name, overlay, reason: '' }, of),
      );
    onClose();
  };
  return (
    <Sheet title={isNow ? `How ${entry.name} opens` : `Make ${entry.name} an overlay`} onClose={onClose}>
      <Grid>
        {!isNow && (
          <>
            <Choice
              label="Over which screen it is drawn"
              value={under}
              options={[
                { id: 'none', label: 'none: it is drawn by itself' },
                ...others.map((key) => ({ id: key, label: app.screens[key].name })),
              ]}
              onChange={(key) => (setChanged(null), setUnder(key))}
            />
            <p>
              {panel
                ? `The overlay is “${panel.name}”, because ${found.reason}. ${
                    under === 'none'
                      ? `The rest stays as ${entry.name}.`
                      : `What leads to ${entry.name} will open it.`
                  }`
                : 'All that is drawn is the overlay.'}
              {closers.length > 0 &&
                ` ${closers.map(({ label }) => `“${label}”`).join(' and ')} will close it.`}
            </p>
          </>
        )}
        <Choice
          label="Kind"
          value={overlay.kind}
          options={KINDS}
          onChange={(kind) => setChanged(usual(kind, overlay))}
        />
        {overlay.kind === 'drawer' || overlay.kind === 'sheet' ? (
          <Choice
            label="Comes from"
            value={overlay.side ?? (overlay.kind === 'drawer' ? 'left' : 'bottom')}
            options={SIDES}
            onChange={(side) => set({ side })}
          />
        ) : overlay.kind === 'toast' ? (
          <Milliseconds
            label="Goes after, in milliseconds"
            most={600_000}
            value={overlay.ms ?? 4000}
            onChange={(ms) => set({ ms: Math.max(500, ms) })}
          />
        ) : (
          <span />
        )}
        <Check
          label="What lies behind waits"
          isOn={overlay.modal}
          onChange={(modal) => set({ modal })}
          isDisabled={!['dialog', 'drawer', 'sheet'].includes(overlay.kind)}
        />
        <Check label="Escape closes it" isOn={overlay.escape} onChange={(escape) => set({ escape })} />
        <Check
          label="A press outside closes it"
          isOn={overlay.outside}
          onChange={(outside) => set({ outside })}
        />
        <Check
          label="Has an address, so Back closes it"
          isOn={overlay.url ?? false}
          onChange={(isOn) => {
            const { url: _url, ...rest } = overlay;
            setChanged(isOn ? { ...rest, url: true } : rest);
          }}
        />
        {isNow && <OpensOver overlay={overlay} of={entry.of} others={others} onChange={setChanged} />}
      </Grid>
      <div style={{ display: 'flex', gap: 8 }}>
        <Button $kind="primary" onPress={make}>
          {isNow ? 'Save' : panel ? 'Cut it out' : 'Make it an overlay'}
        </Button>
        {isNow && (
          <Button
            onPress={() => {
              session.change(
                isApart ? `Put ${entry.name} back` : `Make ${entry.name} a screen again`,
                isApart ? joinAgain(project, screen) : uncutOverlay(project, screen),
              );
              onClose();
            }}
          >
            {isApart
              ? `Put it back into ${app.screens[entry.of ?? '']?.name ?? 'its screen'}`
              : 'Make it a screen again'}
          </Button>
        )}
      </div>
    </Sheet>
  );
}

interface OpensOverProps {
  overlay: Overlay;
  /** The screen over which it is drawn. */
  of: string | undefined;
  others: readonly string[];
  onChange: (overlay: Overlay) => void;
}

/** Over which screens an overlay opens: any, or those that are chosen. */
function OpensOver({ overlay, of, others, onChange }: OpensOverProps) {
  const { app } = useProject();
  return (
    <Over role="group" aria-label="Opens over">
      <Check
        label="any screen"
        isOn={!overlay.over}
        onChange={(isAny) => {
          const { over: _over, ...rest } = overlay;
          onChange(isAny ? rest : { ...rest, over: of ? [of] : [] });
        }}
      />
      {overlay.over &&
        others.map((key) => (
          <Check
            key={key}
            label={app.screens[key].name}
            isOn={overlay.over!.includes(key)}
            onChange={(isOn) =>
              onChange({
                ...overlay,
                over: isOn ? [...overlay.over!, key] : overlay.over!.filter((other) => other !== key),
              })
            }
          />
        ))}
    </Over>
  );
}

/** The other screen whose name this one's begins with or holds, if one is. */
function alikeName(
  app: ReturnType<typeof useProject>['app'],
  screen: string,
  others: readonly string[],
): string | null {
  const name = app.screens[screen].name.toLowerCase();
  return others.find((key) => name.includes(app.screens[key].name.toLowerCase())) ?? null;
}
