// Marks by key: 0 to 4 give a mark to the group that has the focus, else to the first that waits.
document.addEventListener("keydown", (event) => {
  const list = document.querySelector("[data-mark-keys]");
  if (!list || event.ctrlKey || event.metaKey || event.altKey || event.target.closest("input, textarea, select")) return;
  if (!/^[0-4]$/.test(event.key)) return;
  const at = event.target.closest(".mark-group") || list.querySelector(".mark-group:not(.is-done)");
  const buttons = at?.querySelectorAll(".mark-buttons button[name=mark]") ?? [];
  buttons[Number(event.key)]?.click();
});
