import "./htmx.js";
import "htmx.org/dist/ext/hx-sse.js";
import "./line.js";
import "./elements/sun-timer.js";
import "./elements/tex-formula.js";
import "./fit.js";
import "./sounds.js";
import "./pen.js";
