// A picture to place spots on: a tap places one, dragging moves it, and by keyboard a button
// adds one and the arrow keys move it. Zooming with two fingers is the browser's own and
// places nothing: only a click does. The hidden field holds [[x, y, label], …] in fractions.
import { ARROWS, clamp, holdPage, make, place } from "../../js/shared/svg-tools.js";
import { last } from "../../js/shared/polyfills.js";

const STEP = 0.02;
const FINE = 0.004;

class SpotPicture extends HTMLElement {
  connectedCallback() {
    this.svg = this.querySelector("svg");
    this.layer = this.querySelector(".spot-marks");
    this.field = this.querySelector("input[name=spots]");
    this.list = this.querySelector(".spot-list");
    this.status = this.querySelector("[role=status]");
    this.load();
    this.svg.addEventListener("click", (event) => this.tap(event));
    this.addEventListener("click", (event) => this.press(event.target.closest("button")));
    this.addEventListener("keydown", (event) => this.key(event));
    this.list.addEventListener("input", (event) => this.name(event.target));
    holdPage(this.svg, (target) => target.closest(".spot") && !this.disabled);
    this.svg.addEventListener("pointerdown", (event) => this.grab(event));
    this.svg.addEventListener("pointermove", (event) => this.drag(event));
    this.svg.addEventListener("pointerup", (event) => {
      this.drag(event);
      this.drop();
    });
    this.svg.addEventListener("pointercancel", () => this.drop());
    this.closest("form")?.addEventListener("restored", () => this.load());
    new MutationObserver(() => this.draw()).observe(this.closest("fieldset") ?? this, { attributes: true });
  }

  get disabled() {
    return Boolean(this.closest("fieldset:disabled"));
  }

  get most() {
    return Number(this.dataset.most);
  }

  get labelled() {
    return "labels" in this.dataset;
  }

  load() {
    try {
      this.spots = JSON.parse(this.field.value || "[]");
    } catch {
      this.spots = [];
    }
    this.draw();
  }

  tap(event) {
    if (this.disabled || this.dragged || event.target.closest(".spot")) {
      this.dragged = false;
      return;
    }
    this.add(...place(this.svg, event));
  }

  // One spot too many replaces the only one, and otherwise waits until one is taken away.
  add(x, y) {
    if (this.most === 1 && this.spots.length) this.spots = [[x, y, this.spots[0][2]]];
    else if (this.spots.length < this.most) this.spots.push([x, y, ""]);
    else {
      this.say(`All ${this.most} spots are placed. Move one, or remove one.`);
      return;
    }
    this.changed();
    this.say(`Spot ${this.spots.length} placed: ${this.where(last(this.spots))}`);
    if (this.labelled) this.list.querySelector("li:last-child input")?.focus();
  }

  press(button) {
    if (!button || this.disabled) return;
    if (button.dataset.do === "add") {
      this.add(0.5, 0.5);
      this.layer.lastElementChild?.focus();
    } else if (button.dataset.remove) {
      this.remove(Number(button.dataset.remove));
    }
  }

  remove(number) {
    this.spots.splice(number, 1);
    this.changed();
    this.say(`Taken away. ${this.spots.length} placed.`);
    this.querySelector("[data-do=add]").focus();
  }

  key(event) {
    const spot = event.target.closest(".spot");
    if (!spot || this.disabled) return;
    const number = Number(spot.dataset.number);
    if (ARROWS[event.key]) {
      const [right, down] = ARROWS[event.key];
      const step = event.shiftKey ? FINE : STEP;
      const [x, y, label] = this.spots[number];
      this.spots[number] = [clamp(x + right * step), clamp(y + down * step), label];
      this.changed();
      this.layer.children[number].focus();
      this.say(`Spot ${number + 1}: ${this.where(this.spots[number])}`);
    } else if (event.key === "Delete" || event.key === "Backspace") {
      this.remove(number);
    } else {
      return;
    }
    event.preventDefault();
  }

  grab(event) {
    const spot = event.target.closest(".spot");
    if (!spot || this.disabled || event.button > 0) return;
    event.preventDefault();
    this.held = { number: Number(spot.dataset.number), from: [event.clientX, event.clientY] };
    this.svg.setPointerCapture(event.pointerId);
  }

  drag(event) {
    if (!this.held) return;
    const [x, y] = this.held.from;
    if (!this.dragged && Math.hypot(event.clientX - x, event.clientY - y) < 4) return;
    this.dragged = true;
    const { number } = this.held;
    this.spots[number] = [...place(this.svg, event), this.spots[number][2]];
    this.draw();
  }

  drop() {
    if (this.held && this.dragged) {
      this.changed();
      setTimeout(() => {
        this.dragged = false;
      }, 50); // after the click that follows
    }
    this.held = null;
  }

  name(input) {
    if (!input.dataset.name) return;
    this.spots[Number(input.dataset.name)][2] = input.value;
    this.store();
    this.drawMarks();
  }

  where([x, y]) {
    return `${Math.round(x * 100)} % across, ${Math.round(y * 100)} % down`;
  }

  say(words) {
    this.status.textContent = words;
  }

  changed() {
    this.draw();
    this.store();
  }

  store() {
    this.field.value = JSON.stringify(this.spots);
    this.field.dispatchEvent(new Event("input", { bubbles: true }));
  }

  draw() {
    this.drawMarks();
    this.drawList();
    const left = this.most - this.spots.length;
    this.querySelector(".spot-left").textContent = this.most === 1 ? "" : left === 0 ? "all placed" : `${left} left`;
    this.querySelector("[data-do=add]").disabled = left <= 0 && this.most > 1;
  }

  drawMarks() {
    const box = this.svg.viewBox.baseVal;
    // On a small screen marks are as large as a finger needs them.
    const scale = Math.max(1, (box.width / (this.svg.clientWidth || box.width)) * 0.7).toFixed(2);
    this.layer.replaceChildren(
      ...this.spots.map((spot, number) => {
        const [x, y, label] = spot;
        const group = make("g", {
          class: "spot",
          transform: `translate(${x * box.width} ${y * box.height}) scale(${scale})`,
          "data-number": number,
          role: "button",
          tabindex: this.disabled ? -1 : 0,
          "aria-label": `Spot ${number + 1}${label ? `, ${label}` : ""}: ${this.where(spot)}`,
        });
        group.append(
          make("circle", { class: "spot-reach", r: 44 }),
          ...[...this.querySelector("defs .spot-mark").children].map((part) => part.cloneNode()),
        );
        if (label || this.most > 1) {
          const text = make("text", { class: "spot-label", y: -26 });
          text.textContent = label || number + 1;
          group.append(text);
        }
        return group;
      }),
    );
  }

  drawList() {
    const focused = this.list.contains(document.activeElement) ? document.activeElement.dataset.name : null;
    this.list.replaceChildren(
      ...this.spots.map((spot, number) => {
        const row = document.createElement("li");
        if (this.labelled) {
          const input = Object.assign(document.createElement("input"), {
            className: "input",
            maxLength: 24,
            value: spot[2],
            placeholder: `What is spot ${number + 1}?`,
          });
          input.setAttribute("aria-label", `Name of spot ${number + 1}`);
          input.dataset.name = number;
          input.dataset.ignore = "";
          row.append(input);
        } else {
          row.append(`Spot ${number + 1}`);
        }
        const away = Object.assign(document.createElement("button"), {
          type: "button",
          className: "button is-small is-quiet",
          textContent: "✕",
        });
        away.setAttribute("aria-label", `Remove spot ${number + 1}`);
        away.dataset.remove = number;
        row.append(away);
        return row;
      }),
    );
    if (focused) this.list.querySelector(`[data-name="${focused}"]`)?.focus();
  }
}
customElements.define("spot-picture", SpotPicture);
