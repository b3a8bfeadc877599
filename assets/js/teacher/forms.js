// Small things of the teachers' forms: saves carry the newest text and revision, even
// when they waited for an earlier save; asking before deleting.
import { formData, submitForm } from "../shared/polyfills.js";

const rev = () => document.querySelector("form[data-autosave] [name=rev]").value;

let mineStands = false;

document.addEventListener("htmx:before:request", (event) => {
  const form = event.target.closest?.("form[data-autosave]");
  const { request } = event.detail.ctx;
  if (form && event.target === form) request.body = new URLSearchParams(formData(form, request.submitter));
  if (event.target.matches?.("[data-fresh-rev]")) request.body.set("rev", rev());
  const clash = document.querySelector("#refusals [data-beside]");
  if (clash && event.target.closest?.("form[data-autosave], [data-fresh-rev]")) {
    request.body.set("beside", clash.dataset.beside);
    if (mineStands) request.body.set("mine", "1");
  }
});

// Where both changed the same, hers stands when she says so: the next save that goes out tells it.
document.addEventListener("click", ({ target }) => {
  if (!target.closest("[data-mine]")) return;
  mineStands = true;
  submitForm(document.querySelector("form[data-autosave]"));
});

// What was not saved is not said to be.
const notSaved = (words) => {
  const saved = document.querySelector("#saved .saved");
  if (saved) {
    saved.textContent = words;
    saved.classList.add("is-not");
  }
};

document.addEventListener("htmx:after:request", (event) => {
  const { request, response, text } = event.detail.ctx;
  // What is asked for every few seconds saves nothing, and takes no sentence away.
  if (request.method?.toUpperCase() === "GET") return;
  if (response.status < 400) {
    mineStands = false;
    document.querySelector("#refusals")?.replaceChildren();
  } else if (event.target.closest?.("form[data-autosave], [data-fresh-rev]"))
    notSaved(text?.includes("data-beside") ? "Not all is saved: see above" : "Not saved: see above");
});

document.addEventListener("htmx:error", (event) => {
  if (event.target.closest?.("form[data-autosave], [data-fresh-rev]"))
    notSaved("Not saved: connection lost. Keep typing; it is sent with the next change.");
});

// Who leaves is asked, where something isn't saved.
addEventListener("beforeunload", (event) => {
  if (document.querySelector("#saved .saved.is-not")) event.preventDefault();
});

document.addEventListener("click", (event) => {
  if (event.target.closest("[data-back]")) history.back();
});

// A second click is taken for the first: what a form adds, it adds once.
const REST = 2000;
const sent = new WeakSet();

document.addEventListener("submit", (event) => {
  const form = event.target;
  const question = form.dataset.confirm;
  if (sent.has(form) || (question && !window.confirm(question))) {
    event.preventDefault();
    return;
  }
  if (form.method !== "post" || form.hasAttribute("hx-post")) return;
  sent.add(form);
  setTimeout(() => sent.delete(form), REST);
});
