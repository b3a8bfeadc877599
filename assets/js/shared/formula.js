// Whether a formula may be set on this device: what is nested too deep, or too large, would stop its browser.
// The same as lib/roost/core/formula.rb.
const MOST_NESTED = 20;
const MOST_NODES = 300;
const MOST_CELLS = 60;
const LONGEST = 2000; // characters
const TOKEN = /\\[a-zA-Z]+|\\[^]|[^ \t\r\n\f\v]/gu;
const OPENS = new Set(["{", "\\left", "\\begin"]);
const CLOSES = new Set(["}", "\\right", "\\end"]);
const CELLS = new Set(["&", "\\\\", "\\cr", "\\newline"]);
const DEFINITIONS = /^\\(?:[gex]?def|let|futurelet|(?:new|renew|provide)command|global)$/;

export const settable = (source) => {
  if ([...source].length > LONGEST) return false;
  let depth = 0;
  let deepest = 0;
  let nodes = 0;
  let cells = 0;
  for (const [token] of source.matchAll(TOKEN)) {
    nodes += 1;
    if (nodes > MOST_NODES || DEFINITIONS.test(token)) return false;
    if (OPENS.has(token)) depth += 1;
    if (CLOSES.has(token)) depth -= 1;
    deepest = Math.max(deepest, depth);
    if (CELLS.has(token)) cells += 1;
  }
  return deepest <= MOST_NESTED && cells < MOST_CELLS;
};
