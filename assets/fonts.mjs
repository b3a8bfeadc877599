// Cuts our fonts into what the interface itself is written in, which every page needs, and the
// rest, which a browser fetches when it meets such a letter. Writes the files and _fonts.scss into
// the folder that is given.
import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import subsetFont from "subset-font";

const folder = process.argv[2];
const FILES = "node_modules/@fontsource-variable";
// Printable ASCII and the signs our own texts use.
const OURS = [...Array(95).keys()]
  .map((place) => 32 + place)
  .concat([..."\u00a0\u202f£°·×÷–—‘’“”…•−✓✗◐‹›←→"].map((letter) => letter.codePointAt(0)));
// What fontsource's files of this name hold.
const LATIN = [
  [0x00a0, 0x00ff],
  [0x0131, 0x0131],
  [0x0152, 0x0153],
  [0x02bb, 0x02bc],
  [0x02c6, 0x02c6],
  [0x02da, 0x02da],
  [0x02dc, 0x02dc],
  [0x2000, 0x206f],
  [0x20ac, 0x20ac],
  [0x2122, 0x2122],
  [0x2191, 0x2191],
  [0x2193, 0x2193],
  [0x2212, 0x2212],
  [0x2215, 0x2215],
];
const LATIN_MORE = [
  [0x0100, 0x0130],
  [0x0132, 0x0151],
  [0x0154, 0x02ba],
  [0x1e00, 0x1eff],
];
const FONTS = {
  body: {
    family: "Atkinson Hyperlegible Next Variable",
    file: "atkinson-hyperlegible-next",
    axes: { wght: { min: 400, max: 700 } },
    weight: "400 700",
  },
  display: { family: "Bricolage Grotesque Variable", file: "bricolage-grotesque", axes: { wght: 650 }, weight: "650" },
};

const all = (ranges) => ranges.flatMap(([first, last]) => [...Array(last - first + 1).keys()].map((place) => first + place));
const hex = (code) => `U+${code.toString(16)}`;

// Code points as a CSS range, neighbours joined.
function range(codes) {
  const sorted = [...new Set(codes)].sort((one, other) => one - other);
  const runs = [];
  for (const code of sorted) {
    if (runs.length && runs.at(-1)[1] === code - 1) runs.at(-1)[1] = code;
    else runs.push([code, code]);
  }
  return runs.map(([first, last]) => (first === last ? hex(first) : `${hex(first)}-${last.toString(16)}`)).join(", ");
}

mkdirSync(folder, { recursive: true });
let faces = "";
for (const [name, { family, file, axes, weight }] of Object.entries(FONTS)) {
  const latin = all(LATIN).filter((code) => !OURS.includes(code));
  const parts = { ours: ["latin", OURS], rest: ["latin", latin], more: ["latin-ext", all(LATIN_MORE)] };
  for (const [part, [source, codes]] of Object.entries(parts)) {
    const whole = readFileSync(`${FILES}/${file}/files/${file}-${source}-wght-normal.woff2`);
    const cut = await subsetFont(whole, String.fromCodePoint(...codes), { targetFormat: "woff2", variationAxes: axes });
    writeFileSync(`${folder}/${name}-${part}.woff2`, cut);
    faces += `@font-face {
  font-family: "${family}";
  src: url("./${name}-${part}.woff2") format("woff2");
  font-weight: ${weight};
  font-display: swap;
  unicode-range: ${range(codes)};
}
`;
  }
}
writeFileSync(`${folder}/_fonts.scss`, faces);

// The emoji that the program itself offers (core/kinds/posts), for devices that have none: a few kB, where all of them are
// a hundred. One typed on a phone is drawn by the phone.
const EMOJI = [..."👍💡❓😮😂❤🐦🌊"].map((sign) => sign.codePointAt(0));
const NOTO = "node_modules/@fontsource/noto-emoji";
const within = (codes, ranges) =>
  codes.filter((code) => ranges.some(([first, last = first]) => code >= parseInt(first, 16) && code <= parseInt(last, 16)));
let emoji = "";
for (const [, file, held] of readFileSync(`${NOTO}/400.css`, "utf8").matchAll(
  /url\(\.\/(files\/[^)]+\.woff2)\).*?unicode-range: ([^;]+);/gs,
)) {
  const codes = within(
    EMOJI,
    held.split(",").map((part) => part.trim().slice(2).split("-")),
  );
  if (!codes.length) continue;
  const name = `emoji-${codes[0].toString(16)}.woff2`;
  writeFileSync(
    `${folder}/${name}`,
    await subsetFont(readFileSync(`${NOTO}/${file}`), String.fromCodePoint(...codes), { targetFormat: "woff2" }),
  );
  emoji += `@font-face {
  font-family: "Noto Emoji";
  src: url("./${name}") format("woff2");
  font-display: swap;
  unicode-range: ${range(codes)};
}
`;
}
writeFileSync(`${folder}/_emoji.scss`, emoji);
