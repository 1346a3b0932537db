#!/bin/sh
# Compiles Bulma's style sheet anew, after a change of colours, of scripts/styles or of the
# classes that the pages use. Only development needs it, and with it Node: what it makes is
# committed, so that neither ./start nor ./check does.
set -eu
cd "$(dirname "$0")/styles"
npm="${STYLES_NPM:-$(mktemp -d)}"
[ -d "$npm/node_modules/bulma" ] ||
	npm install --silent --prefix "$npm" sass@1.108.2 bulma@1.0.4 purgecss@8.0.0
node build.mjs "$npm/node_modules"
