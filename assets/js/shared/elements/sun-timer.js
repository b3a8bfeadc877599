import { say } from "../say.js";

// Counts down from data-left seconds and lets the sun sink with it. The first data-reading of them are to read: the sun
// stands still then, without figures. The server sends the time that is left, so the device's own clock does not matter.
const NEARLY = 10; // seconds

class SunTimer extends HTMLElement {
  static observedAttributes = ["data-left", "data-reading"];

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
    const now = performance.now();
    this.ends = now + Number(this.dataset.left) * 1000;
    this.thinks = now + Number(this.dataset.reading || 0) * 1000;
    this.before = 0;
  }

  draw() {
    const now = performance.now();
    const left = Math.max(0, (this.ends - now) / 1000);
    const whole = Math.ceil(left);
    const reading = now < this.thinks;
    const figure = reading ? "Read first" : `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
    const label = this.querySelector(".timer-figure");
    if (label && label.textContent !== figure) label.textContent = figure;
    const share = reading ? 1 : Math.min(1, left / Number(this.dataset.length));
    this.querySelector("circle")?.setAttribute("cy", (46 - 28 * share).toFixed(1));
    this.classList.toggle("is-short", left <= 5);
    if (this.before > NEARLY && left <= NEARLY && left > 0) say(`${NEARLY} seconds left`);
    this.before = left;
  }
}
customElements.define("sun-timer", SunTimer);
