// Cards a seat adds to the board, each with a text, an emoji, a picture; and its likes of
// others' cards, which stand on the board outside the form. The hidden fields hold them as JSON.
import { smaller } from "../../js/shared/photo.js";

const LARGEST = 1600; // pixels a side; a phone's camera makes more than a card needs

class PostCards extends HTMLElement {
  connectedCallback() {
    this.postsField = this.querySelector("input[name=posts]");
    this.likesField = this.querySelector("input[name=likes]");
    this.text = this.querySelector("textarea");
    this.status = this.querySelector(".post-state");
    this.addEventListener("click", (event) => this.press(event.target.closest("button")));
    this.addEventListener("keydown", (event) => {
      if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
        event.preventDefault();
        this.add();
      }
    });
    this.querySelector("input[type=file]")?.addEventListener("change", (event) => this.upload(event.target));
    this.form = this.closest("form");
    // What is typed and not added yet goes along when the student hands in.
    this.form?.addEventListener("submit", () => this.add({ quiet: true }), { capture: true });
    this.form?.addEventListener("restored", () => this.draw());
    this.onLike = (event) => this.like(event.target.closest?.("[data-like]"));
    this.onSwap = () => this.drawLikes();
    document.addEventListener("click", this.onLike);
    document.addEventListener("htmx:after:swap", this.onSwap);
    new MutationObserver(() => this.draw()).observe(this.closest("fieldset") ?? this, { attributes: true });
    this.draw();
  }

  disconnectedCallback() {
    document.removeEventListener("click", this.onLike);
    document.removeEventListener("htmx:after:swap", this.onSwap);
  }

  get disabled() {
    return Boolean(this.closest("fieldset:disabled"));
  }

  get most() {
    return Number(this.dataset.most);
  }

  get posts() {
    return parse(this.postsField.value);
  }

  get likes() {
    return parse(this.likesField.value);
  }

  press(button) {
    if (!button || this.disabled) return;
    const { emoji, remove } = button.dataset;
    if (emoji) this.choose(button.getAttribute("aria-pressed") === "true" ? "" : emoji);
    if (button.dataset.do === "add") this.add();
    if (remove) {
      this.store(
        this.postsField,
        this.posts.filter(({ id }) => id !== remove),
      );
      this.say("Card removed.");
      this.text.focus();
    }
  }

  choose(emoji) {
    this.emoji = emoji;
    for (const each of this.querySelectorAll("[data-emoji]")) each.setAttribute("aria-pressed", each.dataset.emoji === emoji);
  }

  add({ quiet = false } = {}) {
    const { posts } = this;
    const text = this.text.value.trim();
    if (this.disabled) return;
    if (!text && !this.emoji && !this.picture) {
      if (!quiet) {
        this.say("Write something, or choose an emoji or a picture.");
        this.text.focus();
      }
      return;
    }
    if (posts.length >= this.most) {
      if (!quiet) this.say(`${this.most} is the most. Remove one first.`);
      return;
    }
    const id = `p${1 + Math.max(0, ...posts.map((post) => Number(post.id.slice(1))))}`;
    this.text.value = "";
    this.store(this.postsField, [...posts, { id, text, emoji: this.emoji ?? "", picture: this.picture ?? null, at: Date.now() }]);
    this.picture = null;
    this.choose("");
    if (!quiet) {
      this.say("Card added.");
      this.text.focus();
    }
  }

  async upload(input) {
    const [file] = input.files;
    input.value = "";
    if (!file) return;
    this.say("Sending the picture…");
    try {
      const { blob: body } = await smaller(file, LARGEST, "image/jpeg").catch(() => ({ blob: file })); // else as it is
      const reply = await fetch(`/seat/${this.closest("[data-token]").dataset.token}/pictures`, {
        method: "POST",
        body,
        headers: { "content-type": "application/octet-stream" },
      });
      const said = await reply.json();
      if (!reply.ok) {
        this.say(said.message);
        return;
      }
      this.picture = said;
      this.say("Picture ready. Add the card.");
    } catch {
      this.say("The picture didn't get through. Choose it again when the connection is back.");
    }
  }

  like(button) {
    if (!button || !this.form?.closest("seat-answer[data-open=true]")) return;
    const key = button.dataset.like;
    const { likes } = this;
    const count = button.querySelector(".card-likes");
    const liked = likes.includes(key);
    count.textContent = Number(count.textContent) + (liked ? -1 : 1);
    this.store(this.likesField, liked ? likes.filter((each) => each !== key) : [...likes, key]);
  }

  store(field, list) {
    field.value = JSON.stringify(list);
    this.draw();
    field.dispatchEvent(new Event("input", { bubbles: true }));
  }

  say(words) {
    this.status.textContent = words;
  }

  draw() {
    const { posts } = this;
    this.querySelector(".own-cards").replaceChildren(
      ...posts.map((post) => {
        const card = document.createElement("li");
        card.className = "post";
        if (post.emoji)
          card.append(Object.assign(document.createElement("span"), { className: "card-emoji", textContent: post.emoji }));
        if (post.picture)
          card.append(
            Object.assign(document.createElement("img"), {
              className: "card-picture",
              src: `${this.closest("[data-pictures]")?.dataset.pictures ?? "/media"}/${post.picture.file}`,
              alt: "Your picture",
            }),
          );
        if (post.text)
          card.append(Object.assign(document.createElement("p"), { className: "card-text", textContent: post.text }));
        const away = Object.assign(document.createElement("button"), {
          type: "button",
          className: "button is-small is-quiet",
          textContent: "✕",
        });
        away.dataset.remove = post.id;
        away.setAttribute("aria-label", "Remove this card");
        card.append(away);
        return card;
      }),
    );
    this.querySelector("[data-do=add]").disabled = this.disabled || posts.length >= this.most;
    this.drawLikes();
  }

  drawLikes() {
    const { likes } = this;
    const open = Boolean(this.form?.closest("seat-answer[data-open=true]"));
    for (const button of document.querySelectorAll(".seat-result [data-like]")) {
      button.setAttribute("aria-pressed", likes.includes(button.dataset.like));
      button.disabled = !open;
    }
  }
}

const parse = (text) => {
  try {
    return JSON.parse(text || "[]");
  } catch {
    return [];
  }
};
customElements.define("post-cards", PostCards);
