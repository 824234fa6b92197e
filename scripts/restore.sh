#!/usr/bin/env bash
# Puts a backup in place of what is here: scripts/restore.sh FILE. On this machine or another, of this version or one
# before it. What was here is kept in a backup of its own first.
set -euo pipefail
file="${1:-}"
[ -n "$file" ] || { echo "usage: scripts/restore.sh FILE" >&2; exit 2; }
[ -r "$file" ] || { echo "$file cannot be read: check the path. Nothing was changed." >&2; exit 1; }
file="$(cd "$(dirname "$file")" && pwd)/$(basename "$file")"
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. scripts/cluster.sh
trap leave_cluster EXIT
with_cluster
base="${DATABASE_URL%/*}"; name="${DATABASE_URL##*/}"
refuse() { echo "$1 Nothing was changed." >&2; exit 1; }
tool pg_restore --list "$file" >/dev/null 2>&1 || refuse "$file is no backup of Probe Lane, or not whole."
# A server would write into what comes and goes. One that has just stopped leaves its connections open for a moment,
# and the database's own housekeeping is nobody's work.
at_work() { admin "select count(*) from pg_stat_activity where datname = '$name' and backend_type = 'client backend'"; }
for _ in $(seq 50); do [ "$(at_work)" != 0 ] || break; sleep 0.1; done
[ "$(at_work)" = 0 ] || refuse "Probe Lane runs: stop it with Ctrl-C first."
# beside it first, and changed over only when it is whole
admin "drop database if exists ${name}_coming with (force)"; admin "create database ${name}_coming owner lane"
trap 'admin "drop database if exists ${name}_coming with (force)"; leave_cluster' EXIT
tool pg_restore --exit-on-error --no-owner --no-privileges --dbname="$base/${name}_coming" "$file" || refuse "The backup could not be put in."
is_used "$base/${name}_coming" || refuse "$file is no backup of Probe Lane."
[ "$(steps_in "$base/${name}_coming")" -le "$(steps_known)" ] || refuse "The backup was made by a newer version: bring this one up to date first."
if is_used "$DATABASE_URL"; then keep_aside before-restore; fi
admin "drop database if exists ${name}_gone with (force)"
admin "alter database $name rename to ${name}_gone"; admin "alter database ${name}_coming rename to $name"
admin "drop database ${name}_gone with (force)"
echo "Restored from $file. Start it with ./start; whoever's session has ended signs in again."
