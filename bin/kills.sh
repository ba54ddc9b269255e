#!/usr/bin/env bash
# npm run nightly: 200 kills of servers, workers, readers and database under load, then a disk that runs full.
# npm run nightly -- 20 for fewer. npm test -- spoilt is the other thing for a night. Ends with a fault where anything acknowledged is lost, half, or stuck.
source "$(dirname "$0")/lib.sh"
check_node
need_packages postgresql-15 postgresql-15-postgis-3 postgresql-15-postgis-3-scripts curl
need_modules
need_build
rm -rf .data/kills
node_modules/.bin/tsx bench/kills.ts "${1:-200}" "${2:-20}"
node_modules/.bin/tsx bench/full-disk.ts
