# frozen_string_literal: true

# How large what is written on the class screen is, as a browser shows it. What is written
# in a student's drawing is as large as the student wrote it.
module Legible
  SMALLEST = <<~JS
    (() => {
      const stage = document.querySelector(".screen-stage");
      const walker = document.createTreeWalker(stage, NodeFilter.SHOW_TEXT);
      const found = [];
      for (let node = walker.nextNode(); node; node = walker.nextNode()) {
        const part = node.parentElement;
        const range = document.createRange();
        range.selectNodeContents(node);
        if (!node.textContent.trim() || !range.getBoundingClientRect().width) continue;
        if (part.closest(".sr-only, caption, title, .sheet, .katex")) continue;
        const drawing = part.closest("svg");
        const scale = drawing?.viewBox?.baseVal?.width ? drawing.getScreenCTM().a : 1;
        found.push([parseFloat(getComputedStyle(part).fontSize) * scale, node.textContent.trim().slice(0, 40)]);
      }
      return [found.sort((one, other) => one[0] - other[0])[0], stage.scrollHeight - stage.clientHeight];
    })()
  JS

  # Until everything has its size, and the type has been made to fit it.
  FITTED = <<~JS
    const done = arguments[0];
    const pictures = [...document.querySelectorAll(".screen-stage img")].map((picture) => picture.decode().catch(() => null));
    const frames = (left) => (left ? requestAnimationFrame(() => frames(left - 1)) : done());
    Promise.all([document.fonts.ready, ...pictures]).then(() => frames(4));
  JS

  # @return [Array(Array(Numeric, String), Numeric)] the smallest type with its words, and how many pixels are cut off
  def smallest(screen)
    screen.evaluate_async_script(FITTED)
    screen.evaluate_script(SMALLEST)
  end
end
