import { anew, later, pass, requests, server, wait } from "./device.mjs";
import { find, reloads, show } from "./page.mjs";
import assert from "node:assert/strict";
import { beforeEach, describe, it } from "node:test";
import "../../assets/js/seat/elements/seat-answer.js";

const taken = (save) => ({ status: 200, body: { state: save.final ? "final" : "draft", save_no: save.save_no } });
let question = 0;

// Each of another slide: the window has one outbox.
const ask = async (more = {}) => {
  const said = { slide: `q${(question += 1)}`, attempt: 1, open: true, "may-change": true, ...more };
  const data = Object.entries(said).map(([name, value]) => `data-${name}='${value}'`);
  show(`<main data-token="t"><seat-answer ${data.join(" ")}><form><fieldset><input name="text"></fieldset>
    <div class="answer-bar"><button data-hand-in>Hand in</button><p class="answer-state" tabindex="-1"></p>
    <p data-understood></p></div></form></seat-answer></main>`);
  await pass();
  return find("seat-answer");
};
const type = (text) => {
  find("[name=text]").value = text;
  find("[name=text]").dispatchEvent(new Event("input", { bubbles: true }));
};
const handIn = () => find("form").dispatchEvent(new Event("submit", { cancelable: true }));
const says = () => find(".answer-state").textContent;
const sent = () => requests.map(({ sent: save }) => [save.fields.text[0], save.final]);

describe("The answer at a seat", () => {
  beforeEach(async () => {
    anew();
    reloads.length = 0;
    server(taken);
    await pass();
  });

  it("is saved while it is written, half a second after the last letter, and says so", async () => {
    await ask();
    assert.equal(says(), "Not answered yet.");
    type("By the");
    type("By the stars");
    assert.deepEqual(sent(), []);
    assert.equal(later.at(-1)[0] <= 500, true);
    await wait(500);
    assert.deepEqual(sent(), [["By the stars", false]]);
    assert.equal(says(), "✓ Saved. Hand in when you are ready.");
  });

  it("is handed in as it stands, once, and can be changed", async () => {
    await ask();
    type("By smell");
    handIn();
    assert.equal(says(), "On this device, sending…");
    await pass();
    await wait(500);
    assert.deepEqual(sent(), [["By smell", true]]);
    assert.equal(says(), "✓ Handed in. You can still change it.");
    assert.equal(find("fieldset").disabled, true);
    handIn();
    assert.deepEqual([find("fieldset").disabled, says()], [false, "Change it, then hand in again."]);
    type("By the stars");
    handIn();
    await pass();
    assert.deepEqual(sent().at(-1), ["By the stars", true]);
  });

  it("can't be changed where that isn't allowed", async () => {
    await ask({ "may-change": false });
    type("By smell");
    handIn();
    await pass();
    assert.deepEqual([says(), find("[data-hand-in]").hidden], ["✓ Handed in.", true]);
    handIn();
    assert.equal(find("fieldset").disabled, true);
  });

  it("says on the device that it waits there, until the line is back", async () => {
    server(() => null);
    await ask();
    type("By smell");
    handIn();
    await pass();
    assert.equal(says(), "On this device, sending…");
    server(taken);
    dispatchEvent(new Event("online"));
    await pass();
    assert.equal(says(), "✓ Handed in. You can still change it.");
  });

  it("sends what was written last when the question closes or the page is put away", async () => {
    const seat = await ask();
    type("By smell");
    seat.dataset.open = "false";
    await pass();
    assert.deepEqual(sent(), [["By smell", false]]);
    assert.equal(says(), "Answers are closed. ✓ Your last answer counts.");
    await ask();
    type("By the stars");
    dispatchEvent(new Event("pagehide"));
    await pass();
    assert.deepEqual(sent().at(-1), ["By the stars", false]);
  });

  it("says what the server said of one that is not accepted, and lets it be written anew", async () => {
    server(() => ({ status: 422, body: { state: "refused", message: "That is too long." } }));
    await ask();
    type("x");
    handIn();
    await pass();
    assert.deepEqual([says(), find("fieldset").disabled], ["That is too long.", false]);
  });

  it("has what was saved, and says of each how it stands", async () => {
    const words = { draft: "✓ Saved. Hand in when you are ready.", final: "✓ Handed in. You can still change it." };
    for (const [state, said] of Object.entries(words)) {
      await ask({ stored: state });
      assert.equal(says(), said);
    }
    await ask({ open: false });
    assert.equal(says(), "Answers are closed. You gave no answer.");
    await ask({ open: false, stored: "late" });
    assert.equal(says(), "✓ Saved, but it came after answers closed.");
  });

  it("asks which counts where another window wrote something else", async () => {
    server((save) => ({ status: 200, body: { state: "elsewhere", save_no: save.save_no } }));
    await ask();
    type("Here");
    await wait(500);
    assert.match(says(), /^In another window/);
    assert.equal(find(".answer-which").hidden, false);
    find("[data-keep=other]").click();
    assert.equal(reloads.length, 1);
  });

  it("is kept while one goes through questions alone, and handed in at the end", async () => {
    await ask({ alone: "kept" });
    type("Alone");
    await wait(500);
    assert.deepEqual([says(), find("[data-hand-in]").hidden, sent()], ["✓ Saved.", true, [["Alone", false]]]);
  });
});
