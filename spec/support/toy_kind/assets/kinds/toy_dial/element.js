// Says that it is there, and asks how far it goes.
class ToyDial extends HTMLElement {
  async connectedCallback() {
    this.dataset.awake = "yes";
    const slide = this.closest("[data-slide]").dataset.slide;
    const reply = await fetch(`${this.closest("[data-kinds]").dataset.kinds}/toy_dial/most?slide=${slide}`);
    this.dataset.most = (await reply.json()).most;
  }
}
customElements.define("toy-dial", ToyDial);
