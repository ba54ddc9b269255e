#!/usr/bin/env bash
# npm test: everything, from an empty machine. npm test -- unit|integration|browser|lan|kills|spoilt runs a part; spoilt sends two thousand files of each kind.
source "$(dirname "$0")/lib.sh"
part="${1:-all}"
check_node
check_disk
need_packages postgresql-15 postgresql-15-postgis-3 postgresql-15-postgis-3-scripts chromium gdal-bin curl poppler-utils openssl libnss3-tools
need_modules
mkdir -p .data/test
rm -f .data/test/*.json
port="${DRYARC_TEST_PORT:-4620}"
app="" worker="" beside=""
stop() {
  [ -z "$beside" ] || kill -- "-$beside" 2>/dev/null || true
  stop_process "$app"
  stop_process "$worker"
  node bin/db.mjs stop test
}
trap 'stop' EXIT
trap 'exit 130' INT TERM

if [ "$part" = all ]; then
  echo "== lint"
  node_modules/.bin/biome check .
  node_modules/.bin/depcruise src demo --config .dependency-cruiser.cjs --output-type err
  echo "== types"
  node_modules/.bin/next typegen >/dev/null
  node_modules/.bin/tsc --noEmit -p tsconfig.tools.json
fi
status=0
run_unit() {
  echo "== unit"
  node_modules/.bin/vitest run --project unit --reporter=default --reporter=json --outputFile=.data/test/unit.json
}
if [ "$part" = unit ]; then run_unit || status=1; fi
if [ "$part" = all ]; then
  # Two lanes, a processor each: units, then the pages that browsers are shown; beside them what needs the database.
  node bin/workers.mjs
  set -m
  (
    failed=0
    run_unit || failed=1
    need_build
    exit "$failed"
  ) >.data/test/beside.log 2>&1 &
  beside=$!
  set +m
fi
if [ "$part" != unit ] && [ "$part" != kills ]; then
  start_database test
  # Tests look at what is there as the administrator does.
  DATABASE_TEST_URL="$(node bin/db.mjs url test admin)"
  DATABASE_BACKUP_URL="$(node bin/db.mjs url test backup)"
  export DATABASE_TEST_URL DATABASE_BACKUP_URL DATABASE_WORKER_URL="$worker_url"
  set_up --fresh
fi
if [ "$part" = all ] || [ "$part" = integration ]; then
  echo "== integration"
  [ "$part" = all ] || node bin/workers.mjs
  node_modules/.bin/vitest run --project integration --reporter=default --reporter=json --outputFile=.data/test/integration.json || status=1
fi
if [ -n "$beside" ]; then
  wait "$beside" || status=1
  beside=""
  cat .data/test/beside.log
fi
specs=()
if [ "$part" = spoilt ]; then
  specs=(e2e/spoilt.spec.ts)
  export DRYARC_SPOILT=2000
fi
if [ "$part" = all ] || [ "$part" = browser ] || [ "$part" = spoilt ]; then
  echo "== browser"
  port_is_free "$port" || fail "port $port is in use; set DRYARC_TEST_PORT to a free one."
  need_build
  start_app test "$port"
  start_worker test
  wait_for_app "$port" "$app" || fail "the application did not start; its last words: $(tail -n 1 .data/test/app.log)"
  DRYARC_URL="http://127.0.0.1:$port" node_modules/.bin/playwright test "${specs[@]}" || status=1
fi
if [ "$part" = all ] || [ "$part" = lan ]; then
  echo "== others and their phones, over TLS"
  stop
  app="" worker=""
  start_database test
  # People that tests before have made are nobody here.
  [ "$part" = lan ] || set_up --fresh
  need_build
  rm -rf .data/test/tls
  (
    export DRYARC_PORT="${DRYARC_TEST_LAN_PORT:-4622}" DRYARC_APP_PORT="$port" DRYARC_TRUST_PORT="${DRYARC_TEST_TRUST_PORT:-4623}"
    # A program that the tests have called.
    export DRYARC_CALL_HOSTS="127.0.0.1:${DRYARC_TEST_CALLED_PORT:-4624}"
    prepare_front test "" dryarc.local
    start_app test "$port"
    start_worker test
    start_front test
    trap 'stop_process "$front"; stop_process "$app"; stop_process "$worker"' EXIT
    wait_for_app "$port" "$app" || fail "the application did not start; its last words: $(tail -n 1 .data/test/app.log)"
    node_modules/.bin/playwright test --config playwright.lan.config.ts
  ) || status=1
fi
if [ "$part" = all ] || [ "$part" = kills ]; then
  echo "== kills"
  stop
  app="" worker=""
  bash bin/kills.sh 8 || status=1
fi
[ "$part" = kills ] || node bin/counts.mjs .data/test/unit.json .data/test/integration.json .data/test/browser.json .data/test/lan.json
exit "$status"
