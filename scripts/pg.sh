#!/usr/bin/env bash
# A private PostgreSQL: scripts/pg.sh install|start|stop|status|url|home|pids|destroy. As root it runs as `postgres`, else as the caller.
# PG_NAME (default "app") keeps clusters of one checkout apart: the tests use their own. The port is chosen once and remembered.
set -euo pipefail
DB=app; DBUSER=app; APPUSER=lane; NAME="${PG_NAME:-app}" # the cluster is made by DBUSER; what serves pages is APPUSER, no superuser
PROJ="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)"
if [ "$(id -u)" = 0 ]; then OWNER=postgres; else OWNER="$(id -un)"; fi
as_owner() { # from a folder the owner can enter
  if [ "$(id -un)" = "$OWNER" ]; then (cd / && "$@"); else (cd / && runuser -u "$OWNER" -- "$@"); fi
}
bindir() { # Debian keeps initdb/pg_ctl out of PATH
  local d; d="$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1)" || true
  [ -n "$d" ] && [ -x "$d/initdb" ] || return 1; echo "$d"
}
install_pg() { # makes and starts no system cluster
  bindir >/dev/null && return
  [ "$(id -u)" = 0 ] || { echo "PostgreSQL is missing: as root, apt-get install postgresql" >&2; exit 1; }
  export DEBIAN_FRONTEND=noninteractive
  apt-get update -qq >&2
  apt-get install -y -qq --no-install-recommends postgresql-common >&2
  sed -i 's/^#\?create_main_cluster.*/create_main_cluster = false/' /etc/postgresql-common/createcluster.conf
  apt-get install -y -qq --no-install-recommends postgresql >&2
}
pick_home() { # root: the project may lie under a folder (/root is 0700) that `postgres` cannot enter; then in that user's own home
  if [ -n "${PG_HOME:-}" ]; then echo "$PG_HOME"; return; fi
  if as_owner test -x "$PROJ" 2>/dev/null; then echo "$PROJ/.pg/$NAME"
  else echo "$(getent passwd "$OWNER" | cut -d: -f6)/probe-lane-$(printf '%s' "$PROJ" | cksum | cut -d' ' -f1)-$NAME"; fi
}
mine() { # a folder that was made beforehand by somebody else, or that others can write to, holds no database of ours
  [ ! -L "$1" ] && [ "$(stat -c %U "$1")" = "$OWNER" ] && [ $((0$(stat -c %a "$1") & 022)) = 0 ] ||
    { echo "$1 belongs to somebody else or can be written by others: move it away, then run this again." >&2; exit 1; }
}
case "${1:-start}" in install) install_pg; bindir; exit ;; esac
B="$(bindir)" || { [ "${1:-start}" = start ] && install_pg && B="$(bindir)"; } || { echo "run: $0 install" >&2; exit 1; }
H="$(pick_home)"; DATA="$H/data"; LOG="$H/log"   # after the install: it needs the postgres user
taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
ephemeral() { # ports that the system hands out to outgoing connections, which could take one between two starts
  local low high; read -r low high < /proc/sys/net/ipv4/ip_local_port_range 2>/dev/null || { low=32768; high=60999; }
  [ "$1" -ge "$low" ] && [ "$1" -le "$high" ]
}
free_port() { local p=25432; while taken "$p" || ephemeral "$p"; do p=$((p + 1)); done; echo "$p"; }
PORT="$(cat "$H/port" 2>/dev/null || true)"
URL() { echo "postgres://$APPUSER:$(cat "$H/password.$APPUSER")@127.0.0.1:$PORT/$DB"; }
new_password() { [ -s "$1" ] || { (umask 077; od -An -N24 -tx1 /dev/urandom | tr -d ' \n' > "$1"); [ "$(id -u)" != 0 ] || chown "$OWNER" "$1"; }; }
application_role() { # the application's own role: owns the database and all that is in it, and rules nothing else
  local secret; secret="$(cat "$H/password.$APPUSER")"
  # the tests make a database for each file
  "${Q[@]}" "do \$\$ begin if not exists (select from pg_roles where rolname = '$APPUSER') then create role $APPUSER login; end if; end \$\$;
    alter role $APPUSER with login nosuperuser nocreaterole $([ "$NAME" = app ] && echo nocreatedb || echo createdb) password '$secret'"
  [ "$("${Q[@]}" "select 1 from pg_database where datname='$DB'")" = 1 ] || "${Q[@]}" "create database $DB owner $APPUSER"
  [ "$("${Q[@]}" "select pg_get_userbyid(datdba) from pg_database where datname='$DB'")" = "$APPUSER" ] && return
  "${Q[@]}" "alter database $DB owner to $APPUSER"   # made before there was a role of the application's own
  PGDATABASE="$DB" "$B/psql" -h 127.0.0.1 -p "$PORT" -U "$DBUSER" -d "$DB" -qAt <<SQL
do \$\$ declare r record; begin
  for r in select nspname from pg_namespace where nspowner = '$DBUSER'::regrole and nspname !~ '^pg_|^information_schema' loop
    execute format('alter schema %I owner to $APPUSER', r.nspname); end loop;
  for r in select c.oid::regclass as name from pg_class c join pg_namespace n on n.oid = c.relnamespace
    where c.relowner = '$DBUSER'::regrole and c.relkind in ('r', 'p', 'v', 'm') and n.nspname !~ '^pg_|^information_schema' loop
    execute format('alter table %s owner to $APPUSER', r.name); end loop;
  for r in select p.oid::regprocedure as name from pg_proc p join pg_namespace n on n.oid = p.pronamespace
    where p.proowner = '$DBUSER'::regrole and n.nspname !~ '^pg_|^information_schema' loop
    execute format('alter function %s owner to $APPUSER', r.name); end loop;
  for r in select t.oid::regtype as name from pg_type t join pg_namespace n on n.oid = t.typnamespace
    where t.typowner = '$DBUSER'::regrole and t.typtype = 'e' and n.nspname !~ '^pg_|^information_schema' loop
    execute format('alter type %s owner to $APPUSER', r.name); end loop;
end \$\$;
SQL
}
# pg_ctl status and the server's lock files believe any live PID (zombie, recycled): look for processes whose cwd is the data folder
procs() { local c; for c in /proc/[0-9]*/cwd; do [ "$c" -ef "$DATA" ] && return 0; done; return 1; }
running() { [ -n "$PORT" ] && "$B/pg_isready" -q -t 3 -h 127.0.0.1 -p "$PORT" && procs; }
case "${1:-start}" in
start)
  mkdir -p "$H"; [ "$(id -u)" != 0 ] || [ "$(dirname "$H")" != "$PROJ/.pg" ] || chmod 711 "$PROJ/.pg"
  if [ -z "$(ls -A "$H")" ]; then [ "$(id -u)" != 0 ] || chown "$OWNER" "$H"; chmod 711 "$H"; fi
  mine "$H"
  new_password "$H/password"; new_password "$H/password.$APPUSER"
  if [ ! -f "$DATA/PG_VERSION" ]; then
    rm -rf "$DATA" "$DATA.new"       # made aside: an interrupted initdb never looks whole
    as_owner "$B/initdb" -D "$DATA.new" -U "$DBUSER" --pwfile="$H/password" --auth=scram-sha-256 \
      -E UTF8 --locale=C.UTF-8 --no-sync >"$H/initdb.out" 2>&1 || { cat "$H/initdb.out" >&2; exit 1; }
    printf "%s\n" "listen_addresses = '127.0.0.1'" "unix_socket_directories = ''" \
      "max_connections = 60" "timezone = 'UTC'" "log_timezone = 'UTC'" >> "$DATA.new/postgresql.conf"
    mv "$DATA.new" "$DATA"
  fi
  if ! running; then
    for _ in $(seq 100); do running && break; procs || break; sleep 0.1; done  # orphans of a killed postmaster end by themselves
    if ! running; then
      procs && { echo "server processes hang in $DATA" >&2; exit 1; }
      rm -f "$DATA/postmaster.pid"   # nothing runs here: stale
      if [ -z "$PORT" ] || taken "$PORT" || ephemeral "$PORT"; then PORT="$(free_port)"; echo "$PORT" > "$H/port"; fi
      as_owner "$B/pg_ctl" -D "$DATA" -l "$LOG" -o "-p $PORT" -w -t 60 start >/dev/null 2>&1 || { tail -20 "$LOG" >&2; exit 1; }
    fi
  fi
  export PGPASSWORD; PGPASSWORD="$(cat "$H/password")"; Q=("$B/psql" -h 127.0.0.1 -p "$PORT" -U "$DBUSER" -d postgres -qAtc)
  application_role
  URL ;;
stop)    if procs; then as_owner "$B/pg_ctl" -D "$DATA" -m fast -w -t 30 stop >/dev/null; fi; echo stopped ;;
status)  running && { echo running; URL; } || { echo stopped; exit 3; } ;;
url)     URL ;;
home)    echo "$H" ;;
pids)    for c in /proc/[0-9]*/cwd; do if [ "$c" -ef "$DATA" ]; then c="${c#/proc/}"; echo "${c%/cwd}"; fi; done ;;
destroy) if procs; then as_owner "$B/pg_ctl" -D "$DATA" -m immediate -w stop >/dev/null; fi; rm -rf "$H" ;;
*) echo "usage: $0 install|start|stop|status|url|home|pids|destroy" >&2; exit 2 ;;
esac
