import "./page.mjs";
import { words } from "../../assets/js/teacher/elements/plan-drift.js";
import assert from "node:assert/strict";
import { describe, it } from "node:test";

describe("the lesson beside its plan", () => {
  it("says nothing while a slide is up when it was meant to be, and for less than a minute", () => {
    assert.equal(words(100, 60, 180), "");
    assert.equal(words(239, 60, 180), "");
    assert.equal(words(1, 60, 180), "");
  });

  it("says whole minutes behind and ahead", () => {
    assert.equal(words(240, 60, 180), "+1 min");
    assert.equal(words(900, 60, 180), "+12 min");
    assert.equal(words(0, 600, 660), "−10 min");
  });
});
