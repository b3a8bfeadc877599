// Extensions of htmx look for it in the window.
import htmx from "htmx.org/dist/htmx.esm.js";
window.htmx = htmx;
