// The device remembers its last seats, and on the front door offers them back: to those who can say
// whose they are, since other children use the device, too.
import * as storage from "../../shared/storage.js";

const KEY = "roost.seats";
const KEEP = 3;
const HOURS = 8;

// For so long, and that of an assignment until it closes.
const remembered = () =>
  (storage.get(KEY) ?? []).filter((seat) => Date.now() < Math.max(seat.at + HOURS * 3600e3, (seat.until ?? 0) * 1000));

const seat = document.querySelector("[data-token]");
if (seat) {
  const { token, name, title, until } = seat.dataset;
  const others = remembered().filter((other) => other.token !== token);
  storage.set(KEY, [{ token, name, title, until: Number(until ?? 0), at: Date.now() }, ...others].slice(0, KEEP));
  document.querySelector(".no-storage").hidden = storage.works;
}

class SeatMemory extends HTMLElement {
  connectedCallback() {
    const seats = remembered();
    if (!seats.length) return;
    this.hidden = false;
    this.innerHTML = "<h2>You were here</h2><ul></ul>";
    this.querySelector("ul").append(...seats.map((each, place) => this.item(each, place)));
  }

  item({ token, name, title }, place) {
    const item = document.createElement("li");
    item.innerHTML = `<form class="stack"><h3></h3><div class="field">
      <label class="label" for="back-${place}">The name you joined with</label>
      <input class="input" id="back-${place}" maxlength="40" autocomplete="off" required aria-describedby="back-${place}-no">
      <p class="help is-wrong" id="back-${place}-no" role="alert" hidden>✗ This seat has another name. Join anew above.</p></div>
      <button class="button is-wide">Back to my seat</button></form>`;
    item.querySelector("h3").textContent = title;
    item.querySelector("form").addEventListener("submit", (event) => {
      event.preventDefault();
      const same = item.querySelector("input").value.trim().toLowerCase() === name.toLowerCase();
      item.querySelector(".help").hidden = same;
      if (same) location.assign(`/seat/${encodeURIComponent(token)}`);
    });
    return item;
  }
}
customElements.define("seat-memory", SeatMemory);
