// Dialogs over the page, also in browsers that have none: there they open, close and take the keys by what stands here.
const known = Boolean(window.HTMLDialogElement?.prototype.showModal); // eslint-disable-line compat/compat -- asked for here

// @param {HTMLElement} dialog
export function openDialog(dialog) {
  if (known) {
    dialog.showModal();
    return;
  }
  dialog.setAttribute("open", "");
  dialog.querySelector("input:not([type=hidden]), select, textarea, button")?.focus();
}

// @param {HTMLElement} dialog
export function closeDialog(dialog) {
  if (known) dialog.close();
  else dialog.removeAttribute("open");
}

if (!known) {
  document.addEventListener("submit", (event) => {
    if (event.target.getAttribute("method") !== "dialog") return;
    event.preventDefault();
    closeDialog(event.target.closest("dialog"));
  });
  document.addEventListener("keydown", ({ key }) => {
    if (key === "Escape") for (const dialog of document.querySelectorAll("dialog[open]")) closeDialog(dialog);
  });
}
