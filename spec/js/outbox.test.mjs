import { anew, later, localStorage, pass, requests, server, wait } from "./device.mjs";
import assert from "node:assert/strict";
import { beforeEach, describe, it } from "node:test";
import { Outbox, questionOf } from "../../assets/js/seat/outbox.js";
import * as refused from "../../assets/js/seat/refused.js";

const saved = (save) => ({ status: 200, body: { state: save.final ? "final" : "draft", save_no: save.save_no } });
const sent = () => requests.map(({ sent: save }) => save);
const waiting = () =>
  [...localStorage.items].filter(([key]) => key.startsWith("roost.outbox")).map(([, text]) => JSON.parse(text));

describe("The outbox of a seat", () => {
  beforeEach(anew);

  it("keeps a save on the device until the server has it, and sends the same one again over a lost line", async () => {
    server(() => null);
    const outbox = new Outbox("token");
    outbox.put("q1", { text: ["By smell"] }, true, 900);
    await pass();
    assert.deepEqual(waiting()[0].q1.fields, { text: ["By smell"] });
    await wait(500);
    server(saved);
    await wait(1000);
    assert.equal(new Set(sent().map(({ save_id: id }) => id)).size, 1);
    assert.deepEqual([sent().length, sent()[2].tries, waiting()], [3, 3, []]);
  });

  it("waits longer with each failure, three seconds at most", async () => {
    server(() => ({ status: 503, body: {} }));
    new Outbox("token").put("q1", { text: ["a"] }, false, 0);
    const delays = [];
    for (let turn = 0; turn < 6; turn += 1) {
      await pass();
      delays.push(
        later
          .filter(([after]) => after < 8000)
          .map(([after]) => after)
          .at(-1),
      ); // without the patience of a request
      await wait(3000);
    }
    assert.deepEqual(delays, [500, 1000, 2000, 3000, 3000, 3000]);
  });

  it("numbers saves upwards, and goes on from what the server says stands", async () => {
    let times = 0;
    server((save) => (times++ ? saved(save) : { status: 200, body: { state: "behind", save_no: 7 } }));
    const outbox = new Outbox("token");
    outbox.put("q1", { text: ["a"] }, false, 0);
    await pass();
    outbox.put("q1", { text: ["b"] }, false, 0);
    await pass();
    assert.deepEqual(
      sent().map(({ save_no: number }) => number),
      [1, 8, 9],
    );
  });

  it("says over which save it was written", async () => {
    server(saved);
    const outbox = new Outbox("token");
    outbox.knows("q1", "stored");
    outbox.put("q1", { text: ["a"] }, false, 0);
    await pass();
    outbox.put("q1", { text: ["b"] }, false, 0);
    await pass();
    assert.deepEqual(
      sent().map(({ over }) => over),
      [["stored"], [sent()[0].save_id]],
    );
  });

  it("holds what another window was faster than, until the student insists", async () => {
    server(() => ({ status: 200, body: { state: "elsewhere", saved: "theirs", save_no: 4 } }));
    const outbox = new Outbox("token");
    const states = [];
    outbox.addEventListener("save", ({ detail }) => states.push(detail.state));
    outbox.put("q1", { text: ["mine"] }, false, 0);
    await pass();
    outbox.put("q1", { text: ["mine still"] }, false, 0);
    await pass();
    assert.deepEqual([requests.length, outbox.pending("q1").held, states.at(-1)], [1, "theirs", "elsewhere"]);
    server(saved);
    outbox.insist("q1", { text: ["mine"] }, true, 0);
    await pass();
    assert.deepEqual([sent()[1].over, sent()[1].final, waiting()], [["theirs"], true, []]);
  });

  it("sends what a window that was closed had left, once, as it was", async () => {
    server(() => null);
    new Outbox("token").put("q1", { text: ["left"] }, true, 0);
    await pass();
    const [first] = sent();
    server(saved);
    const next = new Outbox("token");
    assert.deepEqual(next.pending("q1").fields, { text: ["left"] });
    await pass();
    assert.deepEqual([sent().at(-1).save_id, sent().at(-1).writer, waiting()], [first.save_id, first.writer, []]);
  });

  it("keeps what the server never takes, with the reason", async () => {
    server(() => ({ status: 422, body: { state: "refused", message: "Too long." } }));
    new Outbox("token").put("q1", { text: ["much"], drawn: ["[1]"] }, true, 0);
    await pass();
    const [kept] = Object.values(refused.all("token"));
    assert.deepEqual([kept.reason, refused.words(kept.fields), waiting()], ["Too long.", "much", []]);
  });

  it("works where nothing can be kept", async () => {
    localStorage.full = true;
    server(saved);
    const outbox = new Outbox("token");
    outbox.put("q1", { text: ["a"] }, true, 0);
    await pass();
    assert.deepEqual([requests.length, outbox.pending("q1")], [1, undefined]);
  });

  it("keeps attempts at one question apart", async () => {
    server(saved);
    const outbox = new Outbox("token");
    for (const attempt of [1, 2]) outbox.put(questionOf("q1", attempt), { text: [`${attempt}`] }, true, 0);
    await pass();
    assert.deepEqual(
      sent().map(({ slide, attempt, fields }) => [slide, attempt, fields.text[0]]),
      [
        ["q1", 1, "1"],
        ["q1", 2, "2"],
      ],
    );
  });
});
