// What was typed and can't be taken as an answer any more: it stands on the page with the reason, and can be copied or sent to
// the teacher as it was typed. On the page of a seat that is no longer this device's, what waits here is sent first.
import { Outbox } from "../outbox.js";
import * as refused from "../refused.js";
import { say } from "../../shared/say.js";

class RefusedTexts extends HTMLElement {
  connectedCallback() {
    this.token = this.dataset.token;
    if (this.dataset.handsOver !== undefined) this.outbox = new Outbox(this.token);
    this.draw = this.draw.bind(this);
    addEventListener("roost:refused", this.draw);
    this.addEventListener("click", ({ target }) => this.press(target.closest("button")));
    this.draw();
  }

  disconnectedCallback() {
    removeEventListener("roost:refused", this.draw);
  }

  draw() {
    const all = Object.entries(refused.all(this.token));
    this.hidden = all.length === 0;
    this.innerHTML = this.hidden ? "" : "<h2>Not accepted as an answer</h2><ul></ul>";
    this.querySelector("ul")?.append(...all.map(([question, save]) => this.item(question, save)));
  }

  item(question, { fields, reason }) {
    const item = document.createElement("li");
    item.dataset.question = question;
    item.innerHTML = `<p class="as-typed"></p><p class="quiet"></p><p class="buttons is-small">
      <button type="button" class="button is-small" data-do="copy">Copy</button>
      <button type="button" class="button is-small" data-do="send">Send to your teacher as typed</button>
      <button type="button" class="button is-small is-quiet" data-do="remove">Remove</button></p>`;
    const text = refused.words(fields);
    const [typed, why] = item.querySelectorAll("p");
    typed.textContent = text || "An answer without words";
    why.textContent = reason;
    if (!text) for (const button of item.querySelectorAll("[data-do=copy], [data-do=send]")) button.hidden = true;
    return item;
  }

  async press(button) {
    if (!button) return;
    const item = button.closest("li");
    const { question } = item.dataset;
    const save = refused.all(this.token)[question];
    if (button.dataset.do === "copy") this.tell(item, await this.copy(refused.words(save.fields)));
    else if (button.dataset.do === "send") await this.send(item, question, save);
    else refused.forget(this.token, question);
  }

  async copy(text) {
    try {
      await navigator.clipboard.writeText(text);
      return "Copied.";
    } catch {
      return "This browser can't copy. Select the text and copy it.";
    }
  }

  async send(item, question, { slide, fields }) {
    try {
      const reply = await fetch(`/seat/${this.token}/typed`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify({ slide, text: refused.words(fields) }),
      });
      const said = await reply.json();
      if (said.state !== "sent") {
        this.tell(item, said.message ?? "That didn't get through. Try again in a moment.");
        return;
      }
      refused.forget(this.token, question);
      say("Sent to your teacher.");
    } catch {
      this.tell(item, "No connection at the moment. The text stays here.");
    }
  }

  tell(item, sentence) {
    item.querySelectorAll("p")[1].textContent = sentence;
    say(sentence);
  }
}
customElements.define("refused-texts", RefusedTexts);
