// Pictures of a seat wait for their turn: two at a time, those that can be seen first, none
// while an answer waits to be sent, and none of a slide that has been left. Where the line is
// slow a small one comes first and the fitting one when nothing else is going on; then what the
// next slide will show. The page holds data-src and data-widths (see lib/roost/web/rendering/queued.rb).
import htmx from "htmx.org/dist/htmx.esm.js";
import { last } from "../shared/polyfills.js";

const AT_A_TIME = 2;
const SLOW = 150; // kB/s
const NEAR = "600px"; // below the screen
const SHARPEST = 2; // pixels of a picture to a pixel of the page
// What is shown is fetched before what is made sharper, and that before what comes next.
const FIRST = 0,
  SHARPER = 1,
  AHEAD = 2;

const jobs = new Map(); // element to {address, better, urgency, loader}
const shown = new WeakMap(); // element to {of: its data-src, address}
const fetched = new Set(); // addresses
let holding = false;
let pace = null; // kB/s, as far as it is known

const watch = new IntersectionObserver(
  (entries) => {
    for (const { target, isIntersecting } of entries) {
      if (!isIntersecting) continue;
      watch.unobserve(target);
      ask(target);
    }
  },
  { rootMargin: NEAR },
);

// The attribute that shows a picture.
const attribute = (element) => (element.localName === "image" ? "href" : "src");

// How many kilobytes a second come at best, of files that say something about it.
new PerformanceObserver((list) => {
  for (const entry of list.getEntries()) {
    const time = entry.responseEnd - entry.responseStart;
    if (entry.transferSize > 8000 && time > 0) pace = Math.max(pace ?? 0, entry.encodedBodySize / time);
  }
}).observe({ type: "resource", buffered: true });

function sizes(element) {
  const widths = element.dataset.widths?.split(" ").filter(Boolean).map(Number) ?? [];
  const address = (width) => `${element.dataset.src}.${width}.webp`;
  if (!widths.length) return { first: element.dataset.src };
  const wanted = (element.getBoundingClientRect().width || innerWidth) * Math.min(devicePixelRatio, SHARPEST);
  const fitting = widths.find((width) => width >= wanted * 0.85) ?? last(widths);
  const spare = navigator.connection?.saveData; // eslint-disable-line compat/compat -- where it is known
  const slow = pace === null || pace < SLOW || spare;
  const first = slow ? widths[0] : fitting;
  return { first: address(first), better: fitting > first && !spare ? address(fitting) : null };
}

// The address that fits this device, of an element that may stand in no page yet.
export const addressFor = (element) => sizes(element).better ?? sizes(element).first;

function ask(element) {
  if (!element.isConnected || !element.dataset.src) return;
  const { first, better } = sizes(element);
  const ahead = "ahead" in element.dataset;
  if (ahead && fetched.has(first)) return;
  jobs.set(element, { address: first, better: ahead ? null : better, urgency: ahead ? AHEAD : FIRST, of: element.dataset.src });
  go();
}

function drop(element) {
  jobs.get(element)?.loader?.removeAttribute("src");
  jobs.delete(element);
}

const running = () => [...jobs.values()].filter((job) => job.loader).length;

function go() {
  for (const [element, job] of jobs) if (!element.isConnected || element.dataset.src !== job.of) drop(element);
  if (holding) return;
  const waiting = [...jobs].filter(([, job]) => !job.loader).sort(([, one], [, other]) => one.urgency - other.urgency);
  for (const [element, job] of waiting) {
    const busy = running();
    // One after the other what is only nice to have, so that something needed has room.
    if (busy >= (job.urgency === FIRST ? AT_A_TIME : 1)) return;
    start(element, job);
  }
}

function start(element, job) {
  const loader = new Image();
  job.loader = loader;
  if (job.urgency !== FIRST) loader.fetchPriority = "low";
  loader.onload = () => {
    if (jobs.get(element) === job) came(element, job);
  };
  loader.onerror = () => {
    if (jobs.get(element) !== job || !loader.hasAttribute("src")) return;
    jobs.delete(element);
    // A browser without this format, or a size that could not be had: the picture itself.
    if (job.address !== job.of) jobs.set(element, { ...job, address: job.of, better: null, loader: null });
    go();
  };
  loader.src = job.address;
}

function came(element, job) {
  jobs.delete(element);
  fetched.add(job.address);
  if (job.urgency !== AHEAD) {
    shown.set(element, { of: job.of, address: job.address });
    element.setAttribute(attribute(element), job.address);
  }
  if (job.better && !fetched.has(job.better))
    jobs.set(element, { ...job, address: job.better, better: null, urgency: SHARPER, loader: null });
  else if (job.better) jobs.set(element, { ...job, address: job.better, better: null, loader: null });
  go();
}

// While an answer is on its way nothing new is begun, and what is on its way gives up its room
// when the answer is handed in.
addEventListener("roost:sending", ({ detail: { final } }) => {
  holding = true;
  if (!final) return;
  for (const job of jobs.values()) {
    job.loader?.removeAttribute("src");
    job.loader = null;
  }
});
addEventListener("roost:sent", () => {
  holding = false;
  go();
});

// An empty picture of the same shape keeps the place of one that has not come yet.
function keepPlace(element) {
  const [width, height] = ["width", "height"].map((side) => element.getAttribute(side) ?? 1);
  if (element.localName === "img")
    element.src = `data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='${width}' height='${height}'/%3E`;
}

function look(root) {
  for (const element of root.querySelectorAll("[data-src]")) {
    if (shown.get(element)?.of === element.dataset.src || jobs.get(element)?.of === element.dataset.src) continue;
    if ("ahead" in element.dataset) ask(element);
    else {
      keepPlace(element);
      watch.observe(element);
    }
  }
  go();
}

// What has come stays when the page is brought up to date around it.
htmx.registerExtension("queued-pictures", {
  htmx_before_morph_attr: (element, { attrName }) => !("src" in element.dataset && attrName === attribute(element)),
});

const seat = document.querySelector("#seat, #alone, #copy");
if (seat) {
  new MutationObserver(() => look(seat)).observe(seat, {
    subtree: true,
    childList: true,
    attributes: true,
    attributeFilter: ["data-src"],
  });
  look(seat);
}
