// What browsers of a few years ago do not have, and a child's phone may be one.

// A signal that ends a request after so many milliseconds.
export function within(milliseconds) {
  const ending = new AbortController();
  setTimeout(() => ending.abort(), milliseconds);
  return ending.signal;
}

// Whether an element is shown.
export const shown = (element) => element.checkVisibility?.() ?? element.getClientRects().length > 0;

// The last of a list, or one so many before it.
export const last = (list, back = 0) => list[list.length - 1 - back];

// A list in which others stand in the place of some.
export const spliced = (list, at, gone, ...instead) => [...list.slice(0, at), ...instead, ...list.slice(at + gone)];
