#!/usr/bin/env bash
# npm run screenshots: the pictures in docs/screenshots, made anew from the demo job.
source "$(dirname "$0")/lib.sh"
check_node
need_packages postgresql-15 postgresql-15-postgis-3 postgresql-15-postgis-3-scripts chromium curl
need_modules
port="${DRYARC_BENCH_PORT:-4630}"
port_is_free "$port" || fail "port $port is in use; set DRYARC_BENCH_PORT to a free one."
start_database pictures
app="" worker=""
trap 'stop_process "$app"; stop_process "$worker"; node bin/db.mjs stop pictures' EXIT
set_up --fresh
need_build
start_app pictures "$port"
start_worker pictures
wait_for_app "$port" "$app" || fail "the application did not start."
DRYARC_URL="http://127.0.0.1:$port" node_modules/.bin/tsx bench/pictures.ts
