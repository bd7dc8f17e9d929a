/** Learned by `bench/links/learn.ts`, in the order of `TRAITS`. */
export const WEIGHTS: readonly number[] = [
  -2.35, // always
  -0.2, // best likeness of its label to a name of the screen
  0.66, // likeness to a second name
  1.44, // the label is the name, as written
  1.36, // the label is a heading, as written
  -0.4, // share of the label’s words in the names
  -0.07, // label of one word
  0.06, // label of more than three words
  -0.82, // a number in the label that is in no name
  3.82, // marked there in its menu
  0.89, // in a menu that stands on several screens
  -0.93, // share of the entries of that menu that are called as screens are
  -1.76, // in a menu of this screen alone
  0.12, // leads to its own screen
  -0.06, // leads to its own screen, and is the marked entry
  -1.9, // opens or closes something
  1.58, // is written as a link, or drawn
  -1.19, // is a button
  1.24, // the app’s own name
  -0.65, // asks for the first screen
  1.51, // rows of its list
  3.92, // steps and ways back
  1.67, // what is sent
  -1.15, // share of screens with this label
  -0.28, // has no label
  -1.38, // stands before a list that it opens
  -0.78, // another entry of its menu is called more like that screen
  -0.23, // in a pager, a bar of tabs, a slide show or breadcrumbs
  -0.32, // as like the name of another screen
  0.3, // hidden
  2.15, // likeness, in a menu whose entries are called as screens are
  -0.16, // likeness of a button
  0.66, // likeness outside of any menu
  0.98, // likeness of a heading alone
  1.52, // the label says all that a name says, and no more
  -0.58, // so it does outside of any menu
];

/** From a likelihood on, the share that was right on templates that were not learned from. */
export const STEPS: readonly (readonly [from: number, share: number])[] = [
  [0.084, 0.13],
  [0.097, 0.194],
  [0.339, 0.401],
  [0.399, 0.719],
  [0.776, 0.788],
  [0.83, 0.962],
  [0.946, 0.988],
];
