// An equation typed in LaTeX, set beside as it grows; marks go in where the cursor is.
class EquationEntry extends HTMLElement {
  connectedCallback() {
    this.input = this.querySelector("input");
    this.preview = this.querySelector(".equation-preview");
    this.addEventListener("input", () => this.set());
    this.addEventListener("click", (event) => {
      const mark = event.target.closest("[data-mark]")?.dataset.mark;
      if (mark && !this.input.matches("fieldset:disabled *")) this.insert(mark);
    });
    this.closest("form")?.addEventListener("restored", () => this.set());
    this.set();
  }

  // The cursor comes to stand in the first empty pair of brackets.
  insert(mark) {
    const at = this.input.selectionStart;
    this.input.setRangeText(mark, at, this.input.selectionEnd, "end");
    const inside = mark.search(/[{(](?=[})])/);
    if (inside >= 0) this.input.setSelectionRange(at + inside + 1, at + inside + 1);
    this.input.focus();
    this.input.dispatchEvent(new Event("input", { bubbles: true }));
  }

  set() {
    const source = this.input.value.trim();
    if (!source) {
      this.preview.replaceChildren();
      return;
    }
    const formula = document.createElement("tex-formula");
    formula.dataset.source = source;
    formula.dataset.block = "true";
    formula.textContent = source;
    this.preview.replaceChildren(formula);
  }
}
customElements.define("equation-entry", EquationEntry);
