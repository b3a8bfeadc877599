// A formula in LaTeX, set by KaTeX. That is large, so it is fetched only where there is a
// formula. A wrong one shows its source, and in the builder what is wrong with it.
import { settable } from "../formula.js";

let loading = null;
let before = Promise.resolve();

// One formula after the other, with room between them for everything else a page has to do.
function turn() {
  before = before.then(() => new Promise((resolve) => setTimeout(resolve)));
  return before;
}

function load() {
  loading ??= new Promise((resolve, reject) => {
    const [script, style] = document.querySelector("meta[name=maths]").content.split(" ");
    const sheet = Object.assign(document.createElement("link"), { rel: "stylesheet", href: style });
    const code = Object.assign(document.createElement("script"), { src: script });
    code.onload = () => resolve(window.roostMaths);
    code.onerror = reject;
    document.head.append(sheet, code);
  });
  return loading;
}

class TexFormula extends HTMLElement {
  static observedAttributes = ["data-source", "data-block"];

  connectedCallback() {
    this.set();
  }

  attributeChangedCallback() {
    if (this.isConnected) this.set();
  }

  async set() {
    const { source } = this.dataset;
    if (!settable(source)) {
      this.textContent = source;
      return;
    }
    const maths = await load().catch(() => null);
    await turn();
    if (!maths || !this.isConnected || source !== this.dataset.source) return; // the source stays
    const { block } = this.dataset;
    const wrong = maths(source, this, block === "true");
    this.classList.toggle("is-wrong", Boolean(wrong));
    if (!wrong) return;
    this.textContent = source;
    if (this.closest(".builder")) this.append(Object.assign(document.createElement("small"), { textContent: wrong }));
  }
}
customElements.define("tex-formula", TexFormula);
