// Cards lying face down, two a pair: two are turned over; those that belong together stay
// face up, others are turned back. Tries are counted. What belongs together only the server
// knows: it is asked for each try. The hidden fields hold {left: right} of the pairs found, the
// cards that are up, and the tries.
import { within } from "../../js/shared/polyfills.js";

const LOOK = 1100; // milliseconds before two that don't belong together are turned back

class PairsGame extends HTMLElement {
  connectedCallback() {
    this.cards = [...this.querySelectorAll("[data-card]")];
    this.pairsField = this.querySelector("input[name=pairs]");
    this.foundField = this.querySelector("input[name=found]");
    this.foundField.value = this.cards
      .filter((card) => "found" in card.dataset)
      .map((card) => card.dataset.card)
      .join(",");
    this.tries = this.querySelector("input[name=tries]");
    this.status = this.querySelector("[role=status]");
    this.turned = [];
    this.addEventListener("click", (event) => this.turn(event.target.closest("[data-card]")));
    this.closest("form")?.addEventListener("restored", () => this.draw());
    new MutationObserver(() => this.draw()).observe(this.closest("fieldset") ?? this, { attributes: true });
    this.draw();
  }

  get disabled() {
    return Boolean(this.closest("fieldset:disabled"));
  }

  get pairs() {
    try {
      return JSON.parse(this.pairsField.value || "{}");
    } catch {
      return {};
    }
  }

  get found() {
    return this.foundField.value.split(",").filter(Boolean);
  }

  up(card) {
    return this.turned.includes(card) || this.found.includes(card.dataset.card);
  }

  turn(card) {
    if (!card || this.disabled || this.asking || this.up(card)) return;
    if (this.turned.length === 2) this.back();
    this.turned.push(card);
    if (this.turned.length === 2) this.compare();
    this.draw();
  }

  async compare() {
    const cards = this.turned.map((card) => card.dataset.card);
    this.asking = true;
    const pair = await this.ask(cards);
    this.asking = false;
    if (pair === undefined) {
      this.back();
      this.draw();
      this.status.textContent = "Connection lost. Turn the cards over again when it is back.";
      return;
    }
    this.tries.value = Number(this.tries.value) + 1;
    this.draw();
    if (pair) {
      this.pairsField.value = JSON.stringify({ ...this.pairs, [pair[0]]: pair[1] });
      this.foundField.value = [...this.found, ...cards].join(",");
      this.turned = [];
      this.draw();
    } else {
      clearTimeout(this.timer);
      this.timer = setTimeout(() => {
        this.back();
        this.draw();
      }, LOOK);
    }
    this.tries.dispatchEvent(new Event("input", { bubbles: true }));
  }

  // @returns the pair these cards make, null when they make none, undefined without an answer
  async ask(cards) {
    const query = new URLSearchParams({ slide: this.closest("[data-slide]").dataset.slide, cards: cards.join(",") });
    try {
      const reply = await fetch(`${this.closest("[data-kinds]").dataset.kinds}/match/turned?${query}`, { signal: within(5000) });
      return reply.ok ? (await reply.json()).pair : undefined;
    } catch {
      return undefined;
    }
  }

  back() {
    clearTimeout(this.timer);
    this.turned = [];
  }

  draw() {
    for (const card of this.cards) {
      const up = this.up(card);
      card.classList.toggle("is-up", up);
      card.classList.toggle("is-found", this.found.includes(card.dataset.card));
      if (up) card.removeAttribute("aria-label");
      else card.setAttribute("aria-label", `Card ${card.dataset.place}, face down`);
    }
    const found = this.found.length / 2;
    const tries = Number(this.tries.value);
    this.status.textContent = `${found} of ${this.cards.length / 2} pairs · ${tries} ${tries === 1 ? "try" : "tries"}`;
  }
}
customElements.define("pairs-game", PairsGame);
