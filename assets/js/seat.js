import "./htmx.js";
import "htmx.org/dist/ext/hx-sse.js";
import "./line.js";
import "./pictures.js";
import "./news.js";
import "./away.js";
import "./print.js";
import "./pass-on.js";
import "./elements/ink-sheet.js";
import "./fit.js";
import "./elements/sun-timer.js";
import "./elements/tex-formula.js";
import "./elements/picture-series.js";
import "./elements/seat-answer.js";
import "./elements/seat-sitting.js";
import "./elements/time-left.js";
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
