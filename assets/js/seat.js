import "./htmx.js";
import "htmx.org/dist/ext/hx-sse.js";
import "./line.js";
import "./elements/sun-timer.js";
import "./elements/seat-answer.js";
import "./elements/seat-memory.js";
import "./elements/sketch-pad.js";
