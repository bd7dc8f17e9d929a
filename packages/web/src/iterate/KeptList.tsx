import type { Answer, ReportedKept } from '@tovel/core';
import { type KeyboardEvent, useRef } from 'react';
import { Button } from '../ui/controls';
import { Item, Title } from './Decisions';

interface KeptListProps {
  kept: readonly ReportedKept[];
  chosen: string | null;
  onChoose: (element: string) => void;
  /** What was pointed at in the newer picture, with its label. */
  pointed: { readonly key: string; readonly label: string } | null;
  /** Null takes the answer back that was given. */
  onAnswer: (element: string, answer: Answer | null) => void;
}

/** What goes along with a screen; each can be put on another element, or let go. */
export function KeptList({ kept, chosen, onChoose, pointed, onAnswer }: KeptListProps) {
  const list = useRef<HTMLUListElement>(null);
  const onKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const at = kept.findIndex(({ element }) => element === chosen);
    const one = kept[at];
    const key = event.key.toLowerCase();
    const next = { arrowdown: kept[at + 1], arrowup: kept[at - 1] }[key];
    if (next) onChoose(next.element);
    else if (one && key === 'p' && pointed) onAnswer(one.element, { kind: 'on', element: pointed.key });
    else if (one && key === 'l') onAnswer(one.element, { kind: 'letGo' });
    else return;
    event.preventDefault();
    list.current?.focus();
  };
  return (
    <ul ref={list} tabIndex={0} aria-label="Goes along" onKeyDown={onKey}>
      {kept.map((one) => {
        const isOn = one.element === chosen;
        return (
          <Item key={one.element} $isOn={isOn} aria-label={one.label}>
            <Title
              type="button"
              tabIndex={-1}
              aria-current={isOn}
              onClick={() => {
                onChoose(one.element);
                list.current?.focus();
              }}
            >
              “{one.label}”
            </Title>
            <p>
              {one.about}. {sureness(one)}
            </p>
            {isOn && (
              <div>
                {pointed && pointed.key !== one.to && (
                  <Button
                    $kind="primary"
                    aria-keyshortcuts="P"
                    onPress={() => onAnswer(one.element, { kind: 'on', element: pointed.key })}
                  >
                    It is “{pointed.label}”<kbd>P</kbd>
                  </Button>
                )}
                {one.isByHand && <Button onPress={() => onAnswer(one.element, null)}>As it was found</Button>}
                <Button aria-keyshortcuts="L" onPress={() => onAnswer(one.element, { kind: 'letGo' })}>
                  Let go<kbd>L</kbd>
                </Button>
              </div>
            )}
          </Item>
        );
      })}
    </ul>
  );
}

const sureness = ({ label, toLabel, score, isByHand }: ReportedKept): string =>
  isByHand
    ? `You put it on “${toLabel}”.`
    : `${label === toLabel ? 'The same words' : `It is “${toLabel}” now`}, ${Math.round(score * 100)} % sure.`;
