// The keys of the Desk: which letter presses which button, and whether any does. The teacher's own,
// kept on the device. Arrow keys always work; letters only where focus is in nothing that takes keys.
import * as storage from "../shared/storage.js";
import { shown } from "../shared/polyfills.js";

const KEY = "roost.desk.keys";
const CONTROLS = "a[href], button, input, select, textarea, summary, [tabindex], [contenteditable], dialog[open]";
const settings = () => ({ on: true, letters: {}, ...storage.get(KEY) });

// The letter of a button now.
export const letter = (button) => settings().letters[button.dataset.key] ?? button.dataset.key;

// The button that a key press is meant for.
export function pressed(event) {
  if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || event.target.closest(CONTROLS)) return null;
  const single = event.key.length === 1;
  const { on, letters } = settings();
  if (single && !on) return null;
  const typed = single ? event.key.toLowerCase() : event.key;
  const buttons = [...document.querySelectorAll("[data-key]:not(:disabled)")];
  return buttons.find(({ dataset: { key } }) => (letters[key] ?? key) === typed) ?? null;
}

// The list of keys, where they are changed.
function draw(form) {
  const { on, letters } = settings();
  form.elements.on.checked = on;
  for (const field of form.querySelectorAll("[data-letter]")) {
    field.value = (letters[field.dataset.letter] ?? field.dataset.letter).toUpperCase();
    field.disabled = !on;
  }
  form.querySelector("[role=alert]").hidden = true;
}

function change(form, field) {
  const now = settings();
  if (field.name === "on") {
    storage.set(KEY, { ...now, on: field.checked });
    draw(form);
    return;
  }
  const typed = field.value.trim().toLowerCase();
  const taken = [...form.querySelectorAll("[data-letter]")].some(
    (other) => other !== field && other.value.toLowerCase() === typed,
  );
  if (typed.length === 1 && !taken) {
    storage.set(KEY, { ...now, letters: { ...now.letters, [field.dataset.letter]: typed } });
    draw(form);
    return;
  }
  const alert = form.querySelector("[role=alert]");
  alert.textContent = taken
    ? `${typed.toUpperCase()} is another command's. Choose one that is free.`
    : "One letter, digit or sign.";
  alert.hidden = false;
}

const form = document.querySelector("#desk-keys-form");
if (form) {
  draw(form);
  form.addEventListener("change", ({ target }) => change(form, target));
  form.addEventListener("reset", () => {
    storage.remove(KEY);
    setTimeout(() => draw(form));
  });
}

// Inside a toolbar the arrows go from button to button.
document.addEventListener("keydown", (event) => {
  const bar = event.target.closest?.("[role=toolbar]");
  const step = { ArrowLeft: -1, ArrowRight: 1, Home: -Infinity, End: Infinity }[event.key];
  if (!bar || !step || event.target.matches("input, select, textarea")) return;
  const buttons = [...bar.querySelectorAll("button:not(:disabled), a[href]")].filter((button) => shown(button));
  const to = Math.max(0, Math.min(buttons.length - 1, buttons.indexOf(event.target) + step));
  buttons[to]?.focus();
  event.preventDefault();
});
