// Records sound in the page and puts it into the file field of its form, as if it had been
// chosen there.
const MOST = 10 * 60; // seconds

class VoiceRecorder extends HTMLElement {
  connectedCallback() {
    if (this.button || !navigator.mediaDevices || !window.MediaRecorder) return;
    this.button = Object.assign(document.createElement("button"), { type: "button", className: "button is-small" });
    this.state = Object.assign(document.createElement("span"), { className: "recorder-state" });
    this.state.setAttribute("role", "status");
    this.append(this.button, this.state);
    this.button.addEventListener("click", () => (this.recorder ? this.stop() : this.start()));
    this.draw();
  }

  disconnectedCallback() {
    this.stop();
  }

  async start() {
    try {
      this.stream = await navigator.mediaDevices.getUserMedia({ audio: true });
    } catch {
      this.state.textContent = "No microphone found. Allow it in the browser, or choose a file.";
      return;
    }
    const chunks = [];
    this.recorder = new MediaRecorder(this.stream); // eslint-disable-line compat/compat -- no button without it
    this.recorder.addEventListener("dataavailable", (event) => chunks.push(event.data));
    this.recorder.addEventListener("stop", () => this.done(new Blob(chunks, { type: this.type })));
    this.type = this.recorder.mimeType.split(";")[0];
    this.recorder.start();
    this.seconds = 0;
    this.clock = setInterval(() => {
      this.seconds += 1;
      this.draw();
      if (this.seconds >= MOST) this.stop();
    }, 1000);
    this.draw();
  }

  stop() {
    if (this.recorder?.state === "recording") this.recorder.stop();
    clearInterval(this.clock);
    for (const track of this.stream?.getTracks() ?? []) track.stop();
  }

  done(blob) {
    this.recorder = null;
    this.draw();
    const input = this.closest("form")?.querySelector("input[type=file]");
    if (!input || !blob.size) return;
    const list = new DataTransfer();
    list.items.add(new File([blob], `recording.${this.type.includes("mp4") ? "m4a" : "webm"}`, { type: this.type }));
    input.files = list.files;
    input.dispatchEvent(new Event("change", { bubbles: true }));
  }

  draw() {
    this.button.textContent = this.recorder ? "■ Stop recording" : `● Record ${this.dataset.words}`;
    this.state.textContent = this.recorder
      ? `${Math.floor(this.seconds / 60)}:${String(this.seconds % 60).padStart(2, "0")}`
      : "";
  }
}
customElements.define("voice-recorder", VoiceRecorder);
