// The device remembers its last seats, and on the front door offers them back.
const KEY = "roost.seats";
const KEEP = 3;
const HOURS = 8;

const remembered = () => {
  try {
    return (JSON.parse(localStorage.getItem(KEY)) ?? []).filter((seat) => Date.now() - seat.at < HOURS * 3600e3);
  } catch { return []; }
};

const seat = document.querySelector("[data-token]");
if (seat) {
  const { token, name, title } = seat.dataset;
  const others = remembered().filter((other) => other.token !== token);
  try {
    sessionStorage.setItem("roost.seat", token);
    localStorage.setItem(KEY, JSON.stringify([{ token, name, title, at: Date.now() }, ...others].slice(0, KEEP)));
  } catch { /* where storage is switched off, the address is all there is */ }
}

class SeatMemory extends HTMLElement {
  connectedCallback() {
    const seats = remembered();
    if (!seats.length) return;
    this.hidden = false;
    this.innerHTML = "<h2>You were here</h2><ul></ul>";
    for (const { token, name, title } of seats) {
      const link = Object.assign(document.createElement("a"), { className: "button is-wide", href: `/seat/${encodeURIComponent(token)}` });
      link.textContent = `Back to ${title} as ${name}`;
      const item = document.createElement("li");
      item.append(link);
      this.querySelector("ul").append(item);
    }
  }
}
customElements.define("seat-memory", SeatMemory);
