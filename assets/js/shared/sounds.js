// Short sounds of a game round, made here: nothing is fetched, and nothing is heard unless the page has a cue. Each cue is heard
// once; the one that is there when the page comes is not.

// Notes in hertz, one after the other; seconds each.
const SOUNDS = {
  begin: [[262, 330], 0.16],
  open: [[392, 523], 0.1],
  close: [[392, 294], 0.12],
  step: [[440], 0.08],
  over: [[330, 440, 554], 0.16],
};
const LOUD = 0.12;
// Older phones have it under its first name; one that has neither stays silent.
const { AudioContext: Context = window.webkitAudioContext } = window;
let context = null;
let last = null;

function play([notes, seconds]) {
  if (!Context) return;
  context ??= new Context();
  if (context.state !== "running") return;
  notes.forEach((hertz, place) => {
    const tone = context.createOscillator();
    const volume = context.createGain();
    const from = context.currentTime + place * seconds;
    tone.type = "sine";
    tone.frequency.value = hertz;
    volume.gain.setValueAtTime(0, from);
    volume.gain.linearRampToValueAtTime(LOUD, from + 0.02);
    volume.gain.linearRampToValueAtTime(0, from + seconds);
    tone.connect(volume).connect(context.destination);
    tone.start(from);
    tone.stop(from + seconds);
  });
}

function look() {
  const cue = document.querySelector("[data-cue]");
  const id = cue?.dataset.cue ?? "";
  if (last !== null && id && id !== last) {
    document.documentElement.dataset.heard = cue.dataset.sound;
    play(SOUNDS[cue.dataset.sound]);
  }
  last = id;
}

// Browsers let a page be heard once somebody has touched it.
for (const event of ["pointerdown", "keydown"]) {
  addEventListener(event, () => {
    if (Context && document.querySelector("[data-cue]")) (context ??= new Context()).resume();
  });
}
document.addEventListener("htmx:after:swap", look);
look();
