// Cards lying face down, two a pair: two are turned over; those that belong together stay
// face up, others are turned back. Tries are counted. The hidden fields hold {left: right} of
// the pairs found, and the tries.
const LOOK = 1100; // milliseconds before two that don't belong together are turned back

class PairsGame extends HTMLElement {
  connectedCallback() {
    this.cards = [...this.querySelectorAll("[data-row]")];
    this.found = this.querySelector("input[name=pairs]");
    this.tries = this.querySelector("input[name=tries]");
    this.status = this.querySelector("[role=status]");
    this.turned = [];
    this.addEventListener("click", (event) => this.turn(event.target.closest("[data-row]")));
    this.closest("form")?.addEventListener("restored", () => this.draw());
    new MutationObserver(() => this.draw()).observe(this.closest("fieldset") ?? this, { attributes: true });
    this.draw();
  }

  get disabled() { return Boolean(this.closest("fieldset:disabled")); }

  get pairs() { try { return JSON.parse(this.found.value || "{}"); } catch { return {}; } }

  up(card) { return this.turned.includes(card) || card.dataset.row in this.pairs; }

  turn(card) {
    if (!card || this.disabled || this.up(card)) return;
    if (this.turned.length === 2) this.back();
    this.turned.push(card);
    if (this.turned.length === 2) this.compare();
    this.draw();
  }

  compare() {
    const [one, other] = this.turned;
    this.tries.value = Number(this.tries.value) + 1;
    if (one.dataset.row === other.dataset.row) {
      this.found.value = JSON.stringify({ ...this.pairs, [one.dataset.row]: one.dataset.key });
      this.turned = [];
    } else {
      clearTimeout(this.timer);
      this.timer = setTimeout(() => { this.back(); this.draw(); }, LOOK);
    }
    this.tries.dispatchEvent(new Event("input", { bubbles: true }));
  }

  back() {
    clearTimeout(this.timer);
    this.turned = [];
  }

  draw() {
    for (const card of this.cards) {
      const up = this.up(card);
      card.classList.toggle("is-up", up);
      card.classList.toggle("is-found", card.dataset.row in this.pairs);
      if (up) card.removeAttribute("aria-label"); else card.setAttribute("aria-label", `Card ${card.dataset.place}, face down`);
    }
    const found = Object.keys(this.pairs).length;
    const tries = Number(this.tries.value);
    this.status.textContent = `${found} of ${this.cards.length / 2} pairs · ${tries} ${tries === 1 ? "try" : "tries"}`;
  }
}
customElements.define("pairs-game", PairsGame);
