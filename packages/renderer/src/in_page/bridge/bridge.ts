import { readAs, seenOf } from '../pointing.ts';
import { actAsTold } from './acting.ts';
import { dressAsTold } from './dressing.ts';
import { tellFaults } from './faults.ts';
import { Frame } from './frame.ts';
import { lightOpenEnds } from './open_ends.ts';
import { tellPlaces } from './places.ts';
import { pointAsTold } from './pointing_out.ts';
import { refreshAsTold } from './refreshing.ts';
import { tellRemembered } from './remembered.ts';
import { tellRequests } from './requests.ts';

/**
 * Runs beside a generated app in the frame of Run: tells the window around it what happens in the app, and does there what it
 * is told.
 * @param appOrigin where the window around it comes from
 */
export function startBridge(appOrigin: string): void {
  const frame = new Frame(appOrigin);
  // What leads nowhere is asked about before anything else hears that it was pressed.
  lightOpenEnds(frame);
  pointAsTold(frame);
  tellPressed(frame, 'click', 'press', 'a, button, [role="link"]');
  tellPressed(frame, 'change', 'enter', 'input, textarea, select');
  tellFaults(frame);
  const ask = tellRequests(frame);
  const kept = tellRemembered(frame, ask);
  actAsTold(frame);
  dressAsTold(frame);
  const { tell, reload } = tellPlaces(frame, kept);
  refreshAsTold(frame, reload, tell);
}

/** What is pressed and entered is told by its place among its kind, so that a journey can be recorded. */
function tellPressed(frame: Frame, type: string, kind: string, selector: string): void {
  document.addEventListener(
    type,
    ({ target, isTrusted }) => {
      const element = target instanceof Element ? target.closest(selector) : null;
      const index = element ? [...document.querySelectorAll(selector)].indexOf(element) : -1;
      if (!element || index < 0) return;
      const { type: of, value = '' } = element as Partial<HTMLInputElement>;
      const text = of === 'password' ? '' : value;
      const seen = seenOf(element);
      // Frames beside this one do what somebody did here, not what was done for them.
      frame.tell(kind, { index, path: frame.path, text, says: readAs(element), seen, isTrusted });
    },
    true,
  );
}
