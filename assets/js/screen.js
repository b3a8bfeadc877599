import "htmx.org/dist/htmx.js";
import "htmx.org/dist/ext/hx-sse.js";
import "./line.js";
import "./elements/sun-timer.js";
