// How far the lesson is from what was planned, in minutes: data-passed seconds after its beginning, the present slide should be up
// from data-from to data-to. The server says how much time has passed, so the device's own clock does not matter.
export const words = (passed, from, to) => {
  if (passed - to >= 60) return `+${Math.floor((passed - to) / 60)} min`;
  return from - passed >= 60 ? `−${Math.floor((from - passed) / 60)} min` : "";
};

class PlanDrift extends HTMLElement {
  static observedAttributes = ["data-passed"];

  connectedCallback() {
    this.begun = performance.now();
    this.ticking = setInterval(() => this.draw(), 5000);
  }

  disconnectedCallback() {
    clearInterval(this.ticking);
  }

  attributeChangedCallback() {
    this.begun = performance.now();
  }

  draw() {
    const passed = Number(this.dataset.passed) + (performance.now() - this.begun) / 1000;
    const said = words(passed, Number(this.dataset.from), Number(this.dataset.to));
    if (this.textContent !== said) this.textContent = said;
  }
}
customElements.define("plan-drift", PlanDrift);
