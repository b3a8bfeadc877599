// Makes style sheets that the oldest browsers in package.json understand: `node assets/styles.mjs FILE…`, in place.
import { readFileSync, writeFileSync } from "node:fs";
import browserslist from "browserslist";
import { browserslistToTargets, transform } from "lightningcss";

const targets = browserslistToTargets(browserslist());
for (const filename of process.argv.slice(2)) {
  const { code, warnings } = transform({ filename, code: readFileSync(filename), minify: true, targets });
  if (warnings.length) throw new Error(`${filename}: ${warnings[0].message}`);
  writeFileSync(filename, code);
}
