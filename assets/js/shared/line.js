// Opens the stream of a page and watches it: says when the line is lost, and reconnects
// when it has been silent for too long (a sleeping phone, a dead Wi-Fi) or the device is
// back online.
//
// A browser opens six connections a host, and streams keep theirs. So at most four windows
// of one browser hold a stream; a further one fetches its page every two seconds until
// another window is closed.
import { within } from "./polyfills.js";

const SLOTS = 4;
const POLL = 2000;
const SILENCE = 16000; // three heartbeats
const live = document.querySelector("[data-stream]");
let connection = null;
let heard = Date.now();

const say = (lost) => {
  const note = document.querySelector(".lost");
  if (note) note.hidden = !lost;
  document.documentElement.dataset.line = lost ? "lost" : "open";
};

// Fetches the page again, as soon as there is a line to fetch it over.
const fetchPage = () => {
  if (navigator.onLine) location.reload();
  else window.addEventListener("online", () => location.reload(), { once: true });
};

// Whether the lock was free; then it is kept until the window goes.
const take = (name) =>
  new Promise((resolve, reject) => {
    navigator.locks // eslint-disable-line compat/compat -- allowed() asks whether they are there
      .request(name, { ifAvailable: true }, (lock) => {
        resolve(Boolean(lock));
        return lock && new Promise(() => {});
      })
      .catch(reject);
  });

// There are no locks where the page is not served securely, or storage is switched off; then
// every window takes a stream.
async function allowed() {
  if (!navigator.locks) return true;
  try {
    for (let slot = 0; slot < SLOTS; slot += 1) if (await take(`roost.stream.${slot}`)) return true;
    return false;
  } catch {
    return true;
  }
}

function connect() {
  live.setAttribute("hx-sse:connect", live.dataset.stream);
  window.htmx.ajax("GET", live.dataset.stream, { source: live, timeout: 5000 });
}

async function begin() {
  if (await allowed()) {
    connect();
    return;
  }
  document.documentElement.dataset.line = "polled";
  if (!document.hidden) {
    await window.htmx.ajax("GET", location.pathname, { target: live, swap: "outerMorph", select: `#${live.id}` }).catch(() => {});
  }
  setTimeout(begin, POLL);
}

const reconnect = () => connection?.reader?.cancel();

document.addEventListener("htmx:sse:after:connection", (event) => {
  connection = event.detail.connection;
  heard = Date.now();
  say(false);
});
document.addEventListener("htmx:sse:after:message", ({ detail: { message } }) => {
  heard = Date.now();
  dispatchEvent(new Event("roost:line"));
  // The teacher has taken this seat out.
  if (message.event === "gone") fetchPage();
  // What the teacher's pen draws.
  if (message.event === "ink") document.dispatchEvent(new CustomEvent("roost:ink", { detail: JSON.parse(message.data) }));
  // What it is called, or is called now.
  if (message.event === "name") document.querySelector(".seat-name").textContent = message.data;
  // The server wants to know how good the line is.
  if (message.event === "beat" && message.data === "?" && live.dataset.token) {
    fetch(`/here/${live.dataset.token}`, { method: "POST", signal: within(15000) }).catch(() => {});
  }
});
document.addEventListener("htmx:sse:error", ({ detail: { status } }) => {
  // It listens here no more: a seat taken out, a teacher signed out while the line was away. The page says which.
  if (status === 404) fetchPage();
  else say(true);
});
document.addEventListener("htmx:sse:close", (event) => {
  // The first connection failed for good only if the page was left open; ask again.
  if (event.detail.reason === "ended") setTimeout(fetchPage, 2000);
});
// The very first request has no retry of its own.
for (const failed of ["htmx:error", "htmx:response:error"]) {
  document.addEventListener(failed, (event) => {
    if (event.target !== live || connection) return;
    say(true);
    setTimeout(fetchPage, 2000);
  });
}
window.addEventListener("online", reconnect);
window.addEventListener("offline", () => say(true));
setInterval(() => {
  if (connection && !document.hidden && Date.now() - heard > SILENCE) {
    heard = Date.now();
    reconnect();
  }
}, 2000);

if (live) begin();
