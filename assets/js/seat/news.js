// At a seat everything changes by itself, and whoever does not see it has to be told: what is new is
// said once; on a new slide, and when the lesson begins or ends, focus goes to the heading, which says
// where one is; and it comes back from "Eyes up" to where it was. It never falls to the page itself.
import { say } from "../shared/say.js";
import { shown } from "../shared/polyfills.js";

const seat = document.querySelector("#seat[data-token]");
let before = null;
let resting = null; // what had focus when eyes went up
let focused = null;

const present = () => {
  const { phase, slide, title, news } = seat.querySelector("#seat-now").dataset;
  return { phase, slide, title, news: JSON.parse(news), eyesUp: Boolean(seat.querySelector("#eyes-up")) };
};

function toHeading() {
  const heading = [...seat.querySelectorAll("h1")].find((each) => shown(each));
  if (!heading) return;
  heading.blur();
  heading.tabIndex = -1;
  heading.focus();
}

const lost = () => {
  const now = document.activeElement;
  return !now || now === document.body || !shown(now);
};

function follow(now, earlier) {
  if (now.slide !== earlier.slide || now.phase !== earlier.phase) {
    resting = null;
    // Who is quick may be in the new slide already.
    if (!lost() && document.activeElement.localName !== "h1") return;
    scrollTo(0, 0);
    toHeading();
  } else if (now.eyesUp && !earlier.eyesUp) {
    resting = focused;
    toHeading();
  } else if (earlier.eyesUp && !now.eyesUp) {
    if (resting?.isConnected && shown(resting) && !resting.matches(":disabled")) resting.focus();
    else toHeading();
    resting = null;
  } else if (focused && lost()) toHeading();
}

function look() {
  const now = present();
  document.title = `${now.title} · Amber Roost`;
  const began = before.phase === "lobby" && now.phase === "live" ? ["The lesson has begun."] : [];
  const fresh = now.news.filter((sentence) => now.slide !== before.slide || !before.news.includes(sentence));
  say([...began, ...fresh].join(" "));
  const last = before;
  before = now;
  // What the swap disabled or hid gives up its focus only when the page is drawn.
  requestAnimationFrame(() => requestAnimationFrame(() => follow(now, last)));
}

if (seat) {
  before = present();
  document.addEventListener("htmx:before:swap", () => {
    focused = seat.contains(document.activeElement) ? document.activeElement : null;
  });
  document.addEventListener("htmx:after:swap", look);
}
