// Regions on a picture, for the teacher: circles, rectangles and polygons that are dragged by
// their inside and shaped by their handles, all of it by keyboard too. The hidden field holds
// them as JSON, in fractions of the picture's width and height.
import { ARROWS, clamp, holdPage, make, place } from "../../js/shared/svg-tools.js";
import { spliced } from "../../js/shared/polyfills.js";

const STEP = 0.01;
const LEAST = 0.01; // of a region's half size

const START = {
  circle: (aspect) => [0.5, 0.5, 0.12, 0.12 / aspect],
  rectangle: () => [0.38, 0.38, 0.62, 0.62],
  polygon: () => [0.5, 0.35, 0.65, 0.5, 0.5, 0.65, 0.35, 0.5],
};

// Where the handles of a region are, and what moving one of them does to its numbers.
const HANDLES = {
  circle: ([x, y, rx, ry]) => [
    [x + rx, y],
    [x, y + ry],
  ],
  rectangle: ([left, top, right, bottom]) => [
    [left, top],
    [right, bottom],
  ],
  polygon: (numbers) => pairs(numbers),
};
const SHAPED = {
  circle: ([x, y], handle, [to, down], aspect) => {
    const radius = Math.max(LEAST, handle === 0 ? Math.abs(to - x) : Math.abs(down - y) * aspect);
    return [x, y, clamp(radius), clamp(radius / aspect)];
  },
  rectangle: ([left, top, right, bottom], handle, [x, y]) =>
    handle === 0
      ? [Math.min(x, right - LEAST), Math.min(y, bottom - LEAST), right, bottom]
      : [left, top, Math.max(x, left + LEAST), Math.max(y, top + LEAST)],
  polygon: (numbers, handle, point) => spliced(numbers, handle * 2, 2, ...point),
};

function pairs(numbers) {
  return numbers.flatMap((_, at) => (at % 2 ? [] : [[numbers[at], numbers[at + 1]]]));
}

class RegionEditor extends HTMLElement {
  connectedCallback() {
    this.svg = this.querySelector("svg");
    this.layer = this.querySelector(".spot-regions");
    this.list = this.querySelector(".region-list");
    this.field = this.querySelector("input[type=hidden]");
    this.status = this.querySelector("[role=status]");
    this.regions = JSON.parse(this.field.value || "[]");
    this.addEventListener("click", (event) => this.press(event.target.closest("button")));
    this.addEventListener("keydown", (event) => this.key(event));
    // Its own fields are not the form's: what they hold goes into the hidden one.
    for (const name of ["input", "change"])
      this.list.addEventListener(name, (event) => {
        event.stopPropagation();
        this.fill(event.target);
      });
    holdPage(this.svg, (target) => target.closest("[data-number]"));
    this.svg.addEventListener("pointerdown", (event) => this.grab(event));
    this.svg.addEventListener("pointermove", (event) => this.drag(event));
    this.svg.addEventListener("pointerup", (event) => {
      this.drag(event);
      this.drop();
    });
    this.svg.addEventListener("pointercancel", () => this.drop());
    this.draw();
    this.drawList();
  }

  get aspect() {
    return this.svg.viewBox.baseVal.height / this.svg.viewBox.baseVal.width;
  }

  press(button) {
    if (!button) return;
    const { add, remove, corner } = button.dataset;
    if (add) {
      const number = 1 + Math.max(0, ...this.regions.map(({ id }) => Number(id.slice(1)) || 0));
      this.regions.push({ id: `r${number}`, shape: add, numbers: START[add](this.aspect), wanted: 1, name: "" });
      this.changed(`A ${add} in the middle. Move it with the arrow keys.`);
      this.layer.querySelector(".region:last-of-type .region-body")?.focus();
    } else if (remove) {
      this.regions.splice(Number(remove), 1);
      this.changed("Taken away.");
    } else if (corner) {
      this.addCorner(Number(corner));
    }
  }

  // A new corner in the middle of the longest side.
  addCorner(number) {
    const region = this.regions[number];
    const corners = pairs(region.numbers);
    const sides = corners.map(([x, y], at) => {
      const [x2, y2] = corners[(at + 1) % corners.length];
      return [Math.hypot(x2 - x, y2 - y), (x + x2) / 2, (y + y2) / 2];
    });
    const longest = sides.reduce((best, side, at) => (side[0] > sides[best][0] ? at : best), 0);
    region.numbers = spliced(region.numbers, (longest + 1) * 2, 0, clamp(sides[longest][1]), clamp(sides[longest][2]));
    this.changed("A corner more.");
  }

  fill(input) {
    const region = this.regions[Number(input.dataset.of)];
    if (input.dataset.part === "name") region.name = input.value;
    else region.wanted = Math.min(10, Math.max(1, Number.parseInt(input.value, 10) || 1));
    this.store();
  }

  key(event) {
    const held = this.found(event.target);
    if (!held) return;
    const move = ARROWS[event.key];
    const region = this.regions[held.number];
    if (move) {
      const [right, down] = move.map((by) => by * (event.shiftKey ? STEP / 5 : STEP));
      if (held.handle === null) this.shift(region, right, down);
      else {
        const [x, y] = HANDLES[region.shape](region.numbers)[held.handle];
        this.reshape(region, held.handle, [clamp(x + right), clamp(y + down)]);
      }
      this.changed();
      this.layer
        .querySelector(
          `[data-number="${held.number}"]${held.handle === null ? ".region-body" : `[data-handle="${held.handle}"]`}`,
        )
        ?.focus();
    } else if (event.key === "Delete") {
      if (held.handle !== null && region.shape === "polygon" && region.numbers.length > 6)
        region.numbers = spliced(region.numbers, held.handle * 2, 2);
      else this.regions.splice(held.number, 1);
      this.changed("Taken away.");
    } else {
      return;
    }
    event.preventDefault();
  }

  found(target) {
    const part = target.closest("[data-number]");
    return part && this.svg.contains(part)
      ? { number: Number(part.dataset.number), handle: part.dataset.handle === undefined ? null : Number(part.dataset.handle) }
      : null;
  }

  // Moves a region as far as it stays on the picture.
  shift(region, right, down) {
    const { shape, numbers } = region;
    const corners = shape === "circle" ? [numbers.slice(0, 2)] : pairs(numbers);
    const fits = (by, all) => Math.max(-Math.min(...all), Math.min(by, 1 - Math.max(...all)));
    const x = fits(
      right,
      corners.map((each) => each[0]),
    );
    const y = fits(
      down,
      corners.map((each) => each[1]),
    );
    region.numbers = numbers.map((number, at) => (shape === "circle" && at > 1 ? number : clamp(number + (at % 2 ? y : x))));
  }

  reshape(region, handle, point) {
    region.numbers = SHAPED[region.shape](region.numbers, handle, point, this.aspect);
  }

  grab(event) {
    const held = this.found(event.target);
    if (!held || event.button > 0) return;
    event.preventDefault();
    this.held = { ...held, last: place(this.svg, event) };
    this.svg.setPointerCapture(event.pointerId);
  }

  drag(event) {
    if (!this.held) return;
    const point = place(this.svg, event);
    const region = this.regions[this.held.number];
    if (this.held.handle === null) this.shift(region, point[0] - this.held.last[0], point[1] - this.held.last[1]);
    else this.reshape(region, this.held.handle, point);
    this.held.last = point;
    this.moved = true;
    this.draw();
  }

  drop() {
    if (this.moved) this.changed();
    this.held = null;
    this.moved = false;
  }

  changed(words = "") {
    if (words) this.status.textContent = words;
    this.draw();
    this.drawList();
    this.store();
  }

  store() {
    this.field.value = JSON.stringify(this.regions);
    this.field.dispatchEvent(new Event("input", { bubbles: true }));
  }

  draw() {
    const { width, height } = this.svg.viewBox.baseVal;
    this.layer.replaceChildren(
      ...this.regions.map((region, number) => {
        const group = make("g", { class: "region" });
        const body = this.body(region, width, height);
        body.setAttribute("class", "region-body");
        for (const [name, value] of Object.entries({
          "data-number": number,
          tabindex: 0,
          role: "button",
          "aria-label": `Region ${number + 1}, ${region.shape}${region.name ? `, ${region.name}` : ""}`,
        }))
          body.setAttribute(name, value);
        const handles = HANDLES[region.shape](region.numbers).map(([x, y], handle) =>
          make("circle", {
            class: "region-handle",
            cx: x * width,
            cy: y * height,
            r: 14,
            "data-number": number,
            "data-handle": handle,
            tabindex: 0,
            role: "button",
            "aria-label": `Handle ${handle + 1} of region ${number + 1}`,
          }),
        );
        group.append(body, ...handles);
        return group;
      }),
    );
  }

  body({ shape, numbers }, width, height) {
    const scaled = numbers.map((number, at) => number * (at % 2 ? height : width));
    if (shape === "circle") return make("ellipse", { cx: scaled[0], cy: scaled[1], rx: scaled[2], ry: scaled[3] });
    if (shape === "rectangle")
      return make("rect", { x: scaled[0], y: scaled[1], width: scaled[2] - scaled[0], height: scaled[3] - scaled[1] });
    return make("polygon", { points: scaled.join(" ") });
  }

  drawList() {
    this.list.innerHTML = this.regions
      .map(
        ({ shape }, number) => `<li><span class="letter is-small">${number + 1}</span>
      <input class="input" data-of="${number}" data-part="name" maxlength="40" placeholder="Name" aria-label="Name of region ${number + 1}">
      <label>wants <input class="input is-count" data-of="${number}" data-part="wanted" inputmode="numeric" maxlength="2"
        aria-label="Spots wanted in region ${number + 1}"></label>
      ${shape === "polygon" ? `<button type="button" class="button is-small is-quiet" data-corner="${number}">+ corner</button>` : ""}
      <button type="button" class="button is-small is-quiet" data-remove="${number}"
        aria-label="Remove region ${number + 1}">✕</button></li>`,
      )
      .join("");
    this.list.querySelectorAll("input").forEach((input) => {
      input.value = this.regions[Number(input.dataset.of)][input.dataset.part];
    });
  }
}
customElements.define("region-editor", RegionEditor);
