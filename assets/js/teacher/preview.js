// The preview: arrow keys move, and the frames show anew when the lesson is changed in
// another window.
const EVERY = 2000;
const preview = document.querySelector(".preview[data-version]");

async function look() {
  if (document.hidden) return;
  const reply = await fetch(preview.dataset.version).catch(() => null);
  if (!reply?.ok) return;
  const now = await reply.text();
  if (now === preview.dataset.at) return;
  preview.dataset.at = now;
  for (const frame of preview.querySelectorAll("iframe")) frame.contentWindow.location.reload();
}

if (preview) {
  setInterval(look, EVERY);
  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const link = document.querySelector(`.preview-bar a[data-key="${CSS.escape(event.key)}"]`);
    if (link) link.click();
  });
}
