/** What is done besides pressing: the key that is pressed, or to which side one swipes. */
export interface Gesture {
  on: string;
  key?: string;
  side?: 'left' | 'right' | 'top' | 'bottom';
}

/** How far one swipes, in px. */
const FAR = 80;

/** Does it to an element; what comes by itself is only waited for. */
export function gesture(element: HTMLElement, { on, key, side = 'left' }: Gesture): void {
  const point = (type: string, clientX = 0, clientY = 0): void =>
    void element.dispatchEvent(
      new MouseEvent(type, { bubbles: type !== 'pointerenter', clientX, clientY }),
    );
  switch (on) {
    case 'double-press':
      point('dblclick');
      break;
    case 'long-press':
      point('pointerdown');
      break;
    case 'hover':
      point('pointerover');
      point('pointerenter');
      break;
    case 'key':
      element.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      break;
    case 'swipe': {
      const [x, y] = { left: [-FAR, 0], right: [FAR, 0], top: [0, -FAR], bottom: [0, FAR] }[side];
      point('pointerdown');
      point('pointermove', x, y);
      point('pointerup', x, y);
    }
  }
}
