#!/usr/bin/env bash
# npm run demo            start with the demo job; what was made before is kept
# npm run demo -- --fresh start over (asks first; --yes answers)
# npm run demo -- --lan[=ADDRESS] [--name=NAME]  for others and their phones: TLS and sign-in, on one address of this machine
source "$(dirname "$0")/lib.sh"
fresh=0 yes=0 lan="" name="" open=0
for arg in "$@"; do
  case "$arg" in
    --fresh) fresh=1 ;;
    --yes) yes=1 ;;
    --lan) open=1 ;;
    --lan=*) open=1 lan="${arg#*=}" ;;
    --name=*) name="${arg#*=}" ;;
    *) fail "unknown option $arg; known are --fresh, --yes, --lan[=ADDRESS] and --name=NAME." ;;
  esac
done
port="${DRYARC_PORT:-4610}"
check_node
check_disk
port_is_free "$port" || fail "port $port is in use by another program; set DRYARC_PORT to a free one."
need_packages postgresql-15 postgresql-15-postgis-3 postgresql-15-postgis-3-scripts curl
need_modules
start_database demo

app="" worker="" front=""
stop() {
  trap - EXIT INT TERM
  stop_process "$front"
  stop_process "$app"
  stop_process "$worker"
  node bin/db.mjs stop demo
  echo "dry-arc: stopped."
}
trap 'stop' EXIT
trap 'exit 130' INT
trap 'exit 143' TERM

if [ "$fresh" -eq 1 ]; then
  counts="$(set_up --counts)"
  echo "dry-arc: starting over deletes $counts, own hardware and every edit in this database."
  if [ "$yes" -ne 1 ]; then
    [ -t 0 ] || fail "answer needed: run again with --fresh --yes to delete it."
    read -r -p "Type yes to delete it: " answer
    [ "$answer" = "yes" ] || fail "nothing was deleted."
  fi
  set_up --fresh
else
  set_up
fi
need_build
if [ "$open" -eq 0 ]; then
  start_app demo "$port"
  start_worker demo
  wait_for_app "$port" "$app" || fail "the application did not start; its last words: $(tail -n 1 .data/demo/app.log)"
  echo "dry-arc: open http://127.0.0.1:$port  (Ctrl-C stops it; open to whoever sits at this machine, and to nobody else)"
  wait "$app"
else
  [ -n "$lan" ] || lan="$(node build/front.mjs address)" || exit 1
  inner="${DRYARC_APP_PORT:-4640}"
  port_is_free "$inner" || fail "port $inner is in use by another program; set DRYARC_APP_PORT to a free one."
  export DRYARC_PORT="$port" DRYARC_APP_PORT="$inner"
  # What npm run called listens on: it may be named as an address that is told of changes.
  export DRYARC_CALL_HOSTS="${DRYARC_CALL_HOSTS:-127.0.0.1:${DRYARC_CALLED_PORT:-4699}}"
  prepare_front demo "$lan" "$name"
  start_app demo "$inner"
  start_worker demo
  wait_for_app "$inner" "$app" || fail "the application did not start; its last words: $(tail -n 1 .data/demo/app.log)"
  start_front demo
  set_up --nobody-yet || DRYARC_FIRST_CODE=""
  node build/front.mjs tell
  wait "$front"
fi
