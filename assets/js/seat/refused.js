// Text that the server will never take as an answer: it stays on the device with the reason, until the student has copied it,
// sent it to their teacher as it was typed, or thrown it away.
import * as storage from "../shared/storage.js";

const PLAIN = /^[^[{]/; // a text a student wrote, and not a drawing or a list
const MOST = 40; // questions

const keyOf = (token) => `roost.refused.${token}`;

// @returns the words in what a form held
export const words = (fields) =>
  Object.values(fields)
    .flat()
    .filter((text) => PLAIN.test(text))
    .join("\n");

// @returns what is kept of a seat: question to {slide, fields, reason, at}
export const all = (token) => storage.get(keyOf(token)) ?? {};

export function keep(token, question, { slide, fields }, reason) {
  const list = Object.entries({ ...all(token), [question]: { slide, fields, reason, at: Date.now() } });
  storage.set(keyOf(token), Object.fromEntries(list.slice(-MOST)));
  dispatchEvent(new CustomEvent("roost:refused"));
}

export function forget(token, question) {
  const left = all(token);
  if (!(question in left)) return;
  delete left[question];
  if (Object.keys(left).length) storage.set(keyOf(token), left);
  else storage.remove(keyOf(token));
  dispatchEvent(new CustomEvent("roost:refused"));
}
