import type { Effect } from './effects';
import type { Gesture } from './gestures';

type Given = Record<string, boolean>;

/** What is pressed so that something opens over a screen. */
export interface Opening {
  role: string;
  name: string;
  at?: number;
  overlay: string;
}

/** A list as `behaviour.json` asks it: its address, that with what is asked for, and what is seen then, or less often. */
export interface ListedList {
  at: string;
  asked: string;
  shows: string[];
  hides: string[];
  given?: Given;
}

/** A form with these fields: what it needs, and what comes about where it is filled in so. */
export interface ListedForm {
  from: string;
  fields: string[];
  at?: number;
  needs: string[];
  filled?: Record<string, string>;
  does?: Effect[];
  given?: Given;
  opens?: Opening;
}

/** What is pressed, and what comes about then. */
export interface ListedDeed {
  from: string;
  role: string;
  name: string;
  at?: number;
  does: Effect[];
  given?: Given;
  opens?: Opening;
}

/** A field that does something as soon as it says something else, and what comes about then. */
export interface ListedChange {
  from: string;
  field: string;
  at?: number;
  says: string;
  does: Effect[];
  given?: Given;
  opens?: Opening;
}

/** What is done to an element of this tag that says this, or on the whole screen, and what comes about then. */
export interface ListedGesture extends Gesture {
  from: string;
  tag?: string;
  name?: string;
  at?: number;
  /** How long one waits for it, in milliseconds. */
  ms?: number;
  does: Effect[];
  given?: Given;
  opens?: Opening;
}
