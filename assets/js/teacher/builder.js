// The builder: slides are put into order by dragging (the arrows above the list do the same
// by keyboard), several can be chosen at once, and what colleagues do shows up.
import { closeDialog, openDialog } from "./dialogs.js";
import { fetchLibrary } from "../shared/later.js";
import { last, submitForm } from "../shared/polyfills.js";

const NEWS = 5000;
const builder = () => document.querySelector(".builder[data-lesson]");
const ticked = () => [...document.querySelectorAll(".thumb-tick:checked")].map((tick) => tick.value);
const shown = () => document.querySelector("#chosen [name=slide]")?.value ?? "";

// Dragging one of the chosen slides takes all of them along. `to` counts without them.
function dropped({ item, oldDraggableIndex, newDraggableIndex, to: list }) {
  const head = item.previousElementSibling?.dataset.section ?? ""; // dropped right under a section's name
  if (oldDraggableIndex === newDraggableIndex && !head) return;
  const chosen = ticked();
  const moved = chosen.includes(item.dataset.slide) ? chosen : [item.dataset.slide];
  const order = [...list.querySelectorAll("[data-slide]")].map((row) => row.dataset.slide);
  const form = document.querySelector("#order");
  form.elements.moved.value = moved.join(",");
  form.elements.to.value = order.slice(0, order.indexOf(item.dataset.slide)).filter((id) => !moved.includes(id)).length;
  form.elements.section.value = head;
  submitForm(form);
}

async function makeSortable() {
  if (!document.querySelector("[data-sortable]")) return;
  const dragging = await fetchLibrary("dragging").catch(() => null);
  const list = document.querySelector("[data-sortable]");
  if (!dragging || !list || dragging.get(list)) return;
  dragging.create(list, {
    animation: matchMedia("(prefers-reduced-motion: reduce)").matches ? 0 : 120,
    delay: 250, // to swipe over the list is to scroll it
    delayOnTouchOnly: true,
    touchStartThreshold: 8,
    draggable: "[data-slide]",
    filter: "input",
    preventOnFilter: false,
    onEnd: dropped,
  });
}

function sayChosen() {
  const words = document.querySelector("#chosen-words");
  if (!words) return;
  const count = ticked().length;
  words.textContent = count === 0 ? "This slide" : count === 1 ? "The chosen slide" : `${count} chosen slides`;
}

// Which details are open is the teacher's, and survives every swap.
const opened = new Set();
document.addEventListener(
  "toggle",
  (event) => {
    const { target } = event;
    if (!target.matches?.("details[data-keep]")) return;
    if (target.open) opened.add(target.id);
    else opened.delete(target.id);
    const list = target.open && target.querySelector("select[data-fill]");
    if (list && list.options.length < 2)
      fetch(list.dataset.fill)
        .then((reply) => (reply.ok ? reply.text() : ""))
        .then((text) => list.insertAdjacentHTML("beforeend", text));
  },
  true,
);
// The browser tells of it a moment later, and a swap may come in between.
document.addEventListener("click", ({ target, defaultPrevented }) => {
  const details = target.closest?.("summary")?.parentElement;
  if (defaultPrevented || !details?.matches("details[data-keep]")) return;
  if (details.open) opened.delete(details.id);
  else opened.add(details.id);
});
const keepOpen = () => {
  for (const id of opened) document.getElementById(id)?.setAttribute("open", "");
};

// The list shows the slide that is being edited, also in a long lesson.
let here = null;
function follow() {
  const thumb = document.querySelector(".thumb[aria-current]");
  if (!thumb || thumb.href === here) return;
  here = thumb.href;
  const list = thumb.closest(".slides");
  if (list.scrollHeight > list.clientHeight) thumb.closest("li").scrollIntoView({ block: "nearest" });
}

for (const event of ["htmx:after:swap", "DOMContentLoaded"]) {
  document.addEventListener(event, () => {
    makeSortable();
    sayChosen();
    keepOpen();
    follow();
  });
}
document.addEventListener("change", (event) => {
  if (event.target.matches(".thumb-tick")) sayChosen();
});

document.addEventListener("click", (event) => {
  const mark = event.target.closest("[data-insert]");
  if (mark) insert(document.getElementById(mark.dataset.into), mark.dataset.insert);
  if (event.target.closest("[data-reload]")) {
    document.querySelector("#saved .is-not")?.classList.remove("is-not");
    location.reload();
  }
});

// A mark goes in where the cursor is; outside a formula it brings the dollar signs along.
function insert(field, source) {
  const { selectionStart: start, selectionEnd: end, value } = field;
  const inside = (value.slice(0, start).match(/\$/g) ?? []).length % 2 === 1;
  const space = inside && /^\\[a-z]+$/i.test(source) ? " " : "";
  field.setRangeText(inside ? source + space : `$${source}$`, start, end, "end");
  if (!inside) field.setSelectionRange(field.selectionEnd - 1, field.selectionEnd - 1);
  field.focus();
  field.dispatchEvent(new Event("input", { bubbles: true }));
}

// Files dropped on the list of slides: a PDF comes in page by page, pictures each as a slide.
function drop(event) {
  const files = [...event.dataTransfer.files];
  if (!files.length) return;
  event.preventDefault();
  const pictures = files.every((file) => file.type.startsWith("image/"));
  const form = document.querySelector(pictures ? "#drop-pictures" : "#drop-file");
  const input = form.querySelector("input[type=file]");
  const list = new DataTransfer();
  for (const file of pictures ? files : files.slice(0, 1)) list.items.add(file);
  input.files = list.files;
  form.elements.slide.value = shown();
  if (pictures)
    input.dispatchEvent(new Event("change", { bubbles: true })); // uploads.js goes on
  else submitForm(form);
}
for (const event of ["dragover", "drop"]) {
  document.addEventListener(event, (each) => {
    const place = each.target.closest?.(".builder");
    if (!place || !each.dataTransfer?.types.includes("Files")) return;
    if (event === "drop") {
      place.classList.remove("is-target");
      drop(each);
    } else {
      each.preventDefault();
      place.classList.add("is-target");
    }
  });
}
document.addEventListener("dragleave", (event) => {
  if (!event.relatedTarget) builder()?.classList.remove("is-target");
});

// The picture library fills the slide, or the option whose button opened it.
document.addEventListener("click", (event) => {
  const opener = event.target.closest("[data-library], [data-library-option]");
  if (opener) {
    const form = document.querySelector("#library-form");
    const base = opener.dataset.library ?? `${opener.form.getAttribute("hx-post")}/drawing`;
    form.dataset.action = base;
    form.elements.option.value = opener.dataset.libraryOption ?? "";
    openDialog(document.querySelector("#library"));
  }
  const drawing = event.target.closest("#library-form button[name=drawing]");
  if (!drawing) return;
  event.preventDefault();
  const form = drawing.form;
  window.htmx.ajax("POST", form.dataset.action, {
    source: form,
    swap: "none",
    values: { drawing: drawing.value, option: form.elements.option.value },
  });
  closeDialog(document.querySelector("#library"));
});

// Standards that fit what is being typed, to choose from.
let seeking = null;
document.addEventListener("input", (event) => {
  const field = event.target.closest?.("[data-suggest]");
  if (!field) return;
  clearTimeout(seeking);
  seeking = setTimeout(() => suggest(field), 200);
});

async function suggest(field) {
  const list = document.getElementById(field.id.replace(/standards$/, "suggestions"));
  const typed = last(field.value.split(",")).trim();
  const reply = typed ? await fetch(`${field.dataset.suggest}?${new URLSearchParams({ q: typed })}`).catch(() => null) : null;
  list.innerHTML = reply?.ok ? await reply.text() : "";
  list.hidden = !list.children.length;
}

document.addEventListener("click", (event) => {
  const choice = event.target.closest("[data-standard]");
  if (!choice) return;
  const list = choice.closest(".suggestions");
  const field = document.getElementById(list.id.replace(/suggestions$/, "standards"));
  field.value = [
    ...field.value
      .split(",")
      .slice(0, -1)
      .map((code) => code.trim()),
    choice.dataset.standard,
  ].join(", ");
  list.hidden = true;
  field.focus();
  field.dispatchEvent(new Event("change", { bubbles: true }));
});

function askNews() {
  const lesson = builder()?.dataset.lesson;
  if (!lesson || document.hidden) return;
  const query = new URLSearchParams({
    revision: document.querySelector("#chosen").dataset.revision,
    slide: shown(),
    rev: document.querySelector("form[data-autosave] [name=rev]")?.value ?? "",
  });
  for (const id of ticked()) query.append("ids[]", id);
  window.htmx
    .ajax("GET", `/lessons/${lesson}/news?${query}`, { source: "#news", target: "#news", swap: "innerMorph" })
    .catch(() => {});
}
if (builder()) setInterval(askNews, NEWS);
