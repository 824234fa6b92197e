#!/usr/bin/env bash
# Browser tests against a server of their own on a fresh database of the test cluster.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. scripts/setup.sh
base="${TEST_DATABASE_URL:-$(PG_NAME=test scripts/pg.sh start)}"
name="e2e_$$"
node --input-type=module -e 'import pg from "pg"; const c = new pg.Client({ connectionString: process.argv[1] }); await c.connect(); await c.query(`create database ${process.argv[2]}`); await c.end();' "$base" "$name"
export DATABASE_URL="${base%/*}/$name" SESSION_SECRET="$(secret)" MIGRATIONS="$PWD/apps/server/db/migrations" WEB_ROOT="$PWD/dist/web"
PORT=4390; while (exec 3<>"/dev/tcp/127.0.0.1/$PORT") 2>/dev/null; do PORT=$((PORT + 1)); done
export PORT E2E_URL="http://127.0.0.1:$PORT"
log="$(mktemp)"
node dist/server/main.js >"$log" 2>&1 &
server=$!
trap 'kill -TERM $server 2>/dev/null || true; wait $server 2>/dev/null || true; rm -f "$log"' EXIT
for _ in $(seq 150); do grep -q "is open at" "$log" && break; kill -0 $server 2>/dev/null || break; sleep 0.2; done
grep -q "is open at" "$log" || { cat "$log"; echo "the server for the browser tests did not start"; exit 1; }
npx playwright test "$@"
