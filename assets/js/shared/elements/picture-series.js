// Several pictures of a slide, one at a time: buttons, arrow keys or a swipe step through.
class PictureSeries extends HTMLElement {
  connectedCallback() {
    this.strip = this.querySelector(".series-strip");
    this.count = this.querySelector(".series-count");
    this.addEventListener("click", (event) => {
      const button = event.target.closest("[data-step]");
      if (button) this.go(this.place + Number(button.dataset.step));
    });
    this.addEventListener("keydown", (event) => {
      const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
      if (!step) return;
      event.preventDefault();
      event.stopPropagation();
      this.go(this.place + step);
    });
    this.strip.addEventListener("scroll", () => this.draw(), { passive: true });
    this.draw();
  }

  get pictures() {
    return this.strip.children;
  }

  get place() {
    return Math.round(this.strip.scrollLeft / Math.max(this.strip.clientWidth, 1));
  }

  go(place) {
    const at = Math.min(Math.max(place, 0), this.pictures.length - 1);
    this.strip.scrollTo({
      left: at * this.strip.clientWidth,
      behavior: matchMedia("(prefers-reduced-motion: reduce)").matches ? "instant" : "smooth",
    });
  }

  draw() {
    this.count.textContent = `${this.place + 1} of ${this.pictures.length}`;
    const [back, on] = this.querySelectorAll("[data-step]");
    back.disabled = this.place === 0;
    on.disabled = this.place >= this.pictures.length - 1;
  }
}
customElements.define("picture-series", PictureSeries);
