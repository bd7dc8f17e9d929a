/** How screens are made: as pages with classes, or drawn without. */
export type Making = 'page' | 'drawing';

interface Weights {
  /** Of the evidence `OWN`, in its order. */
  readonly own: readonly number[];
  /** Of the evidence `CONTEXT`, in its order. */
  readonly context: readonly number[];
}

/** Weights of evidence, learned from edited pages, and from the same as they would be drawn. */
export const WEIGHTS: Readonly<Record<Making, Weights>> = {
  page: {
    own: [
      -6.75, // one
      4.43, // tag
      2.54, // idSame
      -2.55, // idDiffers
      0.87, // textSame
      2.1, // textNear
      0.49, // textNumbers
      -0.68, // textDiffers
      -2.31, // textOneSided
      -0.54, // labelSame
      -0.81, // labelDiffers
      0.32, // pictureSame
      -0.46, // pictureDiffers
      -0.09, // classes
      -2.34, // classesDiffer
      4.58, // says
      3.58, // saysNothing
      2.19, // built
      -1.74, // size
      0.85, // look
      -0.69, // width
      -0.36, // height
      0.77, // addressSame
      -1.91, // addressDiffers
      0.7, // nameSame
      -0.71, // nameDiffers
      -0.89, // buildSame
      -1.04, // exactSame
      0.31, // contentSame
      2.72, // contentRare
      1.09, // placeX
      0.77, // placeY
    ],
    context: [
      1.7, // own
      1.56, // parents
      0.41, // parentElsewhere
      1.47, // before
      -0.18, // beforeElsewhere
      1.25, // after
      -0.58, // afterElsewhere
      0.59, // inside
      -0.84, // insideElsewhere
      0.31, // index
      -2.66, // rival
      1.41, // one
    ],
  },
  drawing: {
    own: [
      -5.5, // one
      -0.66, // tag
      0, // idSame
      0, // idDiffers
      0.93, // textSame
      3.39, // textNear
      1.09, // textNumbers
      -0.05, // textDiffers
      -2.69, // textOneSided
      0, // labelSame
      0, // labelDiffers
      -0.44, // pictureSame
      -0.12, // pictureDiffers
      0, // classes
      0, // classesDiffer
      3.55, // says
      3.13, // saysNothing
      2.66, // built
      -0.88, // size
      2.88, // look
      -0.62, // width
      -0.4, // height
      0, // addressSame
      0, // addressDiffers
      1.05, // nameSame
      0.18, // nameDiffers
      -1.06, // buildSame
      -0.56, // exactSame
      1.81, // contentSame
      2.52, // contentRare
      1.55, // placeX
      0.58, // placeY
    ],
    context: [
      1.99, // own
      1.46, // parents
      0.05, // parentElsewhere
      0.97, // before
      -0.38, // beforeElsewhere
      1.1, // after
      -0.36, // afterElsewhere
      0.64, // inside
      -0.58, // insideElsewhere
      -0.01, // index
      -1.74, // rival
      1.03, // one
    ],
  },
};
