// KaTeX in a bundle of its own, fetched by tex-formula when a formula is there to be set.
import katex from "katex";
import "katex/dist/katex.css";

const LIMITS = { trust: false, maxSize: 20, maxExpand: 200 };

// @returns what is wrong with the formula, or null
const maths = (source, element, block) => {
  try {
    katex.render(source, element, { ...LIMITS, displayMode: block, throwOnError: true });
    return null;
  } catch (error) {
    return error.message.replace(/^KaTeX parse error: /, "");
  }
};
window.roost = { ...window.roost, maths };
