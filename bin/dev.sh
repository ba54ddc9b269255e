#!/usr/bin/env bash
# npm run dev: development server with its own database and the demo job.
source "$(dirname "$0")/lib.sh"
check_node
need_packages postgresql-15 postgresql-15-postgis-3 postgresql-15-postgis-3-scripts
need_modules
start_database dev
worker=""
trap 'stop_process "$worker"; node bin/db.mjs stop dev' EXIT
set_up
node bin/workers.mjs
start_worker dev
node_modules/.bin/next dev -H 127.0.0.1 -p "${DRYARC_PORT:-4611}"
