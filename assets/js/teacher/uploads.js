// Files on their way: pictures are made smaller on the device and sent one by one, with how far
// each has come; the form then goes off with what the server calls them. What is too large is said
// where one stands, before anything is sent.
import * as storage from "../shared/storage.js";
import { smaller } from "../shared/photo.js";
import { headers, renew } from "../shared/token.js";
import { submitForm } from "../shared/polyfills.js";

const SIDE = 2000; // pixels; the server keeps no more
const SMALL = 1.5e6; // bytes of a picture that goes as it is
const AS_THEY_ARE = ["image/svg+xml", "image/gif", "image/webp"]; // and what may move
const PATIENCE = 8000; // for a video to say how large it is
const REMARKS = "roost.remarks"; // of pictures whose form leads to another page

// Where the state of an upload is told: right below its field.
function place(input) {
  const row = input.closest("label, .upload, .stack, .option-do") ?? input.parentElement;
  let state = row.parentElement.querySelector(`:scope > .upload-state[data-for="${CSS.escape(input.name)}"]`);
  if (!state) {
    state = Object.assign(document.createElement("div"), { className: "upload-state" });
    state.dataset.for = input.name;
    state.setAttribute("role", "status");
    row.after(state);
  }
  return state;
}

function say(input, words, part) {
  const state = place(input);
  const bar = part === undefined ? [] : [Object.assign(document.createElement("progress"), { max: 1, value: part })];
  state.replaceChildren(Object.assign(document.createElement("span"), { textContent: words }), ...bar);
}

function refuse(input, sentences) {
  place(input).replaceChildren(
    ...sentences.map((sentence) => {
      const line = Object.assign(document.createElement("p"), { className: "refusal", textContent: sentence });
      line.setAttribute("role", "alert");
      return line;
    }),
  );
}

// What there is to know of a picture that was kept.
function remark(input, sentences) {
  if (!sentences.length) return;
  if (!input.form.hasAttribute("hx-post")) storage.set(REMARKS, sentences);
  place(input).append(
    ...sentences.map((sentence) => Object.assign(document.createElement("p"), { className: "note", textContent: sentence })),
  );
}

const left = storage.get(REMARKS);
if (left) {
  storage.remove(REMARKS);
  const notes = left.map((sentence) => Object.assign(document.createElement("p"), { className: "note", textContent: sentence }));
  document.querySelector("#refusals, main")?.prepend(...notes);
}

// Whether this browser can play a video: a file may be named rightly and yet be made in a way it can't read.
function plays(file) {
  return new Promise((done) => {
    const video = document.createElement("video");
    video.preload = "metadata";
    video.muted = true;
    video.onloadedmetadata = () => done(video.videoWidth > 0);
    video.onerror = () => done(false);
    setTimeout(() => done(true), PATIENCE); // then the server looks at it
    video.src = URL.createObjectURL(file);
  });
}

// As it goes out; what the browser can't read the server looks at.
async function lightened(file) {
  if (AS_THEY_ARE.includes(file.type)) return file;
  const { blob, scale } = await smaller(file, SIDE, "image/webp").catch(() => ({ blob: file }));
  return blob.size < file.size && (scale < 1 || file.size >= SMALL) ? blob : file;
}

// Where there is no word of ours, something before us found it too large.
function said(text, name) {
  try {
    return JSON.parse(text);
  } catch {
    return { message: `“${name}” is too large to be sent. Make it smaller.` };
  }
}

// @returns what the server says: {file} or {message}
function hold(blob, name, progress, again = false) {
  return new Promise((done) => {
    const request = new XMLHttpRequest();
    const body = new FormData();
    body.append("picture", blob, name);
    request.upload.addEventListener("progress", (event) => {
      if (event.lengthComputable) progress(event.loaded / event.total);
    });
    request.addEventListener("load", () => {
      if (request.status === 401) done({ message: "You are signed out. Sign in in another window, then choose it again." });
      else if (!again && renew(request.getResponseHeader("X-CSRF-Token"))) done(hold(blob, name, progress, true));
      else done(said(request.responseText, name));
    });
    request.addEventListener("error", () =>
      done({ message: `“${name}” didn't get through. Try it again when the connection is back.` }),
    );
    request.open("POST", "/pictures/hold");
    for (const [header, value] of Object.entries(headers())) request.setRequestHeader(header, value);
    request.send(body);
  });
}

async function prepare(input) {
  const { form } = input;
  const files = [...input.files];
  const refused = [];
  const remarks = [];
  for (const old of form.querySelectorAll("[data-held]")) old.remove();
  for (const [number, file] of files.entries()) {
    const which = files.length > 1 ? `Picture ${number + 1} of ${files.length}` : "The picture";
    say(input, `${which}: making it smaller…`, 0);
    const blob = await lightened(file);
    const reply = await hold(blob, file.name, (part) => say(input, `${which}: sending…`, part));
    if (reply.file) keep(form, input, reply.file, file.name);
    else refused.push(reply.message);
    if (reply.remark) remarks.push(reply.remark);
  }
  place(input).replaceChildren();
  if (refused.length) refuse(input, refused);
  remark(input, remarks);
  return form.querySelector("[data-held]") !== null;
}

// As hidden fields of the form, beside the file's own field, which is emptied.
function keep(form, input, file, name) {
  const option = input.name.match(/^pictures\[(.+)\]$/)?.[1];
  const fields = option ? { [`held_options[${option}]`]: file } : { "held[]": file, "held_names[]": name };
  for (const [field, value] of Object.entries(fields)) {
    const hidden = Object.assign(document.createElement("input"), { type: "hidden", name: field, value });
    hidden.dataset.held = "";
    form.append(hidden);
  }
}

document.addEventListener(
  "change",
  async (event) => {
    const input = event.target;
    if (!input.matches?.("input[type=file]") || !input.files.length) return;
    const large = [...input.files].filter((file) => file.size > Number(input.dataset.most ?? Infinity));
    if (large.length) {
      event.stopImmediatePropagation();
      refuse(
        input,
        large.map(
          (file) =>
            `“${file.name}” is larger than ${Math.round(input.dataset.most / 1048576)} MB. Make it smaller, or add it in parts.`,
        ),
      );
      input.value = "";
    } else if ("plays" in input.dataset && !input.dataset.looked) {
      event.stopImmediatePropagation();
      const [file] = input.files;
      if (await plays(file)) {
        place(input).replaceChildren();
        input.dataset.looked = "yes";
        input.dispatchEvent(new Event("change", { bubbles: true }));
        delete input.dataset.looked;
      } else {
        refuse(input, [
          `“${file.name}” can't be played in this browser, so it might not be in others. Save it as MP4 (H.264) or WebM, and add that.`,
        ]);
        input.value = "";
      }
    } else if ("shrink" in input.dataset) {
      event.stopImmediatePropagation();
      const ready = await prepare(input);
      input.required = false;
      input.value = "";
      if (ready) submitForm(input.form);
    } else {
      place(input).replaceChildren();
    }
  },
  { capture: true },
);

// A file dropped on the form that takes one.
for (const type of ["dragover", "dragleave", "drop"]) {
  document.addEventListener(type, (event) => {
    const form = event.target.closest?.("[data-drop-file]");
    if (!form || !event.dataTransfer?.types.includes("Files")) return;
    form.classList.toggle("is-target", type === "dragover");
    if (type === "dragleave") return;
    event.preventDefault();
    if (type !== "drop") return;
    form.querySelector("input[type=file]").files = event.dataTransfer.files;
    submitForm(form);
  });
}
