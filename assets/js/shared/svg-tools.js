// What elements that draw on a picture share.
const SVG = "http://www.w3.org/2000/svg";

export const make = (name, attributes = {}) => {
  const shape = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) shape.setAttribute(key, value);
  return shape;
};

// Where a pointer is on the picture, in fractions of its width and height.
export const place = (svg, event) => {
  const box = svg.viewBox.baseVal;
  const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
  return [clamp(point.x / box.width), clamp(point.y / box.height)];
};

export const clamp = (value) => Math.min(1, Math.max(0, Math.round(value * 10000) / 10000));

export const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

// One finger on what can be dragged moves that, and not the page. (touch-action does not do
// it for parts of an SVG that are drawn anew meanwhile.)
export const holdPage = (svg, draggable) =>
  svg.addEventListener(
    "touchstart",
    (event) => {
      if (event.touches.length === 1 && draggable(event.target)) event.preventDefault();
    },
    { passive: false },
  );
