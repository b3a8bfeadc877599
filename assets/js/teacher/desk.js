// The Desk: buttons that give commands, and keys that press buttons. A command says
// where to get to, or after what (data-after), so one that arrives twice does its work once; beyond
// that, a second click within half a second is taken for the first.
import "./elements/plan-drift.js";
import { pressed } from "./keys.js";
import { send } from "../shared/token.js";
import { closeDialog, openDialog } from "./dialogs.js";

const REST = 500;
const PATIENCE = 5000;
let last = { what: "", at: 0 };

const show = (html) => {
  const place = document.querySelector("#desk-refusal");
  place.innerHTML = html;
  if (html)
    setTimeout(() => {
      if (place.innerHTML === html) place.innerHTML = "";
    }, 6000);
};

const lost = () => {
  const note = document.createElement("p");
  note.className = "refusal";
  note.textContent = "That didn't get through. Check the connection and press again.";
  return note.outerHTML;
};

async function give(command) {
  const kind = JSON.stringify({ ...command, from: "" });
  if (last.what === kind && Date.now() - last.at < REST) return;
  last = { what: kind, at: Date.now() };
  try {
    const reply = await send(document.querySelector("#desk").dataset.commands, {
      method: "POST",
      body: new URLSearchParams(command),
      headers: { "HX-Request": "true" },
    });
    show(reply.ok ? "" : await reply.text());
    look();
    if (reply.ok && command.command === "begin") follow();
  } catch {
    show(lost());
  }
}

// Where the button that was pressed is gone with what it did, focus goes to what stands there now.
function follow() {
  const live = document.querySelector("#desk");
  const go = () => {
    const title = live.querySelector("h1.desk-title");
    if (!title || document.activeElement !== document.body) return;
    title.tabIndex = -1;
    title.focus();
    watch.disconnect();
  };
  const watch = new MutationObserver(go);
  watch.observe(live, { subtree: true, childList: true, attributes: true });
  // What the command did may have come before its reply.
  go();
  setTimeout(() => watch.disconnect(), PATIENCE);
}

function commandOf({ dataset: { command, after } }) {
  const now = after && { after: document.querySelector(".desk-live").dataset[after] };
  return { ...JSON.parse(command), ...now };
}

document.addEventListener("click", (event) => {
  const button = event.target.closest("[data-command]");
  if (button && (!button.dataset.confirm || window.confirm(button.dataset.confirm))) give(commandOf(button));
  const opener = event.target.closest("[data-opens]");
  if (opener) open(document.getElementById(opener.dataset.opens));
});

// A word in the cloud opens its row: who said it, and what can be done with it.
document.addEventListener("click", (event) => {
  const word = event.target.closest?.("[data-word]")?.dataset.word;
  const row = word && document.querySelector(`[data-word-row="${CSS.escape(word)}"]`);
  if (!row) return;
  row.open = true;
  row.scrollIntoView({ block: "nearest" });
  row.querySelector("summary").focus();
});

function open(dialog) {
  const from = dialog.querySelector("[data-from]");
  if (from) from.value = document.querySelector(".desk-live").dataset.slide;
  // What was in it last time belongs to another student, or another question.
  dialog.querySelector("[data-fetched]")?.replaceChildren();
  openDialog(dialog);
  look();
}

// What may change meanwhile is looked at again while it is open, unless a choice is being made in it.
const LOOK = 3000;
const CHOOSING = ["input", "select", "textarea"].map((name) => `${name}:focus`).join();
function look() {
  for (const part of document.querySelectorAll("dialog[open] [data-looks]"))
    if (!part.querySelector(CHOOSING)) part.dispatchEvent(new Event("look"));
}
setInterval(look, LOOK);

document.addEventListener("htmx:after:request", (event) => {
  const form = event.target.closest?.("form[data-closes]");
  if (!form || event.detail.ctx.response.status >= 400) return;
  form.reset();
  closeDialog(form.closest("dialog"));
});

document.addEventListener("keydown", (event) => {
  const button = document.querySelector("#desk") && pressed(event);
  if (!button) return;
  event.preventDefault();
  if (button.dataset.goes) document.querySelector(button.dataset.goes)?.focus();
  else button.click();
});

// Who works with the mouse goes on with keys: a button that was clicked does not keep them to itself.
document.addEventListener("click", ({ target, detail }) => {
  const button = detail > 0 && target.closest?.("#desk button");
  if (button) button.blur();
});
