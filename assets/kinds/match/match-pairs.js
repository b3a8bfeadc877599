// Two lists to pair: an item on one side is chosen, then its partner on the other; with a
// mouse or a pen also by dragging from one to the other. On a wide screen lines join what is
// paired, on a narrow one the partner moves to its item. The hidden field holds {left: right}.
import { make } from "../../js/shared/svg-tools.js";

class MatchPairs extends HTMLElement {
  connectedCallback() {
    this.field = this.querySelector("input[name=pairs]");
    this.lines = this.querySelector(".match-lines");
    this.status = this.querySelector("[role=status]");
    this.lefts = new Map([...this.querySelectorAll("[data-left]")].map((item) => [item.dataset.left, item]));
    this.rights = new Map([...this.querySelectorAll("[data-right]")].map((item) => [item.dataset.right, item]));
    this.addEventListener("click", (event) => this.press(event.target.closest("button")));
    this.addEventListener("pointerdown", (event) => this.grab(event));
    this.addEventListener("pointermove", (event) => this.drag(event));
    this.addEventListener("pointerup", (event) => this.drop(event));
    this.addEventListener("pointercancel", () => this.drop(null));
    this.addEventListener("keydown", (event) => {
      if (event.key === "Escape") this.choose(null);
    });
    this.closest("form")?.addEventListener("restored", () => this.load());
    new MutationObserver(() => this.draw()).observe(this.closest("fieldset") ?? this, { attributes: true });
    new ResizeObserver(() => this.drawLines()).observe(this);
    this.load();
  }

  get disabled() {
    return Boolean(this.closest("fieldset:disabled"));
  }

  load() {
    try {
      this.pairs = JSON.parse(this.field.value || "{}");
    } catch {
      this.pairs = {};
    }
    this.draw();
  }

  press(button) {
    if (!button || this.disabled || this.dragged) {
      this.dragged = false;
      return;
    }
    if (button.dataset.apart) {
      delete this.pairs[button.dataset.apart];
      this.lefts.get(button.dataset.apart).focus();
      this.changed("Separated.");
    } else if (this.chosen && this.side(this.chosen) !== this.side(button)) {
      this.pair(this.chosen, button);
    } else {
      this.choose(button === this.chosen ? null : button);
    }
  }

  side(item) {
    return item.dataset.left ? "left" : "right";
  }

  words(item) {
    return (item.querySelector(".option-text").textContent || item.querySelector("img")?.alt || "").trim();
  }

  choose(item) {
    this.chosen?.setAttribute("aria-pressed", "false");
    this.chosen = item;
    item?.setAttribute("aria-pressed", "true");
    if (item) this.status.textContent = `${this.words(item)} chosen. Now choose its partner.`;
  }

  pair(one, other) {
    const [left, right] = one.dataset.left ? [one, other] : [other, one];
    this.pairs[left.dataset.left] = right.dataset.right;
    this.choose(null);
    this.changed(
      `${this.words(left)} with ${this.words(right)}. ${Object.keys(this.pairs).length} of ${this.lefts.size} paired.`,
    );
  }

  changed(words) {
    this.status.textContent = words;
    this.draw();
    this.field.value = JSON.stringify(this.pairs);
    this.field.dispatchEvent(new Event("input", { bubbles: true }));
  }

  grab(event) {
    const item = event.target.closest(".match-item");
    if (!item || this.disabled || event.pointerType === "touch" || event.button > 0) return;
    this.held = { item, x: event.clientX, y: event.clientY };
  }

  drag(event) {
    if (!this.held) return;
    if (!this.dragged && Math.hypot(event.clientX - this.held.x, event.clientY - this.held.y) < 6) return;
    this.dragged = true;
    const box = this.lines.getBoundingClientRect();
    const [x, y] = this.end(this.held.item);
    this.drawLines();
    this.lines.append(make("path", { class: "is-held", d: `M${x} ${y}L${event.clientX - box.left} ${event.clientY - box.top}` }));
  }

  drop(event) {
    const held = this.held?.item;
    this.held = null;
    if (!held || !this.dragged) return;
    const over = event && document.elementFromPoint(event.clientX, event.clientY)?.closest(".match-item");
    if (over && this.contains(over) && this.side(over) !== this.side(held)) this.pair(held, over);
    else this.drawLines();
    setTimeout(() => {
      this.dragged = false;
    }, 50); // after the click that follows
  }

  draw() {
    const used = new Set(Object.values(this.pairs));
    for (const [id, item] of this.lefts) {
      const right = this.rights.get(this.pairs[id]);
      const mate = item.querySelector(".match-mate");
      mate.replaceChildren(...(right ? [right.querySelector(".option-text").cloneNode(true)] : []));
      item.classList.toggle("is-paired", Boolean(right));
      item.parentElement.querySelector(".match-apart").hidden = !right || this.disabled;
      item.disabled = this.disabled;
    }
    for (const [id, item] of this.rights) {
      item.classList.toggle("is-paired", used.has(id));
      item.disabled = this.disabled;
    }
    this.drawLines();
  }

  // Where the line of an item ends, on the svg between the lists.
  end(item) {
    const box = this.lines.getBoundingClientRect();
    const own = item.getBoundingClientRect();
    return [item.dataset.left ? 0 : box.width, own.top + own.height / 2 - box.top];
  }

  drawLines() {
    const { width, height } = this.lines.getBoundingClientRect();
    if (!width) return;
    this.lines.setAttribute("viewBox", `0 0 ${width} ${height}`);
    this.lines.replaceChildren(
      ...Object.entries(this.pairs)
        .filter(([left, right]) => this.lefts.has(left) && this.rights.has(right))
        .map(([left, right]) => {
          const [x1, y1] = this.end(this.lefts.get(left));
          const [x2, y2] = this.end(this.rights.get(right));
          return make("path", { d: `M${x1} ${y1}C${width / 2} ${y1} ${width / 2} ${y2} ${x2} ${y2}` });
        }),
    );
  }
}
customElements.define("match-pairs", MatchPairs);
