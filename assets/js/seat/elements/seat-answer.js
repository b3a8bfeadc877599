// The answering part of a seat: saves drafts while the student works, hands in, and
// always says where the answer is. Knows nothing of the kinds: it sends what the form holds.
import { works } from "../../shared/storage.js";
import { say } from "../../shared/say.js";
import { Outbox, Rehearsal, questionOf } from "../outbox.js";

// Milliseconds without a change before a draft is sent, and the longest a change waits.
const PAUSE = 500;
const LONGEST = 1500;
const ELSEWHERE = "In another window you wrote something else, and that counts now. What you wrote here is kept, too.";
const AWAY = ["visibilitychange", "pagehide"]; // the first bubbles up from the document
let outbox = null;
const SOON = 2500;

// Until all that was written has reached the server, or for as long as one may be kept waiting.
export function sent() {
  if (!outbox?.toSend?.length || !navigator.onLine) return Promise.resolve();
  return new Promise((resolve) => {
    addEventListener("roost:sent", resolve, { once: true });
    setTimeout(resolve, SOON);
  });
}

// Which of two texts counts: asked only where there are two.
function whichOf() {
  const place = Object.assign(document.createElement("p"), { className: "answer-which", hidden: true });
  for (const [keep, words] of [
    ["this", "Use this one"],
    ["other", "Show the other"],
  ]) {
    const button = Object.assign(document.createElement("button"), {
      type: "button",
      className: "button is-small",
      textContent: words,
    });
    button.dataset.keep = keep;
    place.append(button, " ");
  }
  return place;
}

class SeatAnswer extends HTMLElement {
  static observedAttributes = ["data-open"];

  connectedCallback() {
    const seat = this.closest("[data-token], [data-preview]");
    if (!seat) return; // a picture of a seat
    if (this.querySelector("form")) this.wake(seat);
    else queueMicrotask(() => this.takeOver(seat));
  }

  // A form whose parts were taken over from the one before, as when a question is asked again.
  takeOver(seat) {
    if (!this.isConnected || !this.querySelector("form")) return;
    this.wake(seat);
    if (this.state !== "none") return;
    this.form.reset();
    this.form.dispatchEvent(new CustomEvent("restored"));
  }

  wake(seat) {
    outbox ??= seat.dataset.token ? new Outbox(seat.dataset.token) : new Rehearsal();
    this.form = this.querySelector("form");
    this.fields = this.querySelector("fieldset");
    this.button = this.querySelector("[data-hand-in]");
    this.state = this.dataset.stored || "none";
    this.began();
    outbox.knows(this.question, this.dataset.saved);
    const pending = outbox.pending(this.question);
    if (!pending && this.dataset.typed) this.restore(JSON.parse(this.dataset.typed));
    if (pending) {
      this.restore(pending.fields);
      this.state = pending.final ? "final" : "draft";
      this.sending = !pending.held;
      this.elsewhere = Boolean(pending.held);
    }
    this.form.addEventListener("input", (event) => {
      if (this.oneTouch && event.target.type === "radio") this.touch();
      else if (!event.target.matches("[data-ignore]")) this.draftSoon(event.target.matches("[data-keeps-state]"));
    });
    this.form.addEventListener("submit", (event) => {
      event.preventDefault();
      this.press();
    });
    this.which = this.querySelector(".answer-bar").appendChild(whichOf());
    this.which.addEventListener("click", ({ target }) => this.choose(target.closest("button")?.dataset.keep));
    this.onSave = (event) => {
      if (event.detail.question === this.question) this.saved(event.detail);
    };
    outbox.addEventListener("save", this.onSave);
    // A page that is put away may never run again.
    this.onAway = () => this.draftNow();
    for (const event of AWAY) addEventListener(event, this.onAway);
    this.draw();
  }

  disconnectedCallback() {
    if (!this.form) return;
    this.draftNow();
    outbox.removeEventListener("save", this.onSave);
    for (const event of AWAY) removeEventListener(event, this.onAway);
  }

  attributeChangedCallback() {
    if (!this.form) return;
    if (this.open) this.began();
    else {
      this.draftNow();
      scrollTo(0, 0);
    }
    this.draw();
  }

  // The question is before the student from now on, by a clock that nobody sets.
  began() {
    if (this.open) this.since0 ??= performance.now();
  }

  get elapsed() {
    return Math.round(performance.now() - (this.since0 ?? performance.now()));
  }

  get question() {
    return questionOf(this.dataset.slide, Number(this.dataset.attempt));
  }

  get open() {
    return this.dataset.open === "true";
  }

  // At one's own speed: "kept", all is handed in at the end, or "told", each is settled by itself.
  get alone() {
    return this.dataset.alone;
  }

  get mayChange() {
    return this.dataset.mayChange === "true";
  }

  // In a round a touch on a single choice hands it in, and another touch changes it.
  get oneTouch() {
    return this.open && "oneTouch" in this.dataset;
  }

  touch() {
    this.changing = true;
    this.press();
  }

  get locked() {
    if (this.oneTouch) return false;
    return !this.open || (this.state === "final" && !this.changing);
  }

  // What the form holds, as {name: [values]}.
  read() {
    const fields = {};
    this.fields.disabled = false;
    for (const [name, value] of new FormData(this.form)) (fields[name] ??= []).push(value);
    return fields;
  }

  // Of several texts of one name each gets its own, in the order in which they were read.
  restore(fields) {
    const left = {};
    for (const control of this.form.elements) {
      if (!control.name) continue;
      const values = (left[control.name] ??= [...(fields[control.name] ?? [])]);
      if (control.type === "radio" || control.type === "checkbox") control.checked = values.includes(control.value);
      else control.value = values.shift() ?? "";
    }
    this.form.dispatchEvent(new CustomEvent("restored"));
  }

  // What is changed after handing in may leave the answer handed in.
  draftSoon(keepsState = false) {
    clearTimeout(this.timer);
    this.stays = keepsState && this.state === "final" && (this.stays ?? true);
    this.unsent = true;
    this.since ??= Date.now();
    this.timer = setTimeout(() => this.draftNow(), Math.min(PAUSE, Math.max(0, this.since + LONGEST - Date.now())));
  }

  draftNow() {
    clearTimeout(this.timer);
    if (!this.unsent) return;
    this.unsent = false;
    this.since = undefined;
    this.state = this.stays ? "final" : "draft";
    outbox.put(this.question, this.read(), Boolean(this.stays), this.elapsed);
    this.stays = undefined;
    this.draw();
  }

  press() {
    if (this.alone === "kept") this.draftNow();
    else if (this.locked) {
      if (!this.open || !this.mayChange) return;
      this.changing = true;
    } else {
      clearTimeout(this.timer);
      this.unsent = false;
      this.stays = undefined;
      this.changing = false;
      this.state = "final";
      outbox.put(this.question, this.read(), true, this.elapsed);
    }
    this.draw();
  }

  // Which of two texts, this one or another window's, is the answer.
  choose(which) {
    if (which === "this") {
      this.elsewhere = false;
      outbox.insist(this.question, this.read(), outbox.pending(this.question)?.final ?? false, this.elapsed);
    } else if (which === "other") {
      outbox.drop(this.question);
      location.reload();
    }
  }

  saved(detail) {
    this.sending = detail.state === "sending";
    this.elsewhere = detail.state === "elsewhere";
    this.message = detail.message ?? null;
    if (!this.sending) this.querySelector("[data-understood]").textContent = detail.understood ?? "";
    if (detail.state === "refused") this.state = this.open ? "draft" : "refused";
    else if (detail.state === "empty") this.state = "none";
    else if (!this.sending && !this.elsewhere) this.state = detail.state;
    this.draw();
    if (!this.sending && !this.elsewhere) this.dispatchEvent(new CustomEvent("kept", { bubbles: true }));
    if (this.alone === "told" && detail.state === "final") this.dispatchEvent(new CustomEvent("told", { bubbles: true }));
    // Not for every pause in typing.
    if (!this.sending && (detail.final || this.elsewhere || detail.state === "refused"))
      say(`${this.words()} ${detail.understood ?? ""}`);
  }

  draw() {
    this.fields.disabled = this.locked;
    const change = this.state === "final" && !this.changing;
    this.button.textContent = change ? "Change my answer" : this.alone ? "Check my answer" : "Hand in";
    const had = document.activeElement === this.button;
    this.button.hidden = this.oneTouch || !this.open || this.alone === "kept" || (change && !this.mayChange);
    this.button.classList.toggle("is-primary", !change);
    this.which.hidden = !this.elsewhere || !this.open;
    const line = this.querySelector(".answer-state");
    line.textContent = this.words();
    if (had && this.button.hidden) line.focus();
    line.dataset.state = this.message ? "refused" : this.sending ? "sending" : this.state;
  }

  words() {
    if (this.elsewhere) return ELSEWHERE;
    if (this.message) return this.state === "unread" ? `Kept as you typed it. ${this.message}` : this.message;
    if (this.sending) return works ? "On this device, sending…" : "Sending… Keep this page open.";
    if (!this.open) {
      return (
        {
          none: "Answers are closed. You gave no answer.",
          unread: "Answers are closed. What you typed is kept, but it is not an answer.",
          draft: "Answers are closed. ✓ Your last answer counts.",
          final: "Answers are closed. ✓ Handed in.",
          late: "✓ Saved, but it came after answers closed.",
        }[this.state] ?? ""
      );
    }
    if (this.changing) return "Change it, then hand in again.";
    return (
      {
        none: "Not answered yet.",
        unread: "✓ Saved, but it is not a valid answer yet.",
        draft: this.alone ? "✓ Saved." : "✓ Saved. Hand in when you are ready.",
        late: "✓ Saved, but late.",
        final: this.mayChange ? "✓ Handed in. You can still change it." : "✓ Handed in.",
      }[this.state] ?? ""
    );
  }
}
customElements.define("seat-answer", SeatAnswer);
