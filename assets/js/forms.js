// Small things of the teachers' forms: saves carry the newest text and revision, even
// when they waited for an earlier save; asking before deleting.
const rev = () => document.querySelector("form[data-autosave] [name=rev]").value;

document.addEventListener("htmx:before:request", (event) => {
  const form = event.target.closest?.("form[data-autosave]");
  const { request } = event.detail.ctx;
  if (form && event.target === form) request.body = new URLSearchParams(new FormData(form, request.submitter ?? null));
  if (event.target.matches?.("[data-fresh-rev]")) request.body.set("rev", rev());
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
  const { request, response } = event.detail.ctx;
  // What is asked for every few seconds saves nothing, and takes no sentence away.
  if (request.method?.toUpperCase() === "GET") return;
  if (response.status < 400) document.querySelector("#refusals")?.replaceChildren();
  else if (event.target.closest?.("form[data-autosave], [data-fresh-rev]")) notSaved("Not saved: see above");
});

document.addEventListener("htmx:error", (event) => {
  if (event.target.closest?.("form[data-autosave], [data-fresh-rev]"))
    notSaved("Not saved: the line is lost. Type on; it is sent with the next change.");
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
