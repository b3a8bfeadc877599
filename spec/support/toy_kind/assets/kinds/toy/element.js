// Says that it is there.
class ToyDial extends HTMLElement {
  connectedCallback() {
    this.dataset.awake = "yes";
  }
}
customElements.define("toy-dial", ToyDial);
