// What a seat has to send: the newest save of each slide waits in localStorage until the
// server has acknowledged it, across reloads and lost lines. Saving twice is saving once:
// every save has an id and a rising number.
const RETRY = [500, 1000, 2000, 3000];

export class Outbox extends EventTarget {
  constructor(token) {
    super();
    this.token = token;
    this.key = `roost.outbox.${token}`;
    this.numbers = {};
    this.failures = 0;
    window.addEventListener("online", () => this.send());
    if (Object.keys(this.waiting).length) this.send();
  }

  get waiting() {
    if (this.memory) return this.memory;
    try { return JSON.parse(localStorage.getItem(this.key)) ?? {}; } catch { return {}; }
  }

  keep(waiting) {
    this.memory = waiting; // where storage is switched off or full, at least until a reload
    try { localStorage.setItem(this.key, JSON.stringify(waiting)); } catch { localStorage.removeItem?.(this.key); }
  }

  // The save of this slide that has not been acknowledged yet.
  pending(slide) {
    return this.waiting[slide];
  }

  put(slide, fields, final) {
    const waiting = this.waiting;
    const number = Math.max(this.numbers[slide] ?? 0, waiting[slide]?.save_no ?? 0) + 1;
    this.numbers[slide] = number;
    waiting[slide] = { slide, fields, final, save_no: number, save_id: crypto.randomUUID?.() ?? uuid() };
    this.keep(waiting);
    this.tell(slide, { state: "sending", final });
    this.send();
  }

  async send() {
    if (this.sending) { this.again = true; return; }
    this.sending = true;
    clearTimeout(this.timer);
    do {
      this.again = false;
      for (const save of Object.values(this.waiting)) {
        const reply = await this.post(save);
        if (!reply) { this.wait(); break; }
        this.failures = 0;
        this.settle(save, reply);
      }
    } while (this.again);
    this.sending = false;
  }

  async post(save) {
    try {
      const response = await fetch(`/answers/${this.token}`, {
        method: "POST", body: JSON.stringify(save), headers: { "Content-Type": "application/json" },
        signal: AbortSignal.timeout(8000),
      });
      return response.status >= 500 || response.status === 429 ? null : await response.json();
    } catch { return null; }
  }

  settle(save, reply) {
    const waiting = this.waiting;
    const same = waiting[save.slide]?.save_id === save.save_id;
    this.numbers[save.slide] = Math.max(this.numbers[save.slide] ?? 0, reply.save_no ?? 0);
    if (reply.state === "behind") {
      if (same) waiting[save.slide].save_no = this.numbers[save.slide] + 1;
      this.again = true;
    } else if (same) {
      delete waiting[save.slide];
    }
    this.keep(waiting);
    if (same && reply.state !== "behind") this.tell(save.slide, { ...reply, final: save.final });
    if (!same) this.again = true;
  }

  wait() {
    this.again = false;
    const delay = RETRY[Math.min(this.failures++, RETRY.length - 1)];
    this.timer = setTimeout(() => this.send(), delay);
  }

  tell(slide, detail) {
    this.dispatchEvent(new CustomEvent("save", { detail: { slide, ...detail } }));
  }
}

// Takes saves as the outbox does and keeps none: for the preview.
export class Rehearsal extends EventTarget {
  pending() { return undefined; }

  put(slide, fields, final) {
    this.dispatchEvent(new CustomEvent("save", { detail: { slide, state: final ? "final" : "draft", final } }));
  }
}

// Where randomUUID is missing: pages that are not served over https.
function uuid() {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6] & 0x0f) | 0x40;
  bytes[8] = (bytes[8] & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
