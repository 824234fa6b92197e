# Sourced: the database that ./start uses, started where it does not run, and PostgreSQL's own tools for it. Another
# one is meant where DATABASE_URL names it.
started=""
with_cluster() { # sets DATABASE_URL
  [ -z "${DATABASE_URL:-}" ] || return 0
  if DATABASE_URL="$(scripts/pg.sh status 2>/dev/null | tail -1)" && [ -n "$DATABASE_URL" ] && [ "$DATABASE_URL" != stopped ]; then return 0; fi
  DATABASE_URL="$(scripts/pg.sh start)"
  started=yes
}
leave_cluster() { [ -z "$started" ] || scripts/pg.sh stop >/dev/null 2>&1; }
tool() { PGOPTIONS="-c client_min_messages=warning" "$(scripts/pg.sh install)/$1" "${@:2}"; }
sql() { tool psql -qAt -d "$1" -c "$2"; }
admin() { # one statement as the cluster's maker, who alone may make and rename databases
  local home; home="$(scripts/pg.sh home)"
  PGPASSWORD="$(cat "$home/password")" tool psql -qAt -h 127.0.0.1 -p "$(cat "$home/port")" -U app -d postgres -c "$1"
}
dump() { (umask 077; tool pg_dump --format=custom --no-owner --no-privileges "$DATABASE_URL" >"$1"); }
is_used() { [ -n "$(sql "$1" "select 1 from information_schema.tables where table_name = 'classes'")" ]; }
keep_aside() { # "keep_aside WHY": what is there now, in a backup of its own
  mkdir -p .run/backups; chmod 700 .run/backups
  local kept; kept=".run/backups/$1-$(date +%Y%m%d-%H%M%S)-$$"
  dump "$kept"
  echo "What was here is kept in $kept" >&2
}
# how many steps the tables have been brought forward, and how many this version knows
steps_in() { sql "$1" "select count(*) from drizzle.__drizzle_migrations" 2>/dev/null || echo 0; }
steps_known() { node -e 'process.stdout.write(String(JSON.parse(require("fs").readFileSync("apps/server/db/migrations/meta/_journal.json", "utf8")).entries.length))'; }
