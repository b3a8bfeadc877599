import { anew, connection, localStorage, pass, requests, server, wait } from "./device.mjs";
import assert from "node:assert/strict";
import { beforeEach, describe, it } from "node:test";
import { Ahead } from "../../assets/js/seat/ahead.js";
import { addressFor } from "../../assets/js/seat/pictures.js";
import * as refused from "../../assets/js/seat/refused.js";
import { last, spliced } from "../../assets/js/shared/polyfills.js";
import * as storage from "../../assets/js/shared/storage.js";

beforeEach(anew);

describe("What a page keeps", () => {
  it("is there as long as the page is, where the device is full", () => {
    localStorage.full = true;
    assert.equal(storage.set("roost.a", { b: 1 }), false);
    assert.deepEqual(storage.get("roost.a"), { b: 1 });
    storage.remove("roost.a");
    assert.equal(storage.get("roost.a"), null);
  });

  it("is nothing where something else stands there", () => {
    localStorage.items.set("roost.a", "{");
    assert.equal(storage.get("roost.a"), null);
  });

  it("is of refused texts the last forty", () => {
    for (let at = 0; at < 45; at += 1) refused.keep("t", `q${at}`, { slide: `q${at}`, fields: { text: [`${at}`] } }, "No.");
    assert.deepEqual([Object.keys(refused.all("t")).length, "q4" in refused.all("t")], [40, false]);
    refused.forget("t", "q44");
    assert.equal(Object.keys(refused.all("t")).length, 39);
  });
});

describe("Slides that are fetched ahead", () => {
  it("are the next ones, one after the other, and none is kept where there is nothing to keep", async () => {
    server((_, address) => (address.endsWith("/3") ? { status: 204, body: "" } : { status: 200, body: "<p>A slide</p>" }));
    globalThis.DOMParser = class {
      parseFromString() {
        return { querySelectorAll: () => [] };
      }
    };
    const ahead = new Ahead("/sitting/x");
    ahead.look([1, 2, 3, 4], 1);
    for (let turn = 0; turn < 6; turn += 1) {
      await pass();
      await wait();
    }
    assert.deepEqual(
      requests.map(({ address }) => address),
      ["/sitting/x/slides/2", "/sitting/x/slides/1", "/sitting/x/slides/3"],
    );
    assert.deepEqual([...ahead.kept.keys()].sort(), [1, 2]);
  });
});

describe("The address of a picture", () => {
  const picture = (width) => ({
    dataset: { src: "/media/a.jpg", widths: "480 960 1600" },
    getBoundingClientRect: () => ({ width }),
  });

  it("is of the width that fits, at two pixels to one of the page", () => {
    assert.deepEqual(
      [100, 390, 600, 3000].map((width) => addressFor(picture(width)).match(/\d+(?=\.webp)/)[0]),
      ["480", "960", "1600", "1600"],
    );
  });

  it("is the smallest where the device is to save data", () => {
    connection.saveData = true;
    assert.match(addressFor(picture(3000)), /480/);
    connection.saveData = false;
  });

  it("is the picture itself where it has no others", () => {
    assert.equal(addressFor({ dataset: { src: "/media/a.svg" } }), "/media/a.svg");
  });
});

describe("What old browsers lack", () => {
  it("does what theirs would", () => {
    assert.deepEqual([last([1, 2, 3]), last([1, 2, 3], 1), last([])], [3, 2, undefined]);
    assert.deepEqual(spliced([1, 2, 3], 1, 1, 8, 9), [1, 8, 9, 3]);
  });
});
