// A formula in LaTeX, set by KaTeX. That is large, so it is fetched only where there is a
// formula. A wrong one shows its source, and in the builder what is wrong with it.
import { settable } from "../formula.js";
import { fetchLibrary } from "../later.js";

let before = Promise.resolve();

// One formula a frame, with room between them for everything else a page has to do: to lay one out takes three times as
// long as to set it. A page that nobody looks at has no frames.
function turn() {
  const frame = (resolve) => (document.hidden ? setTimeout(resolve) : requestAnimationFrame(() => setTimeout(resolve)));
  before = before.then(() => new Promise(frame));
  return before;
}

const load = () => fetchLibrary("maths").catch(() => null);

// Only what is seen, or nearly so, is set: of many in a list the rest as one comes to them, and all for paper.
const NEAR = "400px";
const near = new IntersectionObserver(
  (entries) => {
    for (const { target, isIntersecting } of entries) if (isIntersecting) seen(target);
  },
  { rootMargin: NEAR },
);
const unseen = new Set();

function seen(formula) {
  formula.rest();
  formula.set();
}

addEventListener("beforeprint", () => {
  for (const formula of unseen) formula.setNow();
});

class TexFormula extends HTMLElement {
  static observedAttributes = ["data-source", "data-block"];

  connectedCallback() {
    this.wait();
  }

  disconnectedCallback() {
    this.rest();
  }

  attributeChangedCallback() {
    if (this.isConnected) this.wait();
  }

  rest() {
    near.unobserve(this);
    unseen.delete(this);
  }

  wait() {
    if (!settable(this.dataset.source)) {
      this.rest();
      this.textContent = this.dataset.source;
      return;
    }
    load();
    unseen.add(this);
    near.unobserve(this);
    near.observe(this);
  }

  async set() {
    const { source } = this.dataset;
    const maths = await load();
    await turn();
    if (maths && this.isConnected && source === this.dataset.source) this.draw(maths); // else the source stays
  }

  // Where it can be done at once.
  setNow() {
    if (window.roost?.maths) this.draw(window.roost.maths);
  }

  draw(maths) {
    const { source, block } = this.dataset;
    const wrong = maths(source, this, block === "true");
    this.classList.toggle("is-wrong", Boolean(wrong));
    if (!wrong) return;
    this.textContent = source;
    if (this.closest(".builder")) this.append(Object.assign(document.createElement("small"), { textContent: wrong }));
  }
}
customElements.define("tex-formula", TexFormula);
