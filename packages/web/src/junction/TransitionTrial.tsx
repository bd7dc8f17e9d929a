import { type Arrival, describeArrival, screenName, screensByKey, type Side } from '@tovel/core';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { ScreenPicture } from '../picture/ScreenPicture';
import { useProject } from '../project/context';
import { placeInPicture } from '../picture/in_picture';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';

const Window = styled.div`
  position: relative;
  overflow: hidden;
  margin: 0 auto 12px;
  border: 1px solid ${color.fieldRule};
  > div {
    position: absolute;
    inset: 0;
    overflow: hidden;
  }
`;

const Row = styled.div`
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: center;
`;

const WIDTH = 260;
const HEIGHT = 420;

const AWAY: Readonly<Record<Side, string>> = {
  right: 'translate(100%, 0)',
  left: 'translate(-100%, 0)',
  bottom: 'translate(0, 100%)',
  top: 'translate(0, -100%)',
};
const OPPOSITE: Readonly<Record<Side, Side>> = { left: 'right', right: 'left', top: 'bottom', bottom: 'top' };

/** The two screens, and the transition between them: at full speed, at a tenth of it, and the way back. */
export function TransitionTrial({
  from,
  to,
  arrival,
  onClose,
}: {
  from: string;
  to: string;
  arrival: Arrival;
  onClose: () => void;
}) {
  const project = useProject();
  const [old, next] = [useRef<HTMLDivElement>(null), useRef<HTMLDivElement>(null)];
  const pages = useRef<{ old: Document | null; next: Document | null }>({ old: null, next: null });
  const [isSlow, setSlow] = useState(false);
  const [isReady, setReady] = useState(0);
  const screens = screensByKey(project.design);
  const [first, second] = [screens.get(from)!, screens.get(to)!];
  const isOverlay = project.app.screens[to]?.use === 'overlay';
  const ratio = (width: number): number => WIDTH / width;

  const play = (isBack: boolean, rate: number): void => {
    if (!old.current || !next.current || arrival.kind === 'none') return;
    const options: KeyframeAnimationOptions = {
      duration: arrival.ms,
      delay: arrival.delay ?? 0,
      easing: arrival.easing ?? 'ease-out',
      fill: 'both',
      direction: isBack ? 'reverse' : 'normal',
    };
    const [leaving, coming] = framesOf(arrival);
    const running = [old.current.animate(leaving, options), next.current.animate(coming, options)];
    if (arrival.kind === 'shared')
      running.push(
        ...moved(arrival, pages.current, {
          old: ratio(first.width),
          next: ratio(second.width),
        }).map(([element, frames]) => element.animate(frames, options)),
      );
    for (const animation of running) animation.playbackRate = rate;
  };

  useEffect(() => {
    if (isReady >= 2) play(false, isSlow ? 0.1 : 1);
    // Only once both are drawn; after that it plays when somebody asks.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isReady]);

  return (
    <Sheet title={`${screenName(project, from)} → ${screenName(project, to)}`} onClose={onClose}>
      <Window style={{ width: WIDTH, height: HEIGHT }} aria-hidden="true">
        <div ref={old}>
          <ScreenPicture
            screen={first}
            width={WIDTH}
            onReady={(page) => {
              pages.current.old = page;
              setReady((n) => n + 1);
            }}
          />
        </div>
        <div ref={next} style={isOverlay ? { display: 'grid', placeItems: 'center' } : undefined}>
          <ScreenPicture
            screen={second}
            width={isOverlay ? Math.min(WIDTH, second.width * ratio(first.width)) : WIDTH}
            onReady={(page) => {
              pages.current.next = page;
              setReady((n) => n + 1);
            }}
          />
        </div>
      </Window>
      <p style={{ textAlign: 'center', marginBottom: 12, color: color.ink2 }}>{describeArrival(arrival)}</p>
      <Row>
        <Button onPress={() => play(false, isSlow ? 0.1 : 1)}>Play</Button>
        <Button onPress={() => play(true, isSlow ? 0.1 : 1)}>Play the way back</Button>
        <Button $kind={isSlow ? 'primary' : undefined} aria-pressed={isSlow} onPress={() => setSlow(!isSlow)}>
          A tenth of the speed
        </Button>
      </Row>
    </Sheet>
  );
}

/** How the present screen leaves and how the next one comes. */
function framesOf(arrival: Exclude<Arrival, { kind: 'none' }>): [Keyframe[], Keyframe[]] {
  switch (arrival.kind) {
    case 'slide':
      return [
        [{ opacity: 1 }, { opacity: 0.6 }],
        [{ transform: AWAY[arrival.from] }, { transform: 'none' }],
      ];
    case 'push':
      return [
        [{ transform: 'none' }, { transform: AWAY[OPPOSITE[arrival.from]] }],
        [{ transform: AWAY[arrival.from] }, { transform: 'none' }],
      ];
    case 'scale':
      return [
        [{ opacity: 1 }, { opacity: 1 }],
        [
          { opacity: 0, transform: 'scale(0.85)' },
          { opacity: 1, transform: 'none' },
        ],
      ];
    case 'fade':
    case 'shared':
      return [
        [{ opacity: 1 }, { opacity: 1 }],
        [{ opacity: 0 }, { opacity: 1 }],
      ];
  }
}

/** Elements of the next screen, each moving from where its partner stands on the present one. */
function moved(
  { pairs }: Extract<Arrival, { kind: 'shared' }>,
  pages: { readonly old: Document | null; readonly next: Document | null },
  ratios: { readonly old: number; readonly next: number },
): [Element, Keyframe[]][] {
  return pairs.flatMap(({ from, to }): [Element, Keyframe[]][] => {
    const [there, here] = [
      placeInPicture(pages.old, from, ratios.old),
      placeInPicture(pages.next, to, ratios.next),
    ];
    const element = pages.next?.querySelector(`[data-key="${CSS.escape(to)}"]`);
    if (!there || !here || !element) return [];
    const scale = ratios.next;
    const shift = `translate(${(there.x - here.x) / scale}px, ${(there.y - here.y) / scale}px) scale(${there.width / here.width}, ${there.height / here.height})`;
    return [
      [
        element,
        [
          { transform: shift, transformOrigin: '0 0' },
          { transform: 'none', transformOrigin: '0 0' },
        ],
      ],
    ];
  });
}
