import "./htmx.js";
import "htmx.org/dist/ext/hx-sse.js";
import "./line.js";
import "./elements/sun-timer.js";
import "./elements/sketch-pad.js";
import "./desk.js";
import "./forms.js";
import "./fit.js";
