// Counts the words in the field inside it against a limit, before anything is refused.
class WordCount extends HTMLElement {
  connectedCallback() {
    this.field = this.querySelector("textarea, input");
    this.words = this.querySelector(".word-count-words");
    this.addEventListener("input", () => this.draw());
    this.closest("form")?.addEventListener("restored", () => this.draw());
    this.draw();
  }

  draw() {
    const count = this.field.value.trim().split(/\s+/).filter(Boolean).length;
    const { limit } = this.dataset;
    this.words.textContent = `${count} of ${limit} ${limit === "1" ? "word" : "words"}`;
    this.classList.toggle("is-over", count > Number(limit));
  }
}
customElements.define("word-count", WordCount);
