import { anew, later, pass, requests, server } from "./device.mjs";
import { find, reloads, show } from "./page.mjs";
import assert from "node:assert/strict";
import { beforeEach, describe, it } from "node:test";

// The stream of a page, as the library that holds it tells of it.
const calls = [];
const slots = 4;
let cancelled = 0;
let every = null;
show(`<header><span class="seat-name">Ada</span></header><main id="seat" data-token="t" data-stream="/stream/seat/t"></main>
  <p class="lost" hidden></p>`);
globalThis.htmx = { ajax: async (verb, address) => calls.push([verb, address]) };
globalThis.setInterval = (work) => (every = work);
Object.assign(navigator, {
  locks: {
    request: async (name, _how, work) => work(Number(name.at(-1)) >= 4 - slots ? { name } : null),
  },
});
await import("../../assets/js/shared/line.js");
await pass();

const tell = (name, detail = {}, on = document) => on.dispatchEvent(new CustomEvent(name, { detail, bubbles: true }));
const message = (event, data) => tell("htmx:sse:after:message", { message: { event, data } });
const lost = () => !find(".lost").hidden;

describe("The line of a page", () => {
  beforeEach(() => {
    anew();
    reloads.length = 0;
    cancelled = 0;
    server(() => ({ status: 204, body: "" }));
    navigator.onLine = true;
    tell("htmx:sse:after:connection", { connection: { reader: { cancel: () => (cancelled += 1) } } });
  });

  it("is opened once, over the first slot that is free", () => assert.deepEqual(calls, [["GET", "/stream/seat/t"]]));

  it("says when it is lost, and when it is there again", () => {
    tell("htmx:sse:error", { status: 503 });
    assert.deepEqual([lost(), document.documentElement.dataset.line], [true, "lost"]);
    tell("htmx:sse:after:connection", { connection: {} });
    assert.deepEqual([lost(), document.documentElement.dataset.line], [false, "open"]);
    dispatchEvent(new Event("offline"));
    assert.equal(lost(), true);
  });

  it("is opened anew when the device is back, and when nothing was heard for longer than three heartbeats", (test) => {
    dispatchEvent(new Event("online"));
    assert.equal(cancelled, 1);
    every();
    assert.equal(cancelled, 1);
    const present = Date.now();
    test.mock.method(Date, "now", () => present + 16001);
    every();
    assert.equal(cancelled, 2);
    every();
    assert.equal(cancelled, 2); // it has been asked for
  });

  it("asks for the page where the seat is no more, once there is a line to ask over", () => {
    message("gone", ".");
    assert.equal(reloads.length, 1);
    navigator.onLine = false;
    tell("htmx:sse:error", { status: 404 });
    assert.equal(reloads.length, 1);
    dispatchEvent(new Event("online"));
    assert.equal(reloads.length, 2);
  });

  it("shows another name, and answers a heartbeat that wants it", async () => {
    message("name", "Adele");
    assert.equal(find(".seat-name").textContent, "Adele");
    message("beat", ".");
    message("beat", "?");
    await pass();
    assert.deepEqual(
      requests.map(({ address }) => address),
      ["/here/t"],
    );
  });

  it("fetches the page again two seconds after the stream has ended for good", () => {
    tell("htmx:sse:close", { reason: "ended" });
    assert.deepEqual([later.at(-1)[0], reloads.length], [2000, 0]);
    later.at(-1)[1]();
    assert.equal(reloads.length, 1);
  });
});
