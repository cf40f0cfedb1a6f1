/** What we use of it. */
export const Idiomorph: {
  morph(old: Element, fresh: Element | string | Node | Node[] | NodeList, config?: object): unknown;
};
