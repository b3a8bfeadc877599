// Tells when this window goes to the background and when it is back, so that the teacher sees who is away.
const token = document.querySelector("[data-token]")?.dataset.token;
const tell = () => navigator.sendBeacon(`/here/${token}/${document.hidden ? "away" : "back"}`);

if (token && navigator.sendBeacon) {
  document.addEventListener("visibilitychange", tell);
  // A line that is new counts as being here.
  document.addEventListener("htmx:sse:after:connection", () => document.hidden && tell());
}
