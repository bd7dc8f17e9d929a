import { useVirtualizer } from '@tanstack/react-virtual';
import { all, type Cause, causesOf, type Finding, type Project, ruleKinds, screenName } from '@tovel/core';
import { type KeyboardEvent, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useFound, useProject, useStanding } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { FindingMark, LEVEL_NAMES } from '../ui/finding_mark';
import { LetStandSheet } from './LetStandSheet';

const Scroller = styled.div`
  overflow: auto;
  min-height: 0;
  outline-offset: -3px;
`;

const Row = styled.div<{ $isOn: boolean }>`
  position: absolute;
  left: 0;
  right: 0;
  padding: 8px 14px 8px 16px;
  border-top: 1px solid ${color.rule};
  display: grid;
  grid-template-columns: 15px minmax(0, 1fr);
  gap: 4px 6px;
  cursor: pointer;
  background: ${({ $isOn }) => ($isOn ? color.lakeTint : 'none')};
  > i {
    margin-top: 4px;
  }
  small {
    display: block;
    font-size: 12px;
    color: ${color.ink2};
  }
  > div {
    grid-column: 2;
    display: flex;
    flex-wrap: wrap;
    gap: 2px 6px;
    margin-left: -10px;
  }
`;

const GroupHead = styled.h3`
  position: absolute;
  left: 0;
  right: 0;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 2px 8px;
  /* What mends a whole group may be long, and goes below its title then. */
  > span {
    flex: 1 1 14ch;
  }
  > button {
    margin-left: -10px;
  }
  padding: 8px 10px 6px 16px;
  border-top: 1px solid ${color.ink};
  background: ${color.side};
  font-size: 12.5px;
`;

type Line =
  | { readonly kind: 'group'; readonly title: string; readonly findings: readonly Finding[] }
  | {
      readonly kind: 'finding';
      readonly finding: Finding;
      /** Where it stands for all of one cause. */
      readonly cause?: Cause;
    };

export type Grouping = 'rule' | 'screen';

interface FoundListProps {
  findings: readonly Finding[];
  groupBy?: Grouping;
  /** Goes to where a finding is. */
  onGo: (finding: Finding) => void;
  /** Told which finding is looked at. */
  onLook?: (finding: Finding) => void;
  nothing: string;
}

/** What was found, by rule or by screen: each with its place, and one key that mends it; a whole group at once as well. */
export function FoundList({ findings, groupBy = 'rule', onGo, onLook, nothing }: FoundListProps) {
  const { isLooking } = useFound();
  const { isArriving } = useStanding();
  const project = useProject();
  const { session } = project;
  const scroller = useRef<HTMLDivElement>(null);
  const [standing, setStanding] = useState<readonly Finding[] | null>(null);
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
  const lines = useMemo(
    () => grouped(project, findings, groupBy, unfolded),
    [project, findings, groupBy, unfolded],
  );
  const [at, setAt] = useState(0);
  const places = lines.flatMap((line, i) => (line.kind === 'finding' ? [i] : []));
  const current = places.reduce(
    (best, place) => (Math.abs(place - at) < Math.abs(best - at) ? place : best),
    places[0] ?? 0,
  );
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => (lines[index].kind === 'group' ? 34 : 74),
    overscan: 8,
  });
  const fix = ({ finding, cause }: Line & { kind: 'finding' }): void => {
    const changes = allOf({ finding, cause }).flatMap((one) => (one.fix ? [one.fix.change] : []));
    if (finding.fix && changes.length)
      session.change(`${finding.fix.label}: ${finding.message}`.slice(0, 200), all(changes));
  };
  const fixAll = (title: string, own: readonly Finding[]): void => {
    const changes = own.flatMap((finding) => (finding.fix ? [finding.fix.change] : []));
    session.change(`${title}: all ${changes.length}`, all(changes));
  };
  const look = (index: number): void => {
    const line = lines[index];
    if (line?.kind === 'finding') onLook?.(line.finding);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const line = lines[current];
    if (line?.kind !== 'finding' || event.target !== event.currentTarget) return;
    const move = (by: 1 | -1): void => {
      event.preventDefault();
      const next = places[Math.max(0, Math.min(places.length - 1, places.indexOf(current) + by))];
      setAt(next);
      look(next);
      virtual.scrollToIndex(next, { align: 'auto' });
    };
    if (event.key === 'ArrowDown') move(1);
    else if (event.key === 'ArrowUp') move(-1);
    else if (event.key === 'Enter') onGo(line.finding);
    else if (event.key.toLowerCase() === 'f' && !event.ctrlKey && !event.metaKey) fix(line);
    else if (event.key.toLowerCase() === 'd' && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      setStanding(allOf(line));
    }
  };
  if (!lines.length)
    return (
      <p style={{ padding: '10px 16px', color: color.ink2 }}>
        {isArriving
          ? 'What is found is shown here once all screens are read.'
          : isLooking
            ? 'Looking through the screens …'
            : nothing}
      </p>
    );
  return (
    <>
      <Scroller
        ref={scroller}
        tabIndex={0}
        role="listbox"
        aria-label="What was found"
        aria-activedescendant={`found-${current}`}
        onKeyDown={onKeyDown}
      >
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const line = lines[index];
            if (line.kind === 'group') {
              const fixes = line.findings.flatMap((finding) => finding.fix?.label ?? []);
              const mendable = fixes.length;
              const isOne = fixes.every((label) => label === fixes[0]);
              return (
                <GroupHead
                  key={line.title}
                  ref={virtual.measureElement}
                  data-index={index}
                  style={{ transform: `translateY(${start}px)` }}
                >
                  <span>
                    {line.title} · {line.findings.length}
                  </span>
                  {mendable > 1 && (
                    <Button $kind="quiet" onPress={() => fixAll(line.title, line.findings)}>
                      {isOne ? `${fixes[0]}: all ${mendable}` : `Mend all ${mendable}`}
                    </Button>
                  )}
                </GroupHead>
              );
            }
            const { finding, cause } = line;
            return (
              <Row
                key={finding.id}
                id={`found-${index}`}
                ref={virtual.measureElement}
                data-index={index}
                role="option"
                aria-selected={index === current}
                $isOn={index === current}
                style={{ transform: `translateY(${start}px)` }}
                onClick={() => {
                  setAt(index);
                  onLook?.(finding);
                  onGo(finding);
                }}
              >
                <FindingMark $level={finding.level} title={LEVEL_NAMES[finding.level]} />
                <span>
                  {finding.message}
                  {cause && <small>{moreOf(cause)}</small>}
                </span>
                <LineActions
                  line={line}
                  onFix={() => fix(line)}
                  onStand={() => setStanding(allOf(line))}
                  onUnfold={(id) => setUnfolded(new Set([...unfolded, id]))}
                />
              </Row>
            );
          })}
        </div>
      </Scroller>
      {standing && <LetStandSheet findings={standing} onClose={() => setStanding(null)} />}
    </>
  );
}

interface LineActionsProps {
  line: Line & { kind: 'finding' };
  onFix: () => void;
  onStand: () => void;
  /** Shows each finding of a cause, by its id. */
  onUnfold: (cause: string) => void;
}

/** What can be done about a finding, or about all of one cause. */
function LineActions({ line, onFix, onStand, onUnfold }: LineActionsProps) {
  const { finding, cause } = line;
  const mendable = allOf(line).filter((one) => one.fix).length;
  return (
    <div onClick={(event) => event.stopPropagation()}>
      {finding.fix && (
        <Button $kind="quiet" onPress={onFix} aria-keyshortcuts="F">
          {mendable > 1 ? `${finding.fix.label}: all ${mendable}` : finding.fix.label}
        </Button>
      )}
      <Button $kind="quiet" onPress={onStand} aria-keyshortcuts="D" style={{ fontWeight: 450 }}>
        Let it stand
      </Button>
      {cause && (
        <Button $kind="quiet" style={{ fontWeight: 450 }} onPress={() => onUnfold(cause.id)}>
          Show each
        </Button>
      )}
    </div>
  );
}

const allOf = ({ finding, cause }: { finding: Finding; cause?: Cause }): readonly Finding[] =>
  cause?.findings ?? [finding];

/** `And on 23 more screens`. */
function moreOf({ findings, screens }: Cause): string {
  const more = findings.length - 1;
  const others = screens.length - 1;
  if (others < 1) return `And ${more} more like it here.`;
  const on = `on ${others} more ${others === 1 ? 'screen' : 'screens'}`;
  return more === others ? `And ${on}.` : `And ${more} more, ${on}.`;
}

/**
 * Findings under the titles of their rules, or under the names of the screens that they are on; those of one cause on one
 * line until they are unfolded.
 */
function grouped(
  project: Project,
  findings: readonly Finding[],
  by: Grouping,
  unfolded: ReadonlySet<string>,
): Line[] {
  const groups = new Map<string, Finding[]>();
  const titles = new Map(ruleKinds.map((rule) => [rule.code, rule.title]));
  const titleOf = (finding: Finding): string =>
    by === 'rule'
      ? (titles.get(finding.code) ?? finding.code)
      : finding.screen
        ? screenName(project, finding.screen)
        : 'The whole app';
  for (const finding of findings) {
    const title = titleOf(finding);
    const list = groups.get(title);
    if (list) list.push(finding);
    else groups.set(title, [finding]);
  }
  return [...groups].flatMap(([title, own]): Line[] => [
    { kind: 'group', title, findings: own },
    ...causesOf(project, own).flatMap((cause): Line[] =>
      cause.findings.length > 1 && !unfolded.has(cause.id)
        ? [{ kind: 'finding', finding: cause.findings[0], cause }]
        : cause.findings.map((finding): Line => ({ kind: 'finding', finding })),
    ),
  ]);
}
