// Counts down from data-left seconds and lets the sun sink with it. The server sends the
// time that is left, so the device's own clock does not matter.
class SunTimer extends HTMLElement {
  static observedAttributes = ["data-left"];

  connectedCallback() {
    this.begin();
    this.ticking = setInterval(() => this.draw(), 200);
  }

  disconnectedCallback() {
    clearInterval(this.ticking);
  }

  attributeChangedCallback() {
    if (this.isConnected) this.begin();
  }

  begin() {
    this.ends = performance.now() + Number(this.dataset.left) * 1000;
  }

  draw() {
    const left = Math.max(0, (this.ends - performance.now()) / 1000);
    const whole = Math.ceil(left);
    const figure = `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
    const label = this.querySelector(".timer-figure");
    if (label && label.textContent !== figure) label.textContent = figure;
    const share = Math.min(1, left / Number(this.dataset.length));
    this.querySelector("circle")?.setAttribute("cy", (46 - 28 * share).toFixed(1));
    this.classList.toggle("is-short", left <= 5);
  }
}
customElements.define("sun-timer", SunTimer);
