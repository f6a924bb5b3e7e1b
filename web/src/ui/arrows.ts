/** Steps along a row of things that arrows walk: whichever way it runs. */
export const ARROWS: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowDown: 1,
  ArrowLeft: -1,
  ArrowUp: -1,
};
