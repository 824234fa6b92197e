#!/usr/bin/env bash
# Everything of this school in one file: scripts/backup.sh FILE. While the server runs, or not. Nothing is overwritten.
set -euo pipefail
file="${1:-}"
[ -n "$file" ] || { echo "usage: scripts/backup.sh FILE" >&2; exit 2; }
[ ! -e "$file" ] || { echo "$file is there already: give another name, or move it away. Nothing was written." >&2; exit 1; }
whole="$(cd "$(dirname "$file")" 2>/dev/null && pwd)" || { echo "There is no folder $(dirname "$file"): make it first." >&2; exit 1; }
file="$whole/$(basename "$file")"
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. scripts/cluster.sh
# aside first: a backup that was broken off never looks whole
trap 'rm -f "$file.part"; leave_cluster' EXIT
with_cluster
dump "$file.part"
tool pg_restore --list "$file.part" >/dev/null
mv "$file.part" "$file"
echo "Written: $file ($(du -h "$file" | cut -f1)). Names, marks and lanes of everybody stand in it: keep it as you keep those."
