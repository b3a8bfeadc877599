// The sheet on which the teacher draws over a slide: everywhere of one size, made larger or smaller as a whole, so that
// what is drawn lies on the same words. Fetches what is there when it comes to a page or the line is back, and draws what
// comes by the stream.
import { make } from "../svg-tools.js";

const WIDTH = 1280;
const HEIGHT = 600;
const WIDTHS = [4, 10];
const POINTING = 1500; // ms that a pointer stays

const source = () => document.querySelector("[data-ink]")?.dataset.ink;

export class InkSheet extends HTMLElement {
  static observedAttributes = ["data-page"];

  connectedCallback() {
    this.strokes ??= new Map();
    this.sizes = new ResizeObserver(() => this.fit());
    this.sizes.observe(this.parentElement);
    this.heard = ({ detail }) => this.hear(detail);
    this.back = () => this.load();
    this.swapped = () => this.fit(); // a swap takes the scale away, which only this window knows
    document.addEventListener("roost:ink", this.heard);
    document.addEventListener("htmx:sse:after:connection", this.back);
    document.addEventListener("htmx:after:swap", this.swapped);
    this.fit();
    this.load();
  }

  disconnectedCallback() {
    this.sizes.disconnect();
    document.removeEventListener("roost:ink", this.heard);
    document.removeEventListener("htmx:sse:after:connection", this.back);
    document.removeEventListener("htmx:after:swap", this.swapped);
    document.body.classList.remove("is-drawn-on");
  }

  attributeChangedCallback(_name, before) {
    if (before && this.isConnected) {
      this.strokes.clear();
      this.layer.replaceChildren();
      this.load();
    }
  }

  get layer() {
    return this.querySelector("svg.ink g");
  }

  // As wide as its place, or as high where that has a height of its own.
  fit() {
    const { clientWidth, clientHeight } = this.parentElement;
    const style = getComputedStyle(this.parentElement);
    const wide = clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight);
    const scale = this.hasAttribute("data-fills") ? Math.min(wide / WIDTH, clientHeight / HEIGHT) : wide / WIDTH;
    this.style.setProperty("--scale", scale);
    document.body.classList.toggle("is-drawn-on", this.dataset.pen === "true");
  }

  async load() {
    const page = this.dataset.page;
    try {
      const reply = await fetch(`${source()}?page=${encodeURIComponent(page)}`, { cache: "no-store" });
      if (!reply.ok || page !== this.dataset.page) return;
      for (const stroke of await reply.json())
        for (const [part, points] of stroke.parts) this.part({ ...stroke, page, part, points });
    } catch {
      /* when the connection is back */
    }
  }

  hear(said) {
    if (said.at) this.point(said.at);
    else if (said.erase) this.erase(said.erase);
    else if (said.page === this.dataset.page) this.part(said);
  }

  part({ stroke, part, colour, width, points }) {
    const known = this.strokes.get(stroke) ?? { parts: new Map() };
    if (!known.line) {
      known.line = make("polyline", { class: `ink-${colour}`, "stroke-width": WIDTHS[width], "data-stroke": stroke });
      this.layer.append(known.line);
      this.strokes.set(stroke, known);
    }
    known.parts.set(part, points);
    const all = [...known.parts].sort(([one], [other]) => one - other).flatMap(([, each]) => each);
    known.line.setAttribute("points", (all.length === 2 ? [...all, ...all] : all).join(" "));
  }

  erase(stroke) {
    this.strokes.get(stroke)?.line.remove();
    this.strokes.delete(stroke);
  }

  point([x, y]) {
    this.pointer ??= make("circle", { class: "ink-pointer", r: 14 });
    this.pointer.setAttribute("cx", x);
    this.pointer.setAttribute("cy", y);
    this.layer.append(this.pointer);
    clearTimeout(this.fades);
    this.fades = setTimeout(() => this.pointer.remove(), POINTING);
  }
}
customElements.define("ink-sheet", InkSheet);
