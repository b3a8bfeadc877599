// Draws on the ink sheet with mouse, finger or pen, where the teacher may: at the Desk, on a tablet, at the board itself.
// Points go out in parts, twenty times a second at most; what can't go out now goes when the connection is back.
import "./elements/ink-sheet.js";
import { send } from "./token.js";

const EVERY = 50; // ms
const RETRY = 800;
const MOST_POINTS = 90;
const MOST_PARTS = 390;
const NEAR = 2; // units that a point is away from the one before

const queue = [];
const drawn = []; // strokes of this window, for undoing
let sending = false;
let stroke = null;
let erasing = false;
let pointed = 0;

const address = () => document.querySelector("[data-ink-send]")?.dataset.inkSend;
const tools = () => document.querySelector(".ink-tools");
const chosen = (name) => tools()?.querySelector(`[name=${name}]:checked`)?.value;
const post = (message) =>
  send(address(), { method: "POST", body: new URLSearchParams(message), headers: { "HX-Request": "true" } });
const id = () => [...crypto.getRandomValues(new Uint8Array(12))].map((byte) => byte.toString(16).padStart(2, "0")).join("");

function say(words) {
  const status = tools()?.querySelector("[role=status]");
  if (status) status.textContent = words;
}

const rest = () => new Promise((resolve) => setTimeout(resolve, RETRY));

async function pump() {
  if (sending) return;
  sending = true;
  while (queue.length) {
    try {
      const reply = await post(queue[0]);
      const signedOut = reply.status === 401;
      if (reply.status >= 500) throw new Error("later");
      if (!signedOut) queue.shift();
      say(reply.ok ? "" : new DOMParser().parseFromString(await reply.text(), "text/html").body.textContent.trim());
      if (signedOut) await rest();
    } catch {
      say("Connection lost. What you draw stays here and is sent when the connection is back.");
      await rest();
    }
  }
  sending = false;
}

function later(message) {
  queue.push(message);
  pump();
}

// Where on the sheet, in its units.
function place(sheet, event) {
  const there = new DOMPoint(event.clientX, event.clientY).matrixTransform(
    sheet.querySelector("svg.ink").getScreenCTM().inverse(),
  );
  return [Math.round(there.x), Math.round(there.y)];
}

function begin(sheet) {
  stroke = { sheet, id: id(), part: 0, points: [], last: null, colour: chosen("colour") ?? "0", width: chosen("width") ?? "0" };
  drawn.push({ page: sheet.dataset.page, id: stroke.id });
}

function part(points) {
  const { sheet, id: name, part: number, colour, width } = stroke;
  return { page: sheet.dataset.page, stroke: name, part: number, colour, width, points };
}

function flush() {
  if (!stroke?.points.length) return;
  const pairs = [];
  for (let at = 0; at < stroke.points.length; at += 2) pairs.push(`${stroke.points[at]},${stroke.points[at + 1]}`);
  later({ ...part(), points: pairs.join(" ") });
  stroke.part += 1;
  stroke.points = [];
}

function add(event) {
  const [x, y] = place(stroke.sheet, event);
  const { last } = stroke;
  if (last && Math.hypot(x - last[0], y - last[1]) < NEAR) return;
  stroke.last = [x, y];
  stroke.points.push(x, y);
  stroke.sheet.part(part(stroke.points));
  if (stroke.points.length >= MOST_POINTS * 2) flush();
  if (stroke.part >= MOST_PARTS) {
    begin(stroke.sheet);
    add(event);
  }
}

function erase(sheet, event) {
  const line = document.elementsFromPoint(event.clientX, event.clientY).find((each) => each.matches("polyline[data-stroke]"));
  if (!line) return;
  const name = line.dataset.stroke;
  sheet.erase(name);
  later({ erase: name });
}

function point(sheet, event) {
  if (Date.now() - pointed < EVERY) return;
  pointed = Date.now();
  post({ at: place(sheet, event).join(",") }).catch(() => {});
}

const sheetOf = (event) => (address() ? event.target.closest?.('ink-sheet[data-pen="true"]') : null);

document.addEventListener("pointerdown", (event) => {
  const sheet = sheetOf(event);
  if (!sheet || event.button !== 0) return;
  event.preventDefault();
  sheet.setPointerCapture(event.pointerId);
  const tool = chosen("tool");
  erasing = tool === "eraser";
  if (erasing) erase(sheet, event);
  else if (tool !== "pointer") {
    begin(sheet);
    add(event);
  }
});

document.addEventListener("pointermove", (event) => {
  const sheet = sheetOf(event);
  if (!sheet) return;
  if (chosen("tool") === "pointer") point(sheet, event);
  else if (erasing) erase(sheet, event);
  else if (stroke) for (const each of event.getCoalescedEvents?.() ?? [event]) add(each);
});

for (const ends of ["pointerup", "pointercancel"])
  document.addEventListener(ends, () => {
    flush();
    stroke = null;
    erasing = false;
  });

setInterval(flush, EVERY);

document.addEventListener("click", ({ target }) => {
  if (!target.closest?.("[data-ink-undo]")) return;
  const page = document.querySelector("ink-sheet")?.dataset.page;
  const at = drawn.map((each) => each.page).lastIndexOf(page);
  if (at < 0) return;
  const [{ id: name }] = drawn.splice(at, 1);
  for (const sheet of document.querySelectorAll("ink-sheet")) sheet.erase(name);
  later({ erase: name });
});
