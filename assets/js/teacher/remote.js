// The Desk's views and drawer on a phone, and the run sheet, which follows the slide. What is chosen is the
// teacher's, and survives every swap, since it stands on the part of the page that isn't swapped.
const desk = document.querySelector("#desk");
let slide = null;

function show() {
  const view = desk.dataset.view ?? "answers";
  for (const button of desk.querySelectorAll("[data-view]"))
    button.setAttribute("aria-pressed", String(button.dataset.view === view));
  desk.querySelector(".desk-more")?.setAttribute("aria-expanded", String("drawer" in desk.dataset));
}

// Only the sheet is moved, and only when the slide is another.
function follow() {
  const now = desk.querySelector(".desk-live")?.dataset.slide;
  if (now === slide) return;
  slide = now;
  const row = desk.querySelector(".sheet-row[aria-current]");
  const sheet = row?.closest(".desk-sheet");
  if (sheet) sheet.scrollTop += row.getBoundingClientRect().top - sheet.getBoundingClientRect().top - sheet.clientHeight / 3;
}

if (desk) {
  document.addEventListener("click", ({ target }) => {
    const view = target.closest?.("#desk button[data-view]")?.dataset.view;
    if (view) {
      desk.dataset.view = view;
      slide = null;
      follow();
    }
    if (target.closest?.(".desk-more")) desk.toggleAttribute("data-drawer");
    else if (target.closest?.(".desk-bar button")) desk.removeAttribute("data-drawer");
    show();
  });
  const swapped = () => {
    show();
    follow();
  };
  document.addEventListener("htmx:after:swap", swapped);
  swapped();
}
