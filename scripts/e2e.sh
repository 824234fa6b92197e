#!/usr/bin/env bash
# Browser tests against a server of their own on a fresh database of the test cluster.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. scripts/setup.sh
base="${TEST_DATABASE_URL:-$(PG_NAME=test scripts/pg.sh start)}"
seed="e2e_seed_$$" name="e2e_$$"
sql() { node --input-type=module -e 'import pg from "pg"; const c = new pg.Client({ connectionString: process.argv[1] }); await c.connect(); await c.query(process.argv[2]); await c.end();' "$base" "$1"; }
SESSION_SECRET="$(secret)"
export SESSION_SECRET MIGRATIONS="$PWD/apps/server/db/migrations" WEB_ROOT="$PWD/dist/web"
PORT=4390; while (exec 3<>"/dev/tcp/127.0.0.1/$PORT") 2>/dev/null; do PORT=$((PORT + 1)); done
export PORT E2E_URL="http://127.0.0.1:$PORT"
log="$(mktemp)"
stop() { kill -TERM "$server" 2>/dev/null || true; wait "$server" 2>/dev/null || true; }
trap 'stop; sql "drop database if exists $seed" || true; rm -f "$log"' EXIT
serve() { # on the database $1, until it is open
  : >"$log"
  DATABASE_URL="${base%/*}/$1" node dist/server/main.js >"$log" 2>&1 &
  server=$!
  for _ in $(seq 150); do grep -q "is open at" "$log" && break; kill -0 $server 2>/dev/null || break; sleep 0.2; done
  grep -q "is open at" "$log" || { cat "$log"; echo "the server for the browser tests did not start"; exit 1; }
}
# the demo is worked out once; whatever starts a server of its own copies it
sql "create database $seed"
serve "$seed"
stop
sql "create database $name template $seed"
serve "$name"
export DATABASE_URL="${base%/*}/$name" E2E_SEED="$seed"
npx playwright test "$@"
