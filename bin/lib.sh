# Shared by the start and test commands. Sourced, not run.
set -euo pipefail
root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
cd "$root"
export NEXT_TELEMETRY_DISABLED=1 CHECKPOINT_DISABLE=1

fail() {
  echo "dry-arc: $*" >&2
  exit 1
}

check_node() {
  command -v node >/dev/null || fail "Node.js is missing; install version 20 or later."
  local major
  major="$(node -p 'process.versions.node.split(".")[0]')"
  [ "$major" -ge 20 ] || fail "Node.js $major is too old; install version 20 or later."
}

check_disk() {
  local free_mb
  free_mb=$(($(df -Pk "$root" | awk 'NR==2 {print $4}') / 1024))
  [ "$free_mb" -ge 1500 ] || fail "the disk has ${free_mb} MB free; 1500 MB are needed for packages, build and database."
}

is_installed() { dpkg-query -W -f '${Status}' "$1" 2>/dev/null | grep -q 'install ok installed'; }

# Installs the named Debian packages that are missing.
need_packages() {
  command -v dpkg-query >/dev/null || fail "this is not Debian; install PostgreSQL 15 with PostGIS by hand (see README)."
  local name missing=()
  for name in "$@"; do is_installed "$name" || missing+=("$name"); done
  [ ${#missing[@]} -eq 0 ] && return
  local as=()
  if [ "$(id -u)" -ne 0 ]; then
    if command -v sudo >/dev/null && sudo -n true 2>/dev/null; then as=(sudo -n); else
      fail "these packages are missing and this user may not install them; run: sudo apt-get install ${missing[*]}"
    fi
  fi
  echo "dry-arc: installing ${missing[*]}"
  local log
  log="$(mktemp)"
  if ! { "${as[@]}" apt-get update -q && "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends "${missing[@]}"; } >"$log" 2>&1; then
    tail -n 3 "$log" >&2
    fail "Debian's packages could not be installed: ${missing[*]}"
  fi
  rm -f "$log"
}

need_modules() {
  local want have stamp="$root/node_modules/.dry-arc-lock"
  want="$(sha256sum package-lock.json | cut -d' ' -f1)"
  have="$(cat "$stamp" 2>/dev/null || true)"
  [ "$want" = "$have" ] && return
  echo "dry-arc: installing node packages"
  npm ci --no-audit --no-fund --loglevel=error || fail "node packages could not be installed; see above."
  echo "$want" >"$stamp"
}

port_is_free() {
  node -e 'const s=require("net").connect({host:"127.0.0.1",port:+process.argv[1]});s.once("connect",()=>process.exit(1));s.once("error",()=>process.exit(0))' "$1"
}

# Builds when anything that goes into the build has changed.
need_build() {
  local want stamp="$root/.next/dry-arc-built"
  want="$(find src bin/workers.mjs bin/keep.mjs package-lock.json next.config.ts postcss.config.mjs tsconfig.json -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)"
  [ "$want" = "$(cat "$stamp" 2>/dev/null || true)" ] && [ -f .next/BUILD_ID ] && [ -d public/workers ] && [ -f build/worker.mjs ] && return
  echo "dry-arc: building"
  local log
  log="$(mktemp)"
  if ! { node bin/workers.mjs && node_modules/.bin/next build; } >"$log" 2>&1; then
    tail -n 40 "$log" >&2
    fail "the build failed; see above."
  fi
  rm -f "$log"
  echo "$want" >"$stamp"
}

# Starts the database cluster of that name. DATABASE_URL and DATABASE_DOOR_URL are what the application may reach it by; the owner,
# who changes the schema, and the worker have addresses of their own, and each process is given its own alone.
start_database() {
  node bin/db.mjs start "$1"
  DATABASE_URL="$(node bin/db.mjs url "$1" app)"
  DATABASE_DOOR_URL="$(node bin/db.mjs url "$1" door)"
  export DATABASE_URL DATABASE_DOOR_URL
  owner_url="$(node bin/db.mjs url "$1" owner)"
  worker_url="$(node bin/db.mjs url "$1" worker)"
  # Files on their way in lie beside the cluster they belong to.
  export DRYARC_FILES="$root/.data/$1/files"
  # The key that seals and signs lies beside the cluster, never in it.
  export DRYARC_KEYS="$root/.data/$1/keys"
}

# Migrates the database and writes the demo job where there is none; as its owner.
set_up() { DATABASE_OWNER_URL="$owner_url" node_modules/.bin/tsx demo/setup.ts "$@"; }

random_code() { node -p 'require("crypto").randomBytes(16).toString("base64url")'; }

# Settings of a server that others reach: sign-in on, the application behind the front. $1 the cluster's name, $2 the address to
# listen on ("" for loopback alone), $3 the name that stays ("" for this machine's own).
prepare_front() {
  [ -f build/front.mjs ] || node bin/workers.mjs
  export DRYARC_SIGN_IN=on DRYARC_LAN="$2" DRYARC_NAME="$3" DRYARC_TLS="$root/.data/$1/tls"
  DRYARC_FRONT_KEY="$(random_code)"
  DRYARC_FIRST_CODE="$(random_code)"
  export DRYARC_FRONT_KEY DRYARC_FIRST_CODE
  local told
  told="$(node build/front.mjs check)" || exit 1
  DRYARC_ALLOWED_HOSTS="$(sed -n 's/^hosts=//p' <<<"$told")"
  DRYARC_ORIGIN="$(sed -n 's/^origin=//p' <<<"$told")"
  DRYARC_TRUST_URL="$(sed -n 's/^trust=//p' <<<"$told")"
  export DRYARC_ALLOWED_HOSTS DRYARC_ORIGIN DRYARC_TRUST_URL
}

# Starts the front, kept running; its number becomes $front.
start_front() {
  env -u DATABASE_URL -u DATABASE_DOOR_URL node bin/keep.mjs ".data/$1/front.log" node build/front.mjs serve &
  front=$!
}

# Starts the application on a port, kept running; its number becomes $app. Its log turns over.
start_app() {
  node bin/keep.mjs ".data/$1/app.log" node --max-semi-space-size=32 node_modules/next/dist/bin/next start --keepAliveTimeout 70000 -H 127.0.0.1 -p "$2" &
  app=$!
}

# The process that sees to the long work, kept running; its number becomes $worker.
start_worker() {
  [ -f build/worker.mjs ] || node bin/workers.mjs
  env -u DATABASE_DOOR_URL DATABASE_URL="$worker_url" node bin/keep.mjs ".data/$1/worker.log" node build/worker.mjs &
  worker=$!
}

stop_process() {
  if [ -n "$1" ]; then
    kill "$1" 2>/dev/null || true
    wait "$1" 2>/dev/null || true
  fi
}

wait_for_app() {
  local i
  for ((i = 0; i < 300; i++)); do
    curl -fs -o /dev/null "http://127.0.0.1:$1/api/health" && return 0
    kill -0 "$2" 2>/dev/null || return 1
    sleep 0.2
  done
  return 1
}
