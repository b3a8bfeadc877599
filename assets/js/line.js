// Watches the stream of a page: says when the line is lost, and reconnects when it has
// been silent for too long (a sleeping phone, a dead Wi-Fi) or the device is back online.
const SILENCE = 16000; // three heartbeats
let connection = null;
let heard = Date.now();

const say = (lost) => {
  const note = document.querySelector(".lost");
  if (note) note.hidden = !lost;
  document.documentElement.dataset.line = lost ? "lost" : "open";
};

const reconnect = () => connection?.reader?.cancel();

document.addEventListener("htmx:sse:after:connection", (event) => {
  connection = event.detail.connection;
  heard = Date.now();
  say(false);
});
document.addEventListener("htmx:sse:after:message", () => { heard = Date.now(); });
document.addEventListener("htmx:sse:error", () => say(true));
document.addEventListener("htmx:sse:close", (event) => {
  // The first connection failed for good only if the page was left open; ask again.
  if (event.detail.reason === "ended") setTimeout(() => location.reload(), 2000);
});
// The very first request has no retry of its own.
for (const failed of ["htmx:error", "htmx:response:error"]) {
  document.addEventListener(failed, (event) => {
    if (!event.target.hasAttribute?.("hx-sse:connect") || connection) return;
    say(true);
    setTimeout(() => location.reload(), 2000);
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
