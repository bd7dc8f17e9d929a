import type { Answer, ReportedAsk } from '@tovel/core';
import { type KeyboardEvent, useEffect, useRef } from 'react';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { Button } from '../ui/controls';

export const Item = styled.li<{ $isOn: boolean }>`
  padding: 9px 16px 10px;
  border-top: 1px solid ${color.rule};
  background: ${({ $isOn }) => ($isOn ? color.lakeTint : 'none')};
  outline-offset: -2px;
  p {
    color: ${color.ink2};
    overflow-wrap: anywhere;
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    padding-top: 6px;
  }
  kbd {
    font: 11px ${font.code};
    margin-left: 6px;
    opacity: 0.8;
  }
`;

export const Title = styled.button`
  border: 0;
  padding: 0;
  background: none;
  text-align: left;
  font-weight: 600;
  cursor: pointer;
`;

interface DecisionsProps {
  asks: readonly ReportedAsk[];
  chosen: string | null;
  onChoose: (id: string) => void;
  /** What was pointed at in the newer picture, with its label. */
  pointed: { readonly key: string; readonly label: string } | null;
  onAnswer: (id: string, answer: Answer) => void;
}

const WHY: Readonly<Record<Exclude<ReportedAsk['why'], 'template'>, string>> = {
  unsure: 'It may be another element now.',
  gone: 'It is gone; this is like it.',
  bothChanged: 'Changed by hand, and by the design too.',
};

/** What is asked, each with what it is about, the answers that are offered with their reasons, and a key for each. */
export function Decisions({ asks, chosen, onChoose, pointed, onAnswer }: DecisionsProps) {
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[data-chosen]')?.scrollIntoView?.({ block: 'nearest' });
  }, [chosen]);
  const onKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const at = asks.findIndex(({ id }) => id === chosen);
    const ask = asks[at];
    const go = (to: number): void => {
      const next = asks[Math.max(0, Math.min(asks.length - 1, to))];
      if (!next) return;
      onChoose(next.id);
      list.current?.focus();
    };
    const key = event.key.toLowerCase();
    if (key === 'arrowdown') go(at + 1);
    else if (key === 'arrowup') go(at - 1);
    else if (!ask) return;
    else {
      const answer = answerOfKey(ask, key, pointed?.key ?? null);
      if (!answer) return;
      onAnswer(ask.id, answer);
      const next = asks[at + 1] ?? asks[at - 1];
      if (next) onChoose(next.id);
      list.current?.focus();
    }
    event.preventDefault();
  };
  return (
    <ul ref={list} tabIndex={0} aria-label="To decide" onKeyDown={onKey}>
      {asks.map((ask) => {
        const isOn = ask.id === chosen;
        return (
          <Item key={ask.id} $isOn={isOn} data-chosen={isOn || undefined} aria-label={ask.label}>
            <Title
              type="button"
              tabIndex={-1}
              aria-current={isOn}
              onClick={() => {
                onChoose(ask.id);
                list.current?.focus();
              }}
            >
              “{ask.label}”
            </Title>
            <p>
              {ask.why === 'template' ? (
                <>
                  Its places are built otherwise now: {ask.rebuilt}.
                  {!ask.proposed && ' They are no longer alike.'}
                </>
              ) : (
                <>
                  On {ask.on}: {ask.about}. {WHY[ask.why]}
                </>
              )}
            </p>
            {ask.clashes.map(({ property, was, mine, design }) => (
              <p key={property}>
                {property === 'text' ? 'Text' : property}: was {shown(was)}, yours {shown(mine)}, the design’s{' '}
                {shown(design)}
              </p>
            ))}
            <div>
              {ask.candidates.map((one, i) => (
                <Button
                  key={one.element}
                  $kind={i === 0 && ask.proposed ? 'primary' : undefined}
                  aria-keyshortcuts={String(i + 1)}
                  onPress={() => onAnswer(ask.id, { kind: 'on', element: one.element })}
                >
                  It is “{one.label}”{isOn && <kbd>{i + 1}</kbd>}
                </Button>
              ))}
              {isOn && pointed && !isEitherOr(ask) && (
                <Button
                  $kind="primary"
                  aria-keyshortcuts="P"
                  onPress={() => onAnswer(ask.id, { kind: 'on', element: pointed.key })}
                >
                  Put it on “{pointed.label}”<kbd>P</kbd>
                </Button>
              )}
              {isEitherOr(ask) ? (
                <>
                  <Button
                    aria-keyshortcuts="O"
                    onPress={() => onAnswer(ask.id, { kind: 'own' })}
                    $kind={ask.proposed?.kind === 'own' ? 'primary' : undefined}
                  >
                    {ask.why === 'template' ? 'Keep it one' : 'Keep yours'}
                    {isOn && <kbd>O</kbd>}
                  </Button>
                  <Button
                    aria-keyshortcuts="D"
                    onPress={() => onAnswer(ask.id, { kind: 'design' })}
                    $kind={ask.proposed?.kind === 'design' ? 'primary' : undefined}
                  >
                    {ask.why === 'template' ? 'Take it apart' : 'Take the design’s'}
                    {isOn && <kbd>D</kbd>}
                  </Button>
                </>
              ) : (
                <Button aria-keyshortcuts="L" onPress={() => onAnswer(ask.id, { kind: 'letGo' })}>
                  Let go{isOn && <kbd>L</kbd>}
                </Button>
              )}
            </div>
            {ask.candidates.length > 0 && isOn && (
              <p style={{ paddingTop: 6 }}>
                {ask.candidates
                  .map((one, i) => `${i + 1}: ${one.reason}, ${Math.round(one.score * 100)} % sure`)
                  .join(' · ')}
              </p>
            )}
          </Item>
        );
      })}
    </ul>
  );
}

/** Whether one answers only by keeping what was decided or taking what the design has. */
export const isEitherOr = ({ why }: ReportedAsk): boolean => why === 'bothChanged' || why === 'template';

const shown = (value: string): string => (value ? `“${value}”` : 'nothing');

function answerOfKey(ask: ReportedAsk, key: string, pointed: string | null): Answer | null {
  if (isEitherOr(ask)) return key === 'o' ? { kind: 'own' } : key === 'd' ? { kind: 'design' } : null;
  if (key === 'l') return { kind: 'letGo' };
  if (key === 'p' && pointed) return { kind: 'on', element: pointed };
  const candidate = /^[1-9]$/.test(key) ? ask.candidates[Number(key) - 1] : undefined;
  return candidate ? { kind: 'on', element: candidate.element } : null;
}
