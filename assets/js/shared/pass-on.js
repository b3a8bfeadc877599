// What is passed on in one touch: a text onto the clipboard, a post to the page of a course. Each says so.
document.addEventListener("htmx:after:request", ({ target, detail }) => {
  const button = target.closest?.("[data-once]");
  if (!button || detail.ctx.response.status >= 400) return;
  button.textContent = button.dataset.once;
  button.disabled = true;
});

document.addEventListener("click", async ({ target }) => {
  const button = target.closest?.("[data-copies]");
  if (!button) return;
  const text = button.dataset.copies.replace(/\s+/g, " ");
  let done = true;
  try {
    await navigator.clipboard.writeText(text);
  } catch {
    const field = button.parentElement.querySelector("input");
    field?.select();
    done = field?.value === text && document.execCommand("copy"); // where pages are not served securely
  }
  const place = button.closest("section")?.querySelector("[data-copied]");
  if (place) place.textContent = done ? "Copied." : "It could not be copied. Mark the link, and copy it by hand.";
});
