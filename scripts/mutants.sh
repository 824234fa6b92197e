#!/usr/bin/env bash
# Mutants of the rooms that marks hang on, in a copy of this folder: whole, or of the files that are named after it,
# separated by commas. Prints a score for each file. Not part of ./test; the last scores stand in docs/mutants.md.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
copy="$PWD/.run/mutants"
rm -rf "$copy" && mkdir -p "$copy"
trap 'rm -rf "$copy"' EXIT
git ls-files -co --exclude-standard | while read -r file; do [ -f "$file" ] && echo "$file"; done | tar -cT - | tar -x -C "$copy"
# hard links: workspace links in it point into the copy
cp -al node_modules "$copy/node_modules"
cd "$copy"
npx stryker run --inPlace ${1:+--mutate "$1"}
