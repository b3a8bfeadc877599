// In a round on a phone the slide's picture is small, so that question and answers are in view together; a touch shows it large.
document.addEventListener("click", ({ target }) => {
  target.closest?.(".is-round > .slide .slide-picture")?.classList.toggle("is-large");
});
