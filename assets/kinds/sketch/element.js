// A sheet to draw on: pen, highlighter, line, arrow, shapes, text, stickers and eraser in five
// colours, undo and clear. Pointer events, so a finger, a pen and a mouse work alike; a pen's
// pressure makes its line wider; by keyboard the arrow keys move a pen over the sheet and the
// space bar puts it down and lifts it. Strokes stay vectors in whole units of the sheet; the hidden
// field holds them as JSON, also of a stroke that is still being drawn.
import { TWO_POINTS, distance, drawn, outline, simplified } from "../../js/shared/strokes.js";
import { ARROWS, make } from "../../js/shared/svg-tools.js";
import { last } from "../../js/shared/polyfills.js";

const WIDTH = 1200;
const HEIGHT = 900;
const KEYS = "keys"; // in place of a pointer's id
const COARSE = 20; // units a press of an arrow key
const FINE = 5;
const LIVE = 500; // milliseconds between drafts of a stroke that is being drawn
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
    this.colour = this.dataset.begins ?? "ink";
    this.history = [];
    this.load();
    this.addEventListener("click", (event) => this.press(event.target.closest("button")));
    this.sheet.addEventListener("pointerdown", (event) => this.down(event));
    this.sheet.addEventListener("pointermove", (event) => this.move(event));
    for (const name of ["pointerup", "pointercancel"]) this.sheet.addEventListener(name, () => this.up());
    this.addEventListener("keydown", (event) => {
      if ((event.ctrlKey || event.metaKey) && event.key === "z") {
        event.preventDefault();
        this.undo();
      }
      if (event.key === "Enter" && event.target.closest(".sketch-words")) {
        event.preventDefault();
        this.write({ x: WIDTH / 2, y: HEIGHT / 2 });
      }
    });
    this.sheet.addEventListener("keydown", (event) => this.key(event));
    this.sheet.addEventListener("blur", () => {
      if (this.pointer === KEYS) this.up();
    });
    this.sheet.tabIndex = 0;
    this.cursor = make("path", { class: "sheet-cursor", d: "M-24 0H24M0-24V24" });
    this.penAt = { x: WIDTH / 2, y: HEIGHT / 2 };
    this.point();
    this.sheet.append(this.cursor);
    this.closest("form")?.addEventListener("restored", () => this.load());
  }

  get disabled() {
    return this.matches(":disabled, fieldset:disabled *");
  }

  load() {
    try {
      this.strokes = JSON.parse(this.field.value || "[]");
    } catch {
      this.strokes = [];
    }
    this.draw();
  }

  press(button) {
    if (!button || this.disabled) return;
    const { tool, colour, sticker } = button.dataset;
    if (tool) this.tool = tool;
    this.sticker = sticker ?? this.sticker;
    if (colour) this.colour = colour;
    if (button.dataset.do === "undo") this.undo();
    if (button.dataset.do === "clear" && this.strokes.length) this.change([]);
    for (const other of this.querySelectorAll("[data-tool]"))
      other.setAttribute(
        "aria-pressed",
        other.dataset.tool === this.tool && (this.tool !== "sticker" || other.dataset.sticker === this.sticker),
      );
    for (const other of this.querySelectorAll("[data-colour]"))
      other.setAttribute("aria-pressed", other.dataset.colour === this.colour);
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
    this.sheet.focus({ preventScroll: true });
    if (!this.start(this.at(event), event.pointerId, event.pointerType === "pen" ? press(event) : null)) return;
    this.sheet.setPointerCapture(event.pointerId);
  }

  // Puts the pen (or whatever is chosen) down.
  // @returns whether it now is down; words and stickers are done at once
  start(point, pointer, pressure) {
    if (this.tool === "text") {
      this.write(point);
      return false;
    }
    if (this.tool === "sticker") {
      this.change([...this.strokes, { tool: "sticker", sticker: this.sticker, colour: this.colour, points: [point.x, point.y] }]);
      return false;
    }
    this.pointer = pointer;
    if (this.tool === "eraser") {
      this.before = this.strokes;
      this.erase(point);
    } else {
      this.stroke = { tool: this.tool, colour: this.colour, points: [point.x, point.y] };
      if (TWO_POINTS.includes(this.tool)) this.stroke.points.push(point.x, point.y);
      if (this.tool === "pen" && pressure) this.stroke.pressure = [pressure];
      this.redraw();
      this.told = Date.now();
    }
    return true;
  }

  key(event) {
    if (this.disabled || event.ctrlKey || event.metaKey || event.altKey) return;
    const move = ARROWS[event.key];
    if (move) {
      const step = event.shiftKey ? FINE : COARSE;
      this.penAt = { x: clamp(this.penAt.x + move[0] * step, WIDTH), y: clamp(this.penAt.y + move[1] * step, HEIGHT) };
      this.point();
      if (this.pointer === KEYS) this.follow(this.penAt, {});
    } else if (event.key === " " || event.key === "Enter") {
      if (this.pointer === KEYS) this.up();
      else this.start(this.penAt, KEYS, null);
    } else {
      return;
    }
    event.preventDefault();
  }

  // Where the keys have brought the pen.
  point() {
    this.cursor.setAttribute("transform", `translate(${this.penAt.x} ${this.penAt.y})`);
    this.cursor.classList.toggle("is-down", this.pointer === KEYS);
  }

  follow(point, event) {
    if (this.tool === "eraser") this.erase(point);
    else {
      this.extend(point, event);
      this.redraw();
    }
  }

  move(event) {
    if (event.pointerId !== this.pointer) return;
    for (const each of event.getCoalescedEvents?.() ?? [event]) this.follow(this.at(each), each);
    if (!this.stroke) return;
    if (Date.now() - this.told >= LIVE) this.tellLive();
  }

  extend({ x, y }, event) {
    const { points, tool, pressure } = this.stroke;
    if (TWO_POINTS.includes(tool)) points.splice(2, 2, x, y);
    else if (points.length < MOST_POINTS * 2 && Math.hypot(x - last(points, 1), y - last(points)) >= STEP) {
      points.push(x, y);
      pressure?.push(press(event));
    }
  }

  // The stroke that is being drawn.
  redraw() {
    const shape = this.shape(this.stroke);
    if (this.line?.isConnected) this.line.replaceWith(shape);
    else this.layer.append(shape);
    this.line = shape;
  }

  // What is being drawn can be watched before the stroke ends.
  tellLive() {
    this.told = Date.now();
    this.field.value = JSON.stringify([...this.strokes, this.stroke]);
    this.field.dispatchEvent(new Event("input", { bubbles: true }));
  }

  up() {
    if (this.pointer === undefined) return;
    this.pointer = undefined;
    this.point();
    if (this.stroke) {
      const stroke = this.stroke;
      const [x1, y1, x2, y2] = stroke.points;
      this.stroke = null;
      this.line = null;
      if (TWO_POINTS.includes(stroke.tool) && Math.hypot(x2 - x1, y2 - y1) < STEP)
        this.draw(); // a slip
      else this.change([...this.strokes, simplified(stroke)]);
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

  touches({ tool, points: path, text }, { x, y }) {
    let points = path;
    if (tool === "text")
      return (
        x > points[0] - REACH && x < points[0] + text.length * 24 + REACH && y < points[1] + REACH && y > points[1] - 44 - REACH
      );
    if (tool === "sticker") return Math.hypot(points[0] - x, points[1] - y) < 50 + REACH;
    if (tool === "rectangle" || tool === "ellipse") points = outline(points);
    if (points.length === 2) return Math.hypot(points[0] - x, points[1] - y) < REACH;
    for (let i = 0; i + 3 < points.length; i += 2)
      if (distance(x, y, points[i], points[i + 1], points[i + 2], points[i + 3]) < REACH) return true;
    return false;
  }

  write({ x, y }) {
    const input = this.words.querySelector("input");
    const text = input.value.trim();
    if (!text) {
      input.focus();
      return;
    }
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

  shape(stroke) {
    const path = stroke.sticker && this.querySelector(`[data-sticker="${stroke.sticker}"] path`).getAttribute("d");
    return drawn(stroke, this.querySelector(`[data-colour="${stroke.colour}"]`).dataset.hex, path);
  }
}

const press = ({ pressure }) => Math.min(9, Math.max(1, Math.round(pressure * 10)));

customElements.define("sketch-pad", SketchPad);
