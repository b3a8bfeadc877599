// Items to put into order: by dragging, with the arrow buttons, or with the arrow keys while
// an item is in focus. The hidden field holds the ids.
import { fetchLibrary } from "../../js/shared/later.js";

const KEYS = { ArrowUp: -1, ArrowLeft: -1, ArrowDown: 1, ArrowRight: 1 };

class OrderList extends HTMLElement {
  connectedCallback() {
    this.list = this.querySelector("ol");
    this.field = this.querySelector("input[type=hidden]");
    this.status = this.querySelector("[role=status]");
    this.drag();
    this.addEventListener("click", (event) => {
      const button = event.target.closest("[data-by]");
      if (button) this.move(button.closest("li"), Number(button.dataset.by), button);
    });
    this.addEventListener("keydown", (event) => {
      if (!KEYS[event.key] || !event.target.matches("li")) return;
      event.preventDefault();
      this.move(event.target, KEYS[event.key], event.target);
    });
    this.closest("form")?.addEventListener("restored", () => this.restore());
    new MutationObserver(() => this.draw()).observe(this.closest("fieldset") ?? this, { attributes: true });
    this.draw();
  }

  // Until that has come, and where it can't, there are the arrows.
  async drag() {
    const dragging = await fetchLibrary("dragging").catch(() => null);
    if (!dragging || !this.isConnected) return;
    this.sortable = dragging.create(this.list, {
      animation: matchMedia("(prefers-reduced-motion: reduce)").matches ? 0 : 120,
      delay: 120,
      delayOnTouchOnly: true,
      filter: "button",
      preventOnFilter: false,
      onStart: () => this.draw(),
      onEnd: ({ item }) => this.changed(item),
    });
    this.draw();
  }

  get disabled() {
    return Boolean(this.closest("fieldset:disabled"));
  }

  get items() {
    return [...this.list.children];
  }

  move(item, by, focus) {
    const other = by < 0 ? item.previousElementSibling : item.nextElementSibling;
    if (!other || this.disabled) return;
    if (by < 0) other.before(item);
    else other.after(item);
    focus.focus();
    this.changed(item);
  }

  changed(item) {
    this.field.value = this.items.map((each) => each.dataset.item).join(",");
    this.field.dispatchEvent(new Event("input", { bubbles: true }));
    const text = item.querySelector(".order-text").textContent;
    this.status.textContent = `${text}: place ${this.items.indexOf(item) + 1} of ${this.items.length}`;
    this.draw();
  }

  restore() {
    const order = this.field.value.split(",");
    this.list.append(...this.items.sort((one, other) => order.indexOf(one.dataset.item) - order.indexOf(other.dataset.item)));
    this.draw();
  }

  draw() {
    this.sortable?.option("disabled", this.disabled);
    this.items.forEach((item, place) => {
      item.querySelector(".order-place").textContent = place + 1;
      item.tabIndex = this.disabled ? -1 : 0;
      const [earlier, later] = item.querySelectorAll("button");
      earlier.disabled = place === 0;
      later.disabled = place === this.items.length - 1;
    });
  }
}
customElements.define("order-list", OrderList);
