/** The package has types, but does not say where. */
declare module '@bramus/specificity' {
  /** How special a selector is: ids; classes, attributes and states; tags. */
  interface Weight {
    readonly a: number;
    readonly b: number;
    readonly c: number;
  }
  export default class Specificity {
    /** @throws Error for what is no selector */
    static calculate(selector: string): [Weight, ...Weight[]];
  }
}
