// Makes what is on the class screen (and its small copy at the Desk) fit: where it is
// taller than its place, the type is made smaller, in steps, down to a half. Looked at again
// when a part grows, as a video does once it knows its size, and a formula once it is set.
const STEP = 0.05;
const LEAST = 0.5;
const growing = new ResizeObserver(() => requestAnimationFrame(fit));

function fit() {
  for (const stage of document.querySelectorAll(".screen > .screen-stage, .mini-screen")) {
    stage.style.fontSize = "";
    const full = parseFloat(getComputedStyle(stage).fontSize);
    for (let share = 1 - STEP; stage.scrollHeight > stage.clientHeight + 1 && share >= LEAST; share -= STEP) {
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
