// A sheet to draw on: pen, straight line, highlighter, eraser and text in five colours,
// undo and clear. Pointer events, so a finger, a pen and a mouse work alike. Strokes stay
// vectors in whole units of the sheet; the hidden field holds them as JSON.
const SVG = "http://www.w3.org/2000/svg";
const WIDTH = 1200;
const HEIGHT = 900;
const WIDTHS = { pen: 6, line: 6, highlighter: 30 };
const STEP = 5; // units the pointer has to travel for a new point
const REACH = 26; // units around the eraser
const MOST_POINTS = 1500; // of one stroke

const clamp = (value, most) => Math.min(most, Math.max(0, Math.round(value)));

class SketchPad extends HTMLElement {
  connectedCallback() {
    this.sheet = this.querySelector(".sheet");
    this.layer = this.querySelector(".sheet-strokes");
    this.field = this.querySelector("input[name=strokes]");
    this.words = this.querySelector(".sketch-words");
    this.tool = "pen";
    this.colour = "ink";
    this.history = [];
    this.load();
    this.addEventListener("click", (event) => this.press(event.target.closest("button")));
    this.sheet.addEventListener("pointerdown", (event) => this.down(event));
    this.sheet.addEventListener("pointermove", (event) => this.move(event));
    for (const name of ["pointerup", "pointercancel"]) this.sheet.addEventListener(name, () => this.up());
    this.addEventListener("keydown", (event) => {
      if ((event.ctrlKey || event.metaKey) && event.key === "z") { event.preventDefault(); this.undo(); }
      if (event.key === "Enter" && event.target.closest(".sketch-words")) { event.preventDefault(); this.write({ x: WIDTH / 2, y: HEIGHT / 2 }); }
    });
    this.closest("form")?.addEventListener("restored", () => this.load());
  }

  get disabled() { return this.matches(":disabled, fieldset:disabled *"); }

  load() {
    try { this.strokes = JSON.parse(this.field.value || "[]"); } catch { this.strokes = []; }
    this.draw();
  }

  press(button) {
    if (!button || this.disabled) return;
    const { tool, colour } = button.dataset;
    if (tool) this.tool = tool;
    if (colour) this.colour = colour;
    if (button.dataset.do === "undo") this.undo();
    if (button.dataset.do === "clear" && this.strokes.length) this.change([]);
    for (const other of this.querySelectorAll("[data-tool]")) other.setAttribute("aria-pressed", other.dataset.tool === this.tool);
    for (const other of this.querySelectorAll("[data-colour]")) other.setAttribute("aria-pressed", other.dataset.colour === this.colour);
    this.words.hidden = this.tool !== "text";
    if (tool === "text") this.words.querySelector("input").focus();
  }

  at(event) {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(this.sheet.getScreenCTM().inverse());
    return { x: clamp(point.x, WIDTH), y: clamp(point.y, HEIGHT) };
  }

  down(event) {
    if (this.disabled || event.button > 0 || this.pointer !== undefined) return;
    event.preventDefault();
    const point = this.at(event);
    if (this.tool === "text") { this.write(point); return; }
    this.pointer = event.pointerId;
    this.sheet.setPointerCapture(event.pointerId);
    if (this.tool === "eraser") {
      this.before = this.strokes;
      this.erase(point);
    } else {
      this.stroke = { tool: this.tool, colour: this.colour, points: [point.x, point.y] };
      this.line = this.shape(this.stroke);
      this.layer.append(this.line);
    }
  }

  move(event) {
    if (event.pointerId !== this.pointer) return;
    for (const each of event.getCoalescedEvents?.() ?? [event]) {
      const point = this.at(each);
      if (this.tool === "eraser") this.erase(point);
      else this.extend(point);
    }
  }

  extend({ x, y }) {
    const { points, tool } = this.stroke;
    if (tool === "line") points.splice(2, 2, x, y);
    else if (points.length < MOST_POINTS * 2 && Math.hypot(x - points.at(-2), y - points.at(-1)) >= STEP) points.push(x, y);
    this.line.setAttribute("points", points.join(" "));
  }

  up() {
    if (this.pointer === undefined) return;
    this.pointer = undefined;
    if (this.stroke) {
      const stroke = this.stroke;
      this.stroke = null;
      this.change([...this.strokes, stroke]);
    } else if (this.before && this.before !== this.strokes) {
      const after = this.strokes;
      this.strokes = this.before;
      this.change(after);
    }
    this.before = null;
  }

  erase(point) {
    const left = this.strokes.filter((stroke) => !this.touches(stroke, point));
    if (left.length === this.strokes.length) return;
    this.strokes = left;
    this.draw();
  }

  touches({ tool, points, text }, { x, y }) {
    if (tool === "text") return x > points[0] - REACH && x < points[0] + text.length * 24 + REACH && y < points[1] + REACH && y > points[1] - 44 - REACH;
    if (points.length === 2) return Math.hypot(points[0] - x, points[1] - y) < REACH;
    for (let i = 0; i + 3 < points.length; i += 2) if (distance(x, y, points[i], points[i + 1], points[i + 2], points[i + 3]) < REACH) return true;
    return false;
  }

  write({ x, y }) {
    const input = this.words.querySelector("input");
    const text = input.value.trim();
    if (!text) { input.focus(); return; }
    input.value = "";
    this.change([...this.strokes, { tool: "text", colour: this.colour, points: [x, y], text }]);
  }

  change(strokes) {
    this.history.push(this.strokes);
    this.strokes = strokes;
    this.store();
  }

  undo() {
    if (this.history.length) this.strokes = this.history.pop();
    else if (this.strokes.length) this.strokes = this.strokes.slice(0, -1);
    else return;
    this.store();
  }

  store() {
    this.draw();
    this.field.value = JSON.stringify(this.strokes);
    this.field.dispatchEvent(new Event("input", { bubbles: true }));
  }

  draw() {
    this.layer.replaceChildren(...this.strokes.map((stroke) => this.shape(stroke)));
  }

  hex(name) {
    return this.querySelector(`[data-colour="${name}"]`).dataset.hex;
  }

  shape({ tool, colour, points, text }) {
    const shape = document.createElementNS(SVG, tool === "text" ? "text" : "polyline");
    const attributes = tool === "text"
      ? { x: points[0], y: points[1], "font-size": 44, "font-family": "sans-serif", fill: this.hex(colour) }
      : { points: (points.length === 2 ? [...points, ...points] : points).join(" "), fill: "none", stroke: this.hex(colour),
        "stroke-width": WIDTHS[tool], "stroke-linecap": "round", "stroke-linejoin": "round", "stroke-opacity": tool === "highlighter" ? 0.35 : 1 };
    for (const [name, value] of Object.entries(attributes)) shape.setAttribute(name, value);
    if (text) shape.textContent = text;
    return shape;
  }
}

// From a point to a line segment.
function distance(x, y, x1, y1, x2, y2) {
  const length = (x2 - x1) ** 2 + (y2 - y1) ** 2;
  const along = length ? Math.min(1, Math.max(0, ((x - x1) * (x2 - x1) + (y - y1) * (y2 - y1)) / length)) : 0;
  return Math.hypot(x - x1 - along * (x2 - x1), y - y1 - along * (y2 - y1));
}
customElements.define("sketch-pad", SketchPad);
