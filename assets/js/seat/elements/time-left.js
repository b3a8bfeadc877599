// How much time is left, in words, from data-left seconds: the device's own clock does not matter. Whoever does
// not want to see it hides it, until the last five minutes.
import * as storage from "../../shared/storage.js";
import { say } from "../../shared/say.js";

const HIDDEN = "roost.time.hidden";
const SHORT = 300; // seconds: from then on it is shown to all
const LONG = 6000; // seconds: from then on in hours
const NEARLY = 2; // seconds before the end, in which what was typed is sent

const words = (left) => {
  if (left <= 0) return "The time is over";
  if (left <= 60) return "Less than a minute left";
  if (left > LONG) return `About ${Math.round(left / 3600)} hours left`;
  const minutes = Math.ceil(left / 60);
  return minutes === 1 ? "A minute left" : `${left > SHORT ? "About " : ""}${minutes} minutes left`;
};

class TimeLeft extends HTMLElement {
  static observedAttributes = ["data-left"];

  connectedCallback() {
    this.innerHTML = '<span class="time-words"></span> <button type="button" class="button is-small is-quiet"></button>';
    this.button = this.querySelector("button");
    this.button.addEventListener("click", () => {
      storage.set(HIDDEN, !storage.get(HIDDEN));
      this.draw();
    });
    this.begin();
    this.ticking = setInterval(() => this.draw(), 500);
  }

  disconnectedCallback() {
    clearInterval(this.ticking);
  }

  attributeChangedCallback() {
    if (this.button) this.begin();
  }

  begin() {
    this.ends = performance.now() + Number(this.dataset.left) * 1000;
    this.said = new Set();
    this.before = Infinity;
    this.draw();
  }

  draw() {
    const left = (this.ends - performance.now()) / 1000;
    const hidden = left > SHORT && Boolean(storage.get(HIDDEN));
    const line = hidden ? "" : words(left);
    const label = this.querySelector(".time-words");
    if (label.textContent !== line) label.textContent = line;
    const wanted = hidden ? "Show the time left" : "Hide";
    if (this.button.textContent !== wanted) this.button.textContent = wanted;
    this.button.hidden = left <= SHORT;
    for (const at of [SHORT, 60]) if (this.before > at && left <= at && this.before !== Infinity) say(words(left));
    if (this.before > NEARLY && left <= NEARLY) this.tell("time-short");
    if (this.before > 0 && left <= 0) this.tell("time-over");
    this.before = left;
  }

  tell(name) {
    this.dispatchEvent(new CustomEvent(name, { bubbles: true }));
  }
}
customElements.define("time-left", TimeLeft);
