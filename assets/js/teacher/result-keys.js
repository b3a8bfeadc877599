// Keys where results are looked at: a mark from 0 to 4 for the group that has the focus, else for the first that waits.
document.addEventListener("keydown", (event) => {
  const list = document.querySelector("[data-mark-keys]");
  if (!list || event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input, textarea, select")) return;
  if (!/^[0-4]$/.test(event.key)) return;
  const at = event.target.closest(".mark-group") || list.querySelector(".mark-group:not(.is-done)");
  const buttons = at?.querySelectorAll(".mark-buttons button[name=mark]") ?? [];
  buttons[Number(event.key)]?.click();
});

// The one before and the one after, where a page has them.
document.addEventListener("keydown", (event) => {
  const rel = { ArrowLeft: "prev", ArrowRight: "next" }[event.key];
  if (!rel || event.altKey || event.ctrlKey || event.metaKey || event.target.closest("input, textarea, select, [tabindex]"))
    return;
  document.querySelector(`main a[rel=${rel}]`)?.click();
});
