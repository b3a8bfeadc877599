// Why a question earned what it earned: fetched when somebody asks for it.
class PointsWhy extends HTMLElement {
  connectedCallback() {
    this.addEventListener("toggle", () => this.fetch(), true);
  }

  async fetch() {
    if (this.asked || !this.querySelector("details").open) return;
    this.asked = true;
    const place = this.querySelector("[role=status]");
    place.textContent = "One moment…";
    try {
      const reply = await fetch(`/seat/${this.closest("[data-token]").dataset.token}/why/${this.dataset.why}`);
      if (!reply.ok) throw new Error(reply.status);
      place.innerHTML = await reply.text(); // of ours, escaped by the server
    } catch {
      this.asked = false;
      place.textContent = "There is no connection just now. Close this and open it again.";
    }
  }
}
customElements.define("points-why", PointsWhy);
