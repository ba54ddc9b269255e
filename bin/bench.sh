#!/usr/bin/env bash
# npm run bench: timings of the core (-- rack, -- hub, -- network, -- air, -- wiring, -- aim: of those), and of dragging a mast in headless Chromium. npm run bench -- core (or -- proof, -- solve) leaves the browser out, -- survey stops after imports and views, -- people (seconds) has fifty people at once, -- firm (seconds) fifty of a firm over TLS, signed in, -- large a job of 200,000 footprints, -- drag the dragged mast alone, -- load the first load of each sheet.
source "$(dirname "$0")/lib.sh"
check_node
need_modules
case "${1:-}" in proof | "") node_modules/.bin/tsx bench/proof.ts ;; esac
[ "${1:-}" = proof ] && exit 0
case "${1:-}" in rack | hub | network | air | wiring | aim) node_modules/.bin/tsx "bench/$1.ts" && exit 0 ;; esac
case "${1:-}" in survey | solve | people | firm | large | drag | load) ;; *) node_modules/.bin/tsx bench/core.ts ;; esac
[ "${1:-}" = core ] && exit 0
case "${1:-}" in survey | people | firm | large | drag | load) ;; *) node_modules/.bin/tsx bench/solve.ts ;; esac
[ "${1:-}" = solve ] && exit 0
need_packages postgresql-15 postgresql-15-postgis-3 postgresql-15-postgis-3-scripts chromium curl
port="${DRYARC_BENCH_PORT:-4630}"
port_is_free "$port" || fail "port $port is in use; set DRYARC_BENCH_PORT to a free one."
start_database dev
DATABASE_TEST_URL="$(node bin/db.mjs url dev admin)"
export DATABASE_TEST_URL DATABASE_WORKER_URL="$worker_url"
app="" worker=""
trap 'stop_process "$app"; stop_process "$worker"; node bin/db.mjs stop dev' EXIT
set_up
node bin/workers.mjs
case "${1:-}" in people | firm | large | drag | load) ;; *) node_modules/.bin/tsx bench/survey.ts ;; esac
[ "${1:-}" = survey ] && exit 0
need_build
if [ "${1:-}" = firm ]; then
  export DRYARC_PORT=4632 DRYARC_APP_PORT="$port" DRYARC_TRUST_PORT=4633
  prepare_front dev "" dryarc.local
  front=""
  trap 'stop_process "$front"; stop_process "$app"; stop_process "$worker"; node bin/db.mjs stop dev' EXIT
  # A run before has used up the tries of this address.
  psql -q "$DATABASE_TEST_URL" -c "DELETE FROM auth.tries"
  start_app dev "$port"
  start_worker dev
  start_front dev
  wait_for_app "$port" "$app" || fail "the application did not start."
  DRYARC_APP_PID="$app" node_modules/.bin/tsx bench/firm.ts "${2:-300}" && exit 0 || exit 1
fi
start_app dev "$port"
start_worker dev
wait_for_app "$port" "$app" || fail "the application did not start."
export DRYARC_URL="http://127.0.0.1:$port" DRYARC_APP_PID="$app"
case "${1:-}" in
  people) node_modules/.bin/tsx bench/people.ts "${2:-60}" && exit 0 || exit 1 ;;
  load) node_modules/.bin/tsx bench/load.ts && exit 0 || exit 1 ;;
  large) node_modules/.bin/tsx bench/large.ts && exit 0 || exit 1 ;;
esac
node_modules/.bin/tsx bench/drag.ts
