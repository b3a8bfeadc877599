import "../shared/htmx.js";
import "htmx.org/dist/ext/hx-sse.js";
import "../shared/line.js";
import "./pictures.js";
import "./news.js";
import "./away.js";
import "./enlarge.js";
import "../shared/sounds.js";
import "../shared/print.js";
import "../shared/pass-on.js";
import "../shared/elements/ink-sheet.js";
import "../shared/fit.js";
import "../shared/elements/sun-timer.js";
import "../shared/elements/tex-formula.js";
import "../shared/elements/picture-series.js";
import "./elements/seat-answer.js";
import "./elements/seat-sitting.js";
import "./elements/time-left.js";
import "./elements/points-why.js";
import "./elements/refused-texts.js";
import "./elements/still-here.js";
import "./elements/own-notes.js";
import "./elements/seat-memory.js";
import "answering";

// Once everything else is here (worker.js).
const AFTER = 3000;
if (document.querySelector("[data-token]") && navigator.serviceWorker) {
  setTimeout(() => navigator.serviceWorker.register("/seat/worker.js").catch(() => {}), AFTER);
}
