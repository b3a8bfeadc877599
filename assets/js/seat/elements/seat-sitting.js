// A student at work in a quiz at their own speed. What is shown comes from the server, one slide at a time;
// what was written is sent before one moves on.
import * as storage from "../../shared/storage.js";
import { say } from "../../shared/say.js";
import { sent } from "./seat-answer.js";
import { Ahead } from "../ahead.js";

const NO_LINE = "No connection at the moment. What you wrote is on this device. Try again soon.";
const KEPT =
  "No connection at the moment. You can continue: what you write is on this device, and is sent when the connection is back.";
const NO_MORE =
  "The next slide isn't on this device. What you wrote is kept here. Continue when the connection is back, or go back.";
const LIFE = 60000; // milliseconds between two signs of life
const SOON = 1300; // milliseconds: how it went is told a second after the end, when what was on its way is in
const PATIENCE = 6000; // milliseconds after which a line that says nothing is taken for none

const plain = (html) => new DOMParser().parseFromString(html, "text/html").body.textContent.trim();

class SeatSitting extends HTMLElement {
  static observedAttributes = ["data-rev"];

  connectedCallback() {
    this.seat = this.closest("[data-token]");
    if (!this.seat) return; // a picture of a seat
    this.ahead = new Ahead(this.address);
    this.addEventListener("click", (event) => this.press(event));
    this.addEventListener("told", () => this.tell());
    this.addEventListener("kept", () => {
      this.back();
      if (this.querySelector("[data-own-first]")) this.others();
    });
    this.whenBack = () => this.back();
    for (const sign of ["online", "roost:line"]) addEventListener(sign, this.whenBack);
    this.addEventListener("time-short", () => this.flush());
    this.addEventListener("time-over", () => this.flush().then(() => this.refresh()));
    this.life = setInterval(() => {
      if (document.hidden) return;
      fetch(`${this.address}/here`, { method: "POST" }).catch(() => {});
      this.others();
    }, LIFE);
    this.begin();
  }

  // A page that comes without a line shows where one was.
  async begin() {
    if (!(await this.show("GET"))) await this.offline(storage.get(this.placeKey));
  }

  disconnectedCallback() {
    clearInterval(this.life);
    for (const sign of ["online", "roost:line"]) removeEventListener(sign, this.whenBack);
  }

  // More time, or the end of it.
  attributeChangedCallback(_name, before, now) {
    if (this.seat && before !== null && before !== now) this.flush().then(() => this.refresh());
  }

  get placeKey() {
    return `roost.place.${this.seat.dataset.token}`;
  }

  get address() {
    return `/sitting/${this.seat.dataset.token}`;
  }

  press({ target }) {
    const button = target.closest("button");
    if (!button) return;
    const { to, lookBack, handInAll, ask, begin } = button.dataset;
    if (to) this.go("POST", `/place?to=${to}`);
    else if (begin !== undefined) this.go("POST", "/begin");
    else if (lookBack !== undefined) this.go("GET", "/look-back");
    else if (handInAll !== undefined && (!ask || window.confirm(ask.replace(/\s+/g, " ")))) this.go("POST", "/hand-in");
  }

  // What stands in the form is on its way before anything else is asked for.
  async flush() {
    for (const answer of this.querySelectorAll("seat-answer")) answer.draftNow?.();
    await sent();
  }

  async go(verb, path) {
    if (this.moving) return;
    this.moving = true;
    await this.flush();
    const place = Number(path.match(/to=(\d+)/)?.[1]);
    const came = await this.show(verb, path);
    if (came || (place && !this.refusal && (await this.offline(place)))) this.toHeading();
    else if (place && !this.refusal) this.missed(true, NO_MORE);
    this.moving = false;
    if (this.due) await this.refresh();
  }

  // As it is now, at the slide that is before the student; where a step is on its way, once that has been taken.
  async refresh() {
    this.due = this.moving;
    if (this.moving) return false;
    return this.ownPlace ? this.show("POST", `/place?to=${this.ownPlace}`) : this.show("GET");
  }

  // The line is back: the server hears where one went without it, and what was said of it is over.
  async back() {
    if (!(this.ownPlace || this.lost) || this.moving || this.returning) return;
    this.returning = true;
    await this.flush();
    await this.refresh();
    this.returning = false;
  }

  // How it was stands above the slide.
  async tell() {
    if (!(await this.refresh())) return;
    scrollTo(0, 0);
    say(this.querySelector(".outcome")?.textContent);
  }

  toHeading() {
    scrollTo(0, 0);
    const heading = this.querySelector("h1");
    if (!heading) return;
    heading.tabIndex = -1;
    heading.focus();
  }

  // A slide that was fetched while there was a line. Answers to it are written and wait as anywhere. The server hears
  // of the step once the line is back.
  async offline(place) {
    const html = await this.ahead.slide(place);
    if (!html) return false;
    this.innerHTML = html;
    window.htmx.process(this);
    this.missed(true, KEPT);
    this.ownPlace = place;
    storage.set(this.placeKey, place);
    return true;
  }

  // Whether it came, or something newer was asked for, which then says how it went; else why it was refused, if it was.
  async show(verb, path = "") {
    const turn = (this.turn = (this.turn ?? 0) + 1);
    let came = false;
    this.refusal = null;
    const listening = new AbortController();
    // htmx tells of a swap also where it refused to make one.
    const note = ({ target }) => (came ||= target === this && this.refusal === null);
    const refused = ({ target, detail }) => {
      if (target === this) this.refusal = plain(detail.ctx.text);
    };
    this.addEventListener("htmx:after:swap", note, listening);
    this.addEventListener("htmx:response:error", refused, listening);
    const patience = setTimeout(() => this.dispatchEvent(new Event("htmx:abort")), PATIENCE);
    await window.htmx.ajax(verb, this.address + path, { source: this, target: this, swap: "innerMorph" }).catch(() => {});
    clearTimeout(patience);
    listening.abort();
    if (turn !== this.turn) return true;
    this.missed(!came, this.refusal || (this.ownPlace ? KEPT : NO_LINE));
    if (!came) return false;
    this.ownPlace = null;
    this.keep();
    this.others();
    if (this.querySelector("[data-soon]")) setTimeout(() => this.refresh(), SOON);
    return true;
  }

  // What the others put on a board: as it is now, as long as there is a line.
  async others() {
    for (const place of this.querySelectorAll("[data-others]")) {
      const look = { source: place, target: place, swap: "innerMorph" };
      await window.htmx.ajax("GET", `${this.address}/others/${place.dataset.others}`, look).catch(() => {});
    }
  }

  // What is needed to go on without a line.
  keep() {
    const here = Number(this.querySelector(".step[aria-current]")?.dataset.to);
    if (!here) {
      storage.remove(this.placeKey);
      this.ahead.forget();
      return;
    }
    storage.set(this.placeKey, here);
    this.ahead.look(
      [...this.querySelectorAll(".step:enabled")].map((step) => Number(step.dataset.to)),
      here,
    );
  }

  missed(missing, words) {
    this.lost = missing && !this.refusal;
    document.body.classList.toggle("says-lost", missing); // which is more than that the line is lost
    const note = this.querySelector(".sitting-lost");
    if (missing && note?.firstChild.textContent === words) return; // said once
    note?.remove();
    if (!missing) return;
    const again = Object.assign(document.createElement("p"), { className: "note sitting-lost", textContent: words });
    const button = Object.assign(document.createElement("button"), {
      type: "button",
      className: "button",
      textContent: "Try again",
    });
    button.addEventListener("click", () => this.refresh());
    again.append(" ", button);
    (this.querySelector(".sitting-moves") ?? this).prepend(again);
    say(words);
  }
}
customElements.define("seat-sitting", SeatSitting);
