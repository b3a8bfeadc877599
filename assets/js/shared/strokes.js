// Strokes of a drawing as SVG, as web/rendering/strokes.rb draws them, and what can be reckoned with
// them: whole units of a sheet.
import { make } from "./svg-tools.js";
import { last } from "./polyfills.js";

export const TWO_POINTS = ["line", "arrow", "rectangle", "ellipse"];
const WIDTHS = { pen: 6, line: 6, arrow: 6, rectangle: 6, ellipse: 6, highlighter: 30 };
const HEAD = 34; // units of an arrow's head
const TOLERANCE = 0.6; // units a line may be off after it was simplified

// @param ink its colour as "#rrggbb"
// @param path of a sticker
export function drawn(stroke, ink, path) {
  const { tool, points, text, pressure } = stroke;
  if (tool === "sticker") return make("path", { d: path, transform: `translate(${points.join(" ")})`, fill: ink });
  if (tool === "text") {
    const words = make("text", { x: points[0], y: points[1], "font-size": 44, "font-family": "sans-serif", fill: ink });
    words.textContent = text;
    return words;
  }
  const pen = {
    fill: "none",
    stroke: ink,
    "stroke-width": WIDTHS[tool],
    "stroke-linecap": "round",
    "stroke-linejoin": "round",
    "stroke-opacity": tool === "highlighter" ? 0.35 : 1,
  };
  const line = (list, width = WIDTHS[tool]) =>
    make("polyline", { ...pen, "stroke-width": width, points: (list.length === 2 ? [...list, ...list] : list).join(" ") });
  const [x1, y1, x2, y2] = points;
  if (tool === "rectangle")
    return make("rect", {
      ...pen,
      x: Math.min(x1, x2),
      y: Math.min(y1, y2),
      width: Math.abs(x2 - x1),
      height: Math.abs(y2 - y1),
    });
  if (tool === "ellipse")
    return make("ellipse", {
      ...pen,
      cx: (x1 + x2) / 2,
      cy: (y1 + y2) / 2,
      rx: Math.abs(x2 - x1) / 2,
      ry: Math.abs(y2 - y1) / 2,
    });
  if (tool === "arrow") {
    const angle = Math.atan2(y2 - y1, x2 - x1);
    const [one, other] = [0.5, -0.5].map((turn) => [x2 - HEAD * Math.cos(angle + turn), y2 - HEAD * Math.sin(angle + turn)]);
    return group([line(points), line([...one, x2, y2, ...other])]);
  }
  if (pressure) return group(pressed(points, pressure).map(([list, width]) => line(list, width)));
  return line(points);
}

function group(parts) {
  const all = make("g");
  all.append(...parts);
  return all;
}

// Points pressed alike as one line with its width; each goes on where the last one ended.
function pressed(points, pressure) {
  const runs = [];
  for (let at = 0; at < pressure.length; at += 1) {
    const point = points.slice(at * 2, at * 2 + 2);
    if (pressure[at] !== pressure[at - 1]) runs.push([runs.length ? last(runs)[0].slice(-2) : [], pressure[at] + 1]);
    last(runs)[0].push(...point);
  }
  return runs;
}

// A rectangle as a line around it.
export const outline = ([x1, y1, x2, y2]) => [x1, y1, x2, y1, x2, y2, x1, y2, x1, y1];

// From a point to a line segment.
export function distance(x, y, x1, y1, x2, y2) {
  const length = (x2 - x1) ** 2 + (y2 - y1) ** 2;
  const along = length ? Math.min(1, Math.max(0, ((x - x1) * (x2 - x1) + (y - y1) * (y2 - y1)) / length)) : 0;
  return Math.hypot(x - x1 - along * (x2 - x1), y - y1 - along * (y2 - y1));
}

// A line with no more points than it takes to look the same (Ramer, Douglas and Peucker); the server
// does it again. Where the pressure changes, points stay.
export function simplified(stroke) {
  const { points, pressure } = stroke;
  const count = points.length / 2;
  if (TWO_POINTS.includes(stroke.tool) || count < 3) return stroke;
  const stays = new Uint8Array(count);
  stays[0] = stays[count - 1] = 1;
  for (let i = 1; pressure && i < count; i += 1) if (pressure[i] !== pressure[i - 1]) stays[i] = 1;
  const ends = [...stays.keys()].filter((i) => stays[i]);
  const work = ends.slice(1).map((to, i) => [ends[i], to]);
  while (work.length) {
    const [from, to] = work.pop();
    let far = TOLERANCE;
    let place = 0;
    for (let i = from + 1; i < to; i += 1) {
      const off = distance(
        points[2 * i],
        points[2 * i + 1],
        points[2 * from],
        points[2 * from + 1],
        points[2 * to],
        points[2 * to + 1],
      );
      if (off > far) {
        far = off;
        place = i;
      }
    }
    if (place) {
      stays[place] = 1;
      work.push([from, place], [place, to]);
    }
  }
  const kept = [...stays.keys()].filter((i) => stays[i]);
  return {
    ...stroke,
    points: kept.flatMap((i) => [points[2 * i], points[2 * i + 1]]),
    ...(pressure && { pressure: kept.map((i) => pressure[i]) }),
  };
}
