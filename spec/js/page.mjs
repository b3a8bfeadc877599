// A page for scripts that need one: the device with a document of happy-dom's, which needs no browser.
import * as device from "./device.mjs";
import { Window } from "happy-dom";

const window = new Window({ url: "http://school/seat/x", width: 390, height: 844 });
const own = ["document", "HTMLElement", "customElements", "FormData", "Event", "EventTarget", "CustomEvent", "MutationObserver"];
for (const name of own) globalThis[name] = window[name];
globalThis.window = globalThis;
// What the window hears is sent by hand.
const heard = new window.EventTarget();
for (const name of ["addEventListener", "removeEventListener", "dispatchEvent"]) globalThis[name] = heard[name].bind(heard);
globalThis.scrollTo = () => {};
globalThis.queueMicrotask = (work) => Promise.resolve().then(work);
export const reloads = [];
globalThis.location.reload = () => reloads.push(Date.now());
globalThis.location.pathname = "/seat/x";

export const show = (html) => {
  document.body.innerHTML = html;
};
export const find = (selector) => document.querySelector(selector);
export { device };
