// Makes what is on the class screen (and its small copy at the Desk) fit: where it is
// taller than its place, the birds below it give theirs; where that is too little, the type is made
// smaller, in steps, down to a half. A slide that asks
// nothing has type as large as there is room for. Looked at again when a part grows, as a video
// does once it knows its size, and a formula once it is set.
const MOST = 2.4;
const MOST_OVER_PICTURE = 1.2; // where a picture has what the words leave
const STEP = 0.05;
const LEAST = 0.5;
const growing = new ResizeObserver(() => requestAnimationFrame(fit));

// Pictures that are asked about are as tall as there is room for, in em.
const TALLEST = 26;
const LOWEST = 4;

const wide = (part) => part.scrollWidth > part.clientWidth + 1;

function grow(stage) {
  const most = stage.querySelector(".slide.is-words.has-picture, .slide.is-full") ? MOST_OVER_PICTURE : MOST;
  for (let by = most; by >= 1; by -= 2 * STEP) {
    stage.style.setProperty("--grow", by.toFixed(2));
    const parts = [stage, ...stage.querySelectorAll(".slide-words, .slide-text > *")];
    if (fits(stage) && !parts.some(wide)) break;
  }
}

const fits = (stage) => stage.scrollHeight <= stage.clientHeight + 1;

function heighten(stage) {
  if (!stage.querySelector(".ask-sheet, .ask-options.is-pictures")) return;
  for (let tall = TALLEST; tall >= LOWEST; tall -= 0.5) {
    stage.style.setProperty("--shot", `${tall}em`);
    if (fits(stage)) break;
  }
}

function fit() {
  for (const stage of document.querySelectorAll(".screen-stage.is-plain")) grow(stage);
  for (const stage of document.querySelectorAll(
    ".screen > .screen-stage, .ink-box > .screen-stage, .mini-screen, .screen-lobby-names",
  )) {
    const screen = stage.closest(".screen");
    stage.style.fontSize = "";
    screen?.classList.remove("is-tight");
    heighten(stage);
    if (screen && !fits(stage)) {
      screen.classList.add("is-tight");
      heighten(stage);
    }
    const full = parseFloat(getComputedStyle(stage).fontSize);
    for (let share = 1 - STEP; !fits(stage) && share >= LEAST; share -= STEP) {
      stage.style.fontSize = `${full * share}px`;
    }
  }
}

function look() {
  fit();
  growing.disconnect();
  for (const part of document.querySelectorAll(".screen-stage > *")) growing.observe(part);
}

for (const event of ["htmx:after:swap", "DOMContentLoaded"]) document.addEventListener(event, look);
window.addEventListener("resize", fit);
window.addEventListener("load", fit);
document.fonts?.ready.then(fit);
