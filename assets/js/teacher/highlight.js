// At the Desk, touching a bar (or whatever else stands for something that was given) lights those who
// gave it: their tiles, and their names in a row, each of which opens that student. What is lit stays so
// while answers come in, and goes with the slide.
const desk = document.querySelector("#desk");
let lit = null;

const gave = (tile) => (tile.dataset.gave ?? "").split(" ");

function names(those) {
  const place = desk.querySelector("#desk-lit");
  if (!place) return;
  place.hidden = !lit;
  const chosen = lit && desk.querySelector(`[data-part="${CSS.escape(lit.part)}"]`);
  const label = document.createElement("strong");
  const called = chosen?.dataset.called ?? chosen?.textContent.trim().replace(/(.{40}).+/s, "$1…");
  label.textContent = `${called ?? ""}: `;
  const buttons = those.map((tile) => {
    const button = document.createElement("button");
    button.type = "button";
    button.className = "button is-small";
    button.textContent = tile.querySelector(".perch-name").textContent;
    button.dataset.tile = tile.id;
    return button;
  });
  place.replaceChildren(label, ...(those.length ? buttons : ["nobody"]));
}

function show() {
  if (lit && lit.slide !== desk.querySelector(".desk-live")?.dataset.slide) lit = null;
  for (const part of desk.querySelectorAll("[data-part]"))
    part.setAttribute(part.matches("summary") ? "data-lit" : "aria-pressed", String(lit?.part === part.dataset.part));
  const those = [];
  for (const tile of desk.querySelectorAll(".perch")) {
    const one = Boolean(lit) && gave(tile).includes(lit.part);
    tile.classList.toggle("is-lit", one);
    if (one) those.push(tile);
  }
  desk.querySelector(".perches")?.classList.toggle("has-lit", those.length > 0);
  names(those);
}

if (desk) {
  document.addEventListener("click", ({ target }) => {
    const part = target.closest("[data-part]") ?? target.closest(".bar-row")?.querySelector("[data-part]");
    if (part && desk.contains(part)) {
      const same = lit?.part === part.dataset.part;
      lit = same ? null : { slide: desk.querySelector(".desk-live").dataset.slide, part: part.dataset.part };
      show();
    }
    const tile = target.closest("[data-tile]")?.dataset.tile;
    if (tile) document.getElementById(tile)?.querySelector("button").click();
  });
  // Parts of a chart are pressed by keys as buttons are.
  document.addEventListener("keydown", (event) => {
    if (!event.target.matches?.("g[data-part]") || ![" ", "Enter"].includes(event.key)) return;
    event.preventDefault();
    event.target.dispatchEvent(new MouseEvent("click", { bubbles: true }));
  });
  document.addEventListener("htmx:after:swap", () => lit && show());
}
