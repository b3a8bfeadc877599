// The student's own notes, a text for each slide and attempt at it, which begins with that of the attempt before. They are kept
// on the device until the server has them, as drafts of answers are. While somebody writes, the text stays that of the slide it
// was begun on.
import * as storage from "../../shared/storage.js";
import { Outbox, questionOf } from "../outbox.js";

const PAUSE = 800; // milliseconds without a change before it is sent
const CLICK = 300; // milliseconds after a press in which the browser tells of it
const OPEN = "roost.notes.open";
const PRIVATE = "Only you see them.";

const slideOf = (question) => question?.split("/")[0];
const attemptOf = (question) => Number(question?.split("/")[1] ?? 1);

class OwnNotes extends HTMLElement {
  connectedCallback() {
    this.seat = document.querySelector("[data-token]");
    this.area = this.querySelector("textarea");
    this.button = document.querySelector("[data-notes]");
    this.notes = {};
    this.sent = {};
    this.outbox = new Outbox(this.seat.dataset.token, { address: this.dataset.address, name: "notes" });
    this.outbox.addEventListener("save", ({ detail }) => this.saved(detail));
    this.area.addEventListener("input", () => {
      this.writing = true;
      this.soon();
    });
    this.area.addEventListener("blur", () => {
      this.writing = false;
      this.turn();
    });
    addEventListener("pointerdown", () => (this.pressed = true), true);
    for (const sign of ["pointerup", "pointercancel"])
      addEventListener(sign, () => setTimeout(() => this.released(), CLICK), true);
    this.button.addEventListener("click", () => this.open(this.hidden));
    for (const event of ["visibilitychange", "pagehide"]) addEventListener(event, () => this.put());
    for (const sign of ["online", "roost:line"]) addEventListener(sign, () => this.loaded || this.load());
    const changes = { childList: true, subtree: true, attributes: true, attributeFilter: ["data-slide", "data-attempt"] };
    new MutationObserver(() => this.turn()).observe(this.seat, changes);
    this.turn();
    this.load();
  }

  async load() {
    try {
      const reply = await fetch(this.dataset.address);
      if (!reply.ok) return;
      this.notes = await reply.json();
    } catch {
      return; // it comes with the line
    }
    this.loaded = true;
    for (const [slide, { saved, attempt }] of Object.entries(this.notes)) this.outbox.knows(questionOf(slide, attempt), saved);
    if (this.question && !this.writing) this.fill();
  }

  // Another slide may be before the student now.
  turn() {
    const place = this.seat.querySelector(".seat-slide[data-slide]");
    const question = place && questionOf(place.dataset.slide, Number(place.dataset.attempt || 1));
    if (this.pressed || this.writing) return;
    this.button.hidden = !question;
    if (question === this.question) return;
    this.put();
    this.question = question;
    this.say(PRIVATE);
    if (!question) this.show(false);
    else this.come(place);
  }

  // What is being pressed stays where it is until it has been.
  released() {
    this.pressed = false;
    this.turn();
  }

  come(place) {
    this.querySelector("[data-on]").textContent = `on “${place.querySelector("h1")?.textContent.trim() ?? "this slide"}”`;
    this.show(Boolean(storage.get(OPEN)));
    this.fill();
  }

  fill() {
    this.area.value = this.text;
    this.mark();
  }

  // What is written on the slide so far.
  get text() {
    const slide = slideOf(this.question);
    for (let attempt = attemptOf(this.question); attempt > 0; attempt -= 1) {
      const waiting = this.outbox.pending(questionOf(slide, attempt));
      if (waiting) return waiting.fields.text[0];
    }
    return this.notes[slide]?.text ?? "";
  }

  mark() {
    this.button.classList.toggle("has-note", this.text !== "");
  }

  // What the student wants, here and on the slides that come.
  open(wanted) {
    this.show(wanted);
    if (wanted) storage.set(OPEN, true);
    else storage.remove(OPEN);
    if (wanted) this.area.focus();
  }

  show(wanted) {
    this.hidden = !wanted;
    document.body.classList.toggle("has-margin", wanted);
    this.button.setAttribute("aria-expanded", wanted);
  }

  soon() {
    clearTimeout(this.timer);
    this.unsent = true;
    this.timer = setTimeout(() => this.put(), PAUSE);
  }

  put() {
    clearTimeout(this.timer);
    if (!this.unsent) return;
    this.unsent = false;
    this.outbox.put(this.question, { text: [this.area.value] }, false, 0);
  }

  saved({ question, state, message }) {
    if (state === "draft") this.noted(question, this.sent[question]);
    if (state === "sending") [this.sent[question]] = this.outbox.pending(question).fields.text;
    if (state === "elsewhere") this.bring(question);
    if (question !== this.question) return;
    this.mark();
    this.say(message ?? (state === "sending" ? "On this device, sending…" : `✓ Saved. ${PRIVATE}`));
  }

  // What was noted in an earlier attempt, and comes late, leaves what stands now.
  noted(question, text) {
    const attempt = attemptOf(question);
    const slide = slideOf(question);
    if (attempt >= (this.notes[slide]?.attempt ?? 1)) this.notes[slide] = { text, attempt };
  }

  say(words) {
    this.querySelector("[data-note-state]").textContent = words;
  }

  // Another window has written something else meanwhile: both stand from now on.
  async bring(question) {
    this.loaded = false;
    await this.load();
    if (!this.loaded) return;
    clearTimeout(this.timer);
    const here = question === this.question;
    const mine = this.unsent && here ? this.area.value : this.outbox.pending(question).fields.text[0];
    this.unsent = false;
    const theirs = this.notes[slideOf(question)]?.text ?? "";
    const both = theirs.includes(mine.trim()) ? theirs : [theirs, mine].filter(Boolean).join("\n\n");
    this.outbox.insist(question, { text: [both] }, false, 0);
    if (here) this.area.value = both;
  }
}
customElements.define("own-notes", OwnNotes);
