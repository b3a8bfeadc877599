// Says something to those who hear the page. What is said again is heard again.
export function say(words) {
  const place = document.querySelector("#seat-news");
  if (!place || !words) return;
  place.textContent = "";
  requestAnimationFrame(() => {
    place.textContent = words;
  });
}
