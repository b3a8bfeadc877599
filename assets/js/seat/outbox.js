// What a seat has to send: the newest save of each question waits on the device until the server has
// acknowledged it, across reloads and lost lines. Saving twice is saving once: every save has an id
// and a rising number. It says which window wrote it and over what, so that another window's text
// is not written over unseen; and how long the question had been here and how often it was tried,
// so that an answer given in time is not lost to a slow line.
import * as storage from "../shared/storage.js";
import * as refused from "./refused.js";
import { last, within } from "../shared/polyfills.js";

const RETRY = [500, 1000, 2000, 3000];
const PATIENCE = 8000;
const KEEPALIVE = 60000; // bytes that browsers still send when a page is left
const LEAVING = 5000; // milliseconds a page may still be there once it is being left

// What a question is called here: its slide, and which attempt at it where that isn't the first.
export const questionOf = (slide, attempt = 1) => (attempt > 1 ? `${slide}/${attempt}` : slide);

export class Outbox extends EventTarget {
  // @param address where it is sent
  // @param name of the outbox, where a seat has several
  constructor(token, { address = `/answers/${token}`, name = "outbox" } = {}) {
    super();
    this.token = token;
    this.address = address;
    this.writer = uuid();
    this.name = name;
    this.key = `roost.${name}.${token}.${this.writer}`;
    this.waiting = {};
    this.numbers = {};
    this.bases = {};
    this.failures = 0;
    // Of windows of this seat that were left, or are still open: what they send is the same save.
    this.others = storage.keys(`roost.${name}.${token}.`).map((key) => ({ key, saves: storage.get(key) ?? {} }));
    // Whatever says that the line is there again: what waits does not wait for its next turn.
    for (const sign of ["online", "roost:line"])
      addEventListener(sign, () => {
        if (this.toSend.length) this.send();
      });
    // The page that comes next may have been made before what is acknowledged now was in: it is kept for that one, which
    // sends it again. Where the page stays after all, this one does.
    addEventListener("beforeunload", () => {
      this.left = Date.now();
      setTimeout(() => this.send(), LEAVING + 1);
    });
    if (this.others.length) this.send();
  }

  // The save of this question that has not been acknowledged yet.
  pending(question) {
    const left = this.others.map(({ saves }) => saves[question]).filter(Boolean);
    return this.waiting[question] ?? last(left.sort((one, other) => one.at - other.at));
  }

  // What the window shows of a question was saved under this id.
  knows(question, saveId) {
    this.bases[question] ??= saveId ?? null;
  }

  // @param elapsed milliseconds the question had been on this device
  put(question, fields, final, elapsed) {
    const before = this.pending(question);
    this.numbers[question] = Math.max(this.numbers[question] ?? 0, before?.save_no ?? 0) + 1;
    const [slide, attempt] = question.split("/");
    this.waiting[question] = {
      slide,
      attempt: Number(attempt ?? 1),
      fields,
      final,
      elapsed,
      tries: 0,
      at: Date.now(),
      save_no: this.numbers[question],
      save_id: uuid(),
      writer: this.writer,
      over: [before?.save_id, this.bases[question]].filter(Boolean),
      held: before?.held,
    };
    this.forget(question);
    this.keep();
    if (this.waiting[question].held) this.tell(question, { state: "elsewhere", final });
    else {
      this.tell(question, { state: "sending", final });
      this.send();
    }
  }

  // Of two texts the student wants the one that is here.
  insist(question, fields, final, elapsed) {
    const { held } = this.pending(question) ?? {};
    this.drop(question);
    this.bases[question] = held;
    this.put(question, fields, final, elapsed);
  }

  // What waits for this question is wanted no more.
  drop(question) {
    delete this.waiting[question];
    this.forget(question);
    this.keep();
  }

  // What is waiting is newer than what other windows left.
  forget(question) {
    for (const { saves } of this.others) delete saves[question];
  }

  keep() {
    for (const { key, saves } of [{ key: this.key, saves: this.waiting }, ...this.others]) {
      if (Object.keys(saves).length) storage.set(key, saves);
      else storage.remove(key);
    }
  }

  get toSend() {
    return [...this.others.flatMap(({ saves }) => Object.values(saves)), ...Object.values(this.waiting)].filter(
      (save) => !save.held,
    );
  }

  async send() {
    if (this.sending) {
      this.again = true;
      return;
    }
    if (!this.toSend.length) return;
    this.sending = true;
    clearTimeout(this.timer);
    do {
      this.again = false;
      for (const save of this.toSend) {
        this.signal("sending", { final: save.final });
        const reply = await this.post(save);
        if (!reply) {
          this.wait();
          break;
        }
        this.failures = 0;
        this.settle(save, reply);
      }
    } while (this.again);
    this.sending = false;
    if (!this.toSend.length) this.signal("sent");
  }

  // Answers go before whatever else wants the line.
  signal(what, detail) {
    if (this.name === "outbox") dispatchEvent(new CustomEvent(`roost:${what}`, { detail }));
  }

  async post(save) {
    save.tries += 1;
    const { held, at, ...body } = save;
    const text = JSON.stringify(body);
    try {
      const response = await fetch(this.address, {
        method: "POST",
        body: text,
        headers: { "Content-Type": "application/json" },
        priority: "high",
        keepalive: text.length < KEEPALIVE,
        signal: within(PATIENCE),
      });
      return response.status >= 500 || response.status === 429 ? null : await response.json();
    } catch {
      return null;
    }
  }

  settle(save, reply) {
    if (Date.now() - (this.left ?? 0) < LEAVING) return;
    const question = questionOf(save.slide, save.attempt);
    const now = this.pending(question);
    const same = now?.save_id === save.save_id;
    this.numbers[question] = Math.max(this.numbers[question] ?? 0, reply.save_no ?? 0);
    if (reply.state === "behind" && save.writer !== this.writer) {
      this.drop(question); // the window that wrote it has gone on
    } else if (reply.state === "behind") {
      if (same) now.save_no = this.numbers[question] + 1;
      this.again = true;
    } else if (reply.state === "elsewhere") {
      if (now) now.held = reply.saved;
    } else {
      if (reply.state === "refused") this.refuse(question, save, reply.message);
      else {
        this.bases[question] = save.save_id;
        refused.forget(this.token, question);
      }
      if (same) this.drop(question);
    }
    this.keep();
    if (same && reply.state !== "behind") this.tell(question, { ...reply, final: save.final });
    if (!same) this.again = true;
  }

  // What the server will never take stays on the device, with the reason.
  refuse(question, save, reason) {
    if (this.name === "outbox") refused.keep(this.token, question, save, reason);
  }

  wait() {
    this.again = false;
    const delay = RETRY[Math.min(this.failures++, RETRY.length - 1)];
    this.timer = setTimeout(() => this.send(), delay);
  }

  tell(question, detail) {
    this.dispatchEvent(new CustomEvent("save", { detail: { question, ...detail } }));
  }
}

// Takes saves as the outbox does and keeps none: for the preview.
export class Rehearsal extends EventTarget {
  pending() {
    return undefined;
  }

  knows() {}

  put(question, fields, final) {
    this.dispatchEvent(new CustomEvent("save", { detail: { question, state: final ? "final" : "draft", final } }));
  }
}

// Where randomUUID is missing: pages that are not served over https.
function uuid() {
  if (crypto.randomUUID) return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6] & 0x0f) | 0x40;
  bytes[8] = (bytes[8] & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
