// What browsers of a few years ago do not have, and a child's phone may be one.

// A signal that ends a request after so many milliseconds.
export function within(milliseconds) {
  const ending = new AbortController();
  setTimeout(() => ending.abort(), milliseconds);
  return ending.signal;
}

// Whether an element is shown.
export const shown = (element) => element.checkVisibility?.() ?? element.getClientRects().length > 0;
