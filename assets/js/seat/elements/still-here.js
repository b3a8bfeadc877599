// On the page that stands in for a seat's while there is no line: what is on the device and not
// sent yet. Looks whether the line is back, and then goes on.
import * as storage from "../../shared/storage.js";

const LOOK = 4000;
const PLAIN = /^[^[{]/; // a text a student wrote, and not a drawing or a list

class StillHere extends HTMLElement {
  connectedCallback() {
    const token = location.pathname.split("/").pop();
    const keys = ["outbox", "notes"].flatMap((name) => storage.keys(`roost.${name}.${token}.`));
    const saves = keys.flatMap((key) => Object.values(storage.get(key) ?? {}));
    const texts = saves.map(({ fields }) =>
      Object.values(fields)
        .flat()
        .filter((text) => PLAIN.test(text))
        .join(" · "),
    );
    const list = this.querySelector("ul");
    for (const text of texts)
      list.append(Object.assign(document.createElement("li"), { textContent: text || "An answer without words" }));
    this.querySelector("[data-none]").hidden = texts.length > 0;
    this.querySelector("[data-some]").hidden = texts.length === 0;
    this.querySelector("button").addEventListener("click", () => location.reload());
    addEventListener("online", () => this.look());
    setInterval(() => this.look(), LOOK);
  }

  async look() {
    try {
      if ((await fetch(location.pathname, { method: "HEAD", cache: "no-store" })).ok) location.reload();
    } catch {
      /* not yet */
    }
  }
}
customElements.define("still-here", StillHere);
