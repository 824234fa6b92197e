# Sourced by ./start and ./test: brings a bare machine to where the project runs. Safe to run again.
need_node() {
  command -v node >/dev/null || { echo "Node.js 20 or newer is missing: install it, then run this again." >&2; exit 1; }
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || { echo "Node.js 20 or newer is needed; this is $(node -v)." >&2; exit 1; }
}
npm_packages() { # again only when the lock file is newer than what is installed
  if [ ! -f node_modules/.package-lock.json ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
    echo "Installing npm packages (about a minute) …" >&2
    npm ci --no-audit --no-fund --ignore-scripts --loglevel=error >&2
    touch node_modules/.package-lock.json
  fi
}
build_app() { # again only when a source is newer than the build
  local newest
  newest="$(find apps packages demo scripts/build-server.mjs package-lock.json -type f -not -path '*/node_modules/*' -newer dist/built 2>/dev/null | head -1 || true)"
  if [ ! -f dist/built ] || [ -n "$newest" ]; then
    echo "Building …" >&2
    rm -f dist/built
    npm run -s build >&2
    touch dist/built
  fi
}
chromium_for_tests() { # the one without windows works half again as fast; the whole one does as well
  command -v chromium-headless-shell >/dev/null && return
  local has_whole=""; command -v chromium >/dev/null && has_whole=yes
  if [ "$(id -u)" != 0 ]; then
    [ -n "$has_whole" ] && return
    echo "Chromium is missing: as root, apt-get install chromium-headless-shell" >&2; exit 1
  fi
  echo "Installing Chromium …" >&2
  export DEBIAN_FRONTEND=noninteractive
  { timeout 60 apt-get update -qq && timeout 120 apt-get install -y -qq --no-install-recommends chromium-headless-shell; } >/dev/null 2>&1 && return
  [ -n "$has_whole" ] && return
  timeout 300 apt-get install -y -qq --no-install-recommends chromium >/dev/null 2>&1 ||
    { echo "Chromium could not be installed: as root, apt-get install chromium-headless-shell" >&2; exit 1; }
}
secret() { # one for this checkout, made on first use
  mkdir -p .run
  if [ ! -s .run/secret ]; then (umask 077; od -An -N32 -tx1 /dev/urandom | tr -d ' \n' > .run/secret); fi
  cat .run/secret
}
