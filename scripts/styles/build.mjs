// Compiles the modules of Bulma that bulma.scss names, with the colours of tokens.css, and
// leaves out what no page uses. Run by ../styles.sh where sass, bulma and purgecss are.
//
//   node build.mjs BULMA_FOLDER
import { readFileSync, writeFileSync, readdirSync } from "node:fs";
import { join, dirname } from "node:path";
import { fileURLToPath } from "node:url";
import { createRequire } from "node:module";

const here = dirname(fileURLToPath(import.meta.url));
const web = join(here, "../../internal/web");
const modules = process.argv[2];
const require = createRequire(join(modules, "x.js"));
const sass = require("sass");
const { PurgeCSS } = require("purgecss");

// tokens gives the colours and faces of tokens.css as a module of Sass.
function tokens() {
  const text = readFileSync(join(web, "../draw/css/tokens.css"), "utf8");
  const pairs = [...text.matchAll(/--([a-z0-9-]+): light-dark\((#[0-9a-f]+), (#[0-9a-f]+)\)/g)];
  const map = (at) => "(" + pairs.map((m) => `"${m[1]}": ${m[at]}`).join(", ") + ")";
  const face = (name) => `$${name}: ${text.match(new RegExp(`--${name}: ([^;]+);`))[1]};`;
  return `@use "sass:color"; @use "sass:map";
    ${face("heading")} ${face("text")}
    $of: ("light": ${map(2)}, "dark": ${map(3)});
    @function colour($theme, $name) { @return map.get($of, $theme, $name); }
    @function light($name) { @return colour("light", $name); }
    @function lightness($theme, $name) {
      @return color.channel(colour($theme, $name), "lightness", $space: hsl);
    }`;
}

const ours = new URL("corvek:tokens");
const compiled = sass.compile(join(here, "bulma.scss"), {
  loadPaths: [modules],
  importers: [{
    canonicalize: (name) => (name === "tokens" ? ours : null),
    load: () => ({ contents: tokens(), syntax: "scss" }),
  }],
  quietDeps: true,
  silenceDeprecations: ["import", "global-builtin", "color-functions"],
});

// Our own sheets go through it too: what variables they use of Bulma's must stay.
const sheets = [join(web, "site/static/css"), join(web, "jobpages/css")];
const own = sheets.flatMap((at) => readdirSync(at).map((name) => readFileSync(join(at, name), "utf8"))).join("\n");
const [left] = await new PurgeCSS().purge({
  content: [
    join(web, "*/templates/**/*.html"), join(web, "*/*.go"), join(web, "../document/**/*.{html,go}"),
    join(web, "../report/*.go"), join(web, "site/static/js/*.js"),
  ],
  css: [{ raw: compiled.css + "\n/*end of bulma*/\n" + own }],
  variables: true,
  safelist: { greedy: [/data-theme/] },
});
const css = sass.compileString(left.css.split("/*end of bulma*/")[0], { style: "compressed" }).css;
const version = JSON.parse(readFileSync(join(modules, "bulma/package.json"), "utf8")).version;
const head = `/* Bulma ${version}, MIT License, LICENSE-bulma.txt. Compiled by scripts/styles.sh: not to be edited. */\n`;
writeFileSync(join(web, "site/static/lib/bulma.min.css"), head + css);
