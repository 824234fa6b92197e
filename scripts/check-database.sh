#!/usr/bin/env bash
# What scripts/pg.sh and ./start must stand, each tried on a cluster of its own in a folder of its own. Ends with a count.
set -uo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
passed=0; failed=0
export PG_NAME=tried
place="$(mktemp -d)"; chmod 755 "$place"
export PG_HOME="$place/database"
busy=""
finish() { [ -z "$busy" ] || kill "$busy" 2>/dev/null; scripts/pg.sh destroy >/dev/null 2>&1; rm -rf "$place"; }
trap finish EXIT
holds() { # "holds WHAT COMMAND …": the command succeeds
  local what="$1"; shift
  if "$@" >"$place/said" 2>&1; then passed=$((passed + 1)); echo "ok: $what"; else failed=$((failed + 1)); echo "FAILED: $what"; cat "$place/said"; fi
}
ask() { # one statement as the application's own role
  node --input-type=module -e 'import pg from "pg"; const c = new pg.Client({ connectionString: process.argv[1] }); await c.connect();
    const { rows } = await c.query(process.argv[2]); console.log(Object.values(rows[0] ?? { done: "" })[0]); await c.end();' "$(scripts/pg.sh url)" "$1"
}
says() { [ "$(ask "$1")" = "$2" ]; }
starts() { scripts/pg.sh start >/dev/null; }
again() { [ "$(scripts/pg.sh start)" = "$(scripts/pg.sh url)" ]; }
killed() { local pids; pids="$(scripts/pg.sh pids)"; [ -n "$pids" ] || return 1; kill -9 $pids; starts; }
told() { # the command fails, and its words match
  local words="$1" said; shift
  if said="$("$@" 2>&1)"; then echo "succeeded: $said"; return 1; fi
  echo "$said"; grep -q "$words" <<<"$said"
}

mkdir -p "$PG_HOME/data/base" "$PG_HOME/data.new"; [ "$(id -u)" != 0 ] || chown -R postgres "$PG_HOME"
holds "a start over what an interrupted one left half made" starts
holds "the application's role answers" says "select 41 + 1" 42
holds "and rules nothing" says "select rolsuper or rolcreaterole from pg_roles where rolname = current_user" false
ask "create table kept as select 7 as n" >/dev/null
holds "a second start changes nothing and gives the same address" again
holds "kill -9 of all its processes, and a start" killed
holds "what was stored is there" says "select n from kept" 7
scripts/pg.sh stop >/dev/null
holds "stopped is said so" told "^stopped" scripts/pg.sh status
# the lock of a server long gone, with the number of a process that lives
printf '%s\n' "$$" "$PG_HOME/data" >"$PG_HOME/data/postmaster.pid"; [ "$(id -u)" != 0 ] || chown postgres "$PG_HOME/data/postmaster.pid"
holds "a start past a lock that names a living stranger" starts
scripts/pg.sh stop >/dev/null
port="$(cat "$PG_HOME/port")"
node -e 'require("net").createServer().listen(Number(process.argv[1]), "127.0.0.1"); setTimeout(() => {}, 600000)' "$port" & busy=$!
until (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; do kill -0 "$busy" || break; done
holds "its port taken by somebody else, another one is chosen" starts
holds "and remembered" test "$(cat "$PG_HOME/port")" != "$port"
holds "with everything still there" says "select n from kept" 7
scripts/pg.sh stop >/dev/null
chmod 777 "$PG_HOME"
holds "a folder that others can write is refused in a sentence" told "can be written by others" scripts/pg.sh start
chmod 711 "$PG_HOME"
ln -s "$PG_HOME" "$place/link"
holds "and a link in its place" env PG_HOME="$place/link" bash -c '! scripts/pg.sh start >/dev/null 2>&1'
# whoever starts holds the lock of this folder; where a start runs already it is held by that one
mkdir -p .run
exec 9>>.run/running
flock -n 9
holds "a second ./start says where the first one is, and touches nothing" told "runs in this folder already" env PORT=1 ./start
holds "a certificate that is not there is told" told "cannot be read" env TLS_CERT=/nowhere.pem TLS_KEY=/nowhere.pem ./start
holds "an option that is none is told" told "usage: ./start" ./start --rest-demo
echo "database: $passed passed, $failed failed"
[ "$failed" = 0 ]
