// A device without a page: what scripts ask of a browser, as far as these specs go. Imported before the scripts.
class Storage {
  constructor() {
    this.items = new Map();
    this.full = false;
  }
  get length() {
    return this.items.size;
  }
  key(at) {
    return [...this.items.keys()][at] ?? null;
  }
  getItem(key) {
    return this.items.get(key) ?? null;
  }
  setItem(key, value) {
    if (this.full) throw new Error("QuotaExceededError");
    this.items.set(key, String(value));
  }
  removeItem(key) {
    this.items.delete(key);
  }
}

const page = new EventTarget();
export const localStorage = new Storage();
// What would be done after a while, by hand: [milliseconds, work].
export const later = [];
export const requests = [];
let answer = () => ({ status: 500, body: {} });

// @param reply gives {status, body} for what was sent; null: the line is away
export const server = (reply) => (answer = reply);

export const pass = async () => {
  for (let turn = 0; turn < 20; turn += 1) await new Promise((resolve) => setImmediate(resolve));
};

// Does what waits, and what comes of it.
export async function wait(most = Infinity) {
  const due = later.splice(0).filter(([after, work]) => (after <= most ? (work(), false) : true));
  later.unshift(...due);
  await pass();
}

export function anew() {
  localStorage.items.clear();
  localStorage.full = false;
  later.length = 0;
  requests.length = 0;
}

export const connection = { saveData: false };
Object.defineProperty(globalThis, "navigator", { configurable: true, value: { onLine: true, connection } });

class None {
  observe() {}
  unobserve() {}
}

Object.assign(globalThis, {
  addEventListener: page.addEventListener.bind(page),
  removeEventListener: page.removeEventListener.bind(page),
  dispatchEvent: page.dispatchEvent.bind(page),
  localStorage,
  innerWidth: 390,
  devicePixelRatio: 2,
  location: { href: "http://school/seat/x" },
  IntersectionObserver: None,
  PerformanceObserver: None,
  MutationObserver: None,
  document: { querySelector: () => null, querySelectorAll: () => [], addEventListener() {} },
  setTimeout: (work, after = 0) => later.push([after, work]),
  clearTimeout() {},
  fetch: async (address, { body, headers } = {}) => {
    const sent = body && JSON.parse(body);
    requests.push({ address, sent, headers });
    const reply = answer(sent, address);
    if (!reply) throw new TypeError("no line");
    const text = typeof reply.body === "string" ? reply.body : JSON.stringify(reply.body);
    const response = { status: reply.status, ok: reply.status < 300, json: async () => JSON.parse(text), text: async () => text };
    return Object.assign(response, { clone: () => response, headers: new Map() });
  },
});
