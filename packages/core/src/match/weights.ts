/** Weights of `OWN` evidence. */
export const OWN_WEIGHTS: readonly number[] = [
  -6.75, // one
  4.43, // tag
  2.54, // idSame
  -2.55, // idDiffers
  0.88, // textSame
  2.1, // textNear
  0.49, // textNumbers
  -0.68, // textDiffers
  -2.31, // textOneSided
  -0.55, // labelSame
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
  -1.05, // exactSame
  0.31, // contentSame
  2.72, // contentRare
  1.09, // placeX
  0.77, // placeY
];

/** Weights of `CONTEXT` evidence. */
export const CONTEXT_WEIGHTS: readonly number[] = [
  3.46, // own
  2.19, // parents
  1.11, // parentElsewhere
  1.48, // before
  -0.18, // beforeElsewhere
  1.18, // after
  -0.62, // afterElsewhere
  0.67, // inside
  -0.87, // insideElsewhere
  0.41, // index
  -2.95, // rival
];
