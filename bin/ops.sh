#!/usr/bin/env bash
# npm run backup -- --to=FILE [--of=NAME] [--passphrase-file=FILE] [--key-to=FILE]      while the application runs, or not
# npm run restore -- --from=FILE --into=NAME [--passphrase-file=FILE] [--key-from=FILE] into a database that is empty
# npm run reseal -- [--of=NAME]                                                         another key; the application must be stopped
# npm run firm -- --name="Links of the isles" --email=owner@isles.example [--of=NAME]   another firm on the same installation
# NAME is a database cluster beside the application: demo, where no other is said.
source "$(dirname "$0")/lib.sh"
check_node
command="${1:-}"
shift || true
name=demo args=()
for arg in "$@"; do
  case "$arg" in
    --of=* | --into=*) name="${arg#*=}" ;;
    *) args+=("$arg") ;;
  esac
done
[[ "$name" =~ ^[a-z]+$ ]] || fail "$name is no name of a cluster: small letters alone."
need_packages postgresql-15 postgresql-15-postgis-3 postgresql-15-postgis-3-scripts
need_modules
[ "$command" = restore ] || [ -d ".data/$name" ] || fail "there is no cluster $name here."
was="$(node bin/db.mjs status "$name")"
start_database "$name"
[ "$was" = running ] || trap 'node bin/db.mjs stop "$name"' EXIT
DATABASE_OWNER_URL="$owner_url" DATABASE_BACKUP_URL="$(node bin/db.mjs url "$name" backup)" DATABASE_ADMIN_URL="$(node bin/db.mjs url "$name" admin)" \
  node_modules/.bin/tsx src/ops/main.ts "$command" "${args[@]}"
