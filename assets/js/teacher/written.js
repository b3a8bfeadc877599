// What is written on the slide itself. Its fields belong to the form of the settings, which stands
// elsewhere in the page, so the form has to be told of them. What was typed after a save went off is
// not put back by that save's answer. Enter goes on to the next line, and adds one after the last.
import htmx from "htmx.org/dist/htmx.esm.js";
import { last } from "../shared/polyfills.js";

const autosave = (field) => (field.form?.matches?.("[data-autosave]") ? field.form : null);
const fresh = new Set(); // fields typed into since the last save of their form was put together
let after = null; // what is to have focus once the page is brought up to date

for (const type of ["input", "change"]) {
  document.addEventListener(type, ({ target }) => {
    const form = autosave(target);
    if (!form) return;
    if (type === "input") fresh.add(target);
    if (!form.contains(target)) form.dispatchEvent(new Event(type));
  });
}

document.addEventListener("htmx:before:request", ({ target }) => {
  if (target.matches?.("form[data-autosave]")) for (const field of fresh) if (field.form === target) fresh.delete(field);
});

htmx.registerExtension("typed-since", {
  htmx_before_morph_node: (node) => !(fresh.has(node) && node.isConnected),
});

// Rows of a list, as options and items are.
const lines = (field) => [...(field.closest("fieldset")?.querySelectorAll(".write .input") ?? [])];

document.addEventListener("keydown", (event) => {
  const field = event.target;
  if (event.key !== "Enter" || event.isComposing || !autosave(field) || !field.matches("input, [data-line]")) return;
  event.preventDefault(); // what Enter would press is the first button there is
  const all = lines(field);
  const next = all[all.indexOf(field) + 1];
  if (next) next.focus();
  else if (all.length) field.closest("fieldset").querySelector('button[value="add"]:not(:disabled)')?.click();
});

// What is added is where one goes on.
document.addEventListener("click", ({ target }) => {
  const button = target.closest?.('button[value="add"]');
  const fieldset = button && autosave(button) && button.closest("fieldset");
  if (!fieldset) return;
  const before = lines(button).length;
  after = () => {
    const all = lines(button.isConnected ? button : document.querySelector("#stage fieldset button"));
    if (all.length > before) last(all).focus();
  };
});
document.addEventListener("submit", ({ target }) => {
  if (target.matches("[data-adds-slide]")) after = () => document.querySelector("#stage [name=heading]")?.focus();
});
document.addEventListener("htmx:after:swap", () =>
  requestAnimationFrame(() => {
    after?.();
    after = null;
  }),
);

// A picture dropped or pasted onto the slide goes the way of one that was chosen.
const onto = (files) => {
  const input = document.querySelector(".settings input[type=file][name='pictures[]']");
  const pictures = [...files].filter((file) => file.type.startsWith("image/"));
  if (!input || !pictures.length) return false;
  const list = new DataTransfer();
  for (const picture of pictures) list.items.add(picture);
  input.files = list.files;
  input.dispatchEvent(new Event("change", { bubbles: true }));
  return true;
};

const stage = (target) => target.closest?.("#stage .as-seat");
document.addEventListener("dragover", (event) => {
  if (!stage(event.target) || !event.dataTransfer?.types.includes("Files")) return;
  event.preventDefault();
  stage(event.target).classList.add("is-target");
});
document.addEventListener("dragleave", ({ target, relatedTarget }) => {
  if (!relatedTarget || stage(relatedTarget) !== stage(target))
    document.querySelector(".as-seat.is-target")?.classList.remove("is-target");
});
document.addEventListener(
  "drop",
  (event) => {
    const place = stage(event.target);
    if (!place) return;
    place.classList.remove("is-target");
    if (!onto(event.dataTransfer.files)) return;
    event.preventDefault();
    event.stopPropagation();
  },
  { capture: true },
);
document.addEventListener("paste", (event) => {
  if (document.querySelector(".builder") && event.clipboardData?.files.length && onto(event.clipboardData.files))
    event.preventDefault();
});
