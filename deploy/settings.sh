#!/usr/bin/env bash
# Makes the settings of an installation, once: a role and a password for each process, and who may read which. Run as root on Debian 12,
# in the folder of the program, after the database "dryarc" was made and bin/database.sql was run in it.
#   bash deploy/settings.sh NAME [ADDRESS]   NAME that people and phones use; ADDRESS the front listens on, of those this machine has
#   bash deploy/settings.sh NAME --proxy     a proxy of your own speaks TLS and is the only way in
set -euo pipefail
etc="${DRYARC_ETC:-/etc/dry-arc}" state="${DRYARC_STATE:-/var/lib/dry-arc}" port="${PGPORT:-5432}"
fail() {
  echo "dry-arc: $*" >&2
  exit 1
}
name="${1:-}" address="${2:-}"
[[ "$name" =~ ^[a-z0-9]([a-z0-9.-]*[a-z0-9])?$ ]] || fail "say the name that people will use: bash deploy/settings.sh arc.firm.example"
[ ! -e "$etc/app.env" ] || fail "$etc has settings already; they are not written over."
[ -f build/front.mjs ] || fail "build the program first: npm ci && npm run build"
[ -n "$address" ] || address="$(node build/front.mjs address)" || exit 1
code() { node -p 'require("crypto").randomBytes(16).toString("base64url")'; }
as_postgres() { if [ "$(id -u)" -eq 0 ]; then setpriv --reuid=postgres --regid=postgres --clear-groups "$@"; else "$@"; fi; }

umask 077
mkdir -p "$etc"
url() { echo "postgres://$1:$2@127.0.0.1:$port/dryarc"; }
declare -A word
for role in dryarc dryarc_app dryarc_door dryarc_worker dryarc_backup; do
  word[$role]="$(code)"
  # Over standard input: a password stands in no list of processes.
  echo "ALTER ROLE $role PASSWORD '${word[$role]}';" | as_postgres psql -p "$port" -q -v ON_ERROR_STOP=1 -d dryarc -f - || fail "the database did not take a password for $role; was bin/database.sql run in it?"
done
front_key="$(code)" first="$(code)"
if [ "$address" = --proxy ]; then
  hosts="$name" origin="https://$name" trust=""
else
  told="$(DRYARC_NAME="$name" DRYARC_LAN="$address" DRYARC_PORT=443 DRYARC_TRUST_PORT=80 node build/front.mjs check)"
  hosts="$(sed -n 's/^hosts=//p' <<<"$told")" origin="$(sed -n 's/^origin=//p' <<<"$told")" trust="$(sed -n 's/^trust=//p' <<<"$told")"
fi
cat >"$etc/app.env" <<END
DATABASE_URL=$(url dryarc_app "${word[dryarc_app]}")
DATABASE_DOOR_URL=$(url dryarc_door "${word[dryarc_door]}")
DRYARC_FILES=$state/files
DRYARC_KEYS=$state/keys
DRYARC_SIGN_IN=on
DRYARC_ALLOWED_HOSTS=$hosts
DRYARC_ORIGIN=$origin
DRYARC_TRUST_URL=$trust
DRYARC_FIRST_CODE=$first
$([ "$address" = --proxy ] && echo DRYARC_TRUSTED_PROXY=yes || echo "DRYARC_FRONT_KEY=$front_key")
END
cat >"$etc/worker.env" <<END
DATABASE_URL=$(url dryarc_worker "${word[dryarc_worker]}")
DRYARC_FILES=$state/files
END
cat >"$etc/owner.env" <<END
DATABASE_OWNER_URL=$(url dryarc "${word[dryarc]}")
DATABASE_DOOR_URL=$(url dryarc_door "${word[dryarc_door]}")
DRYARC_KEYS=$state/keys
END
cat >"$etc/backup.env" <<END
DATABASE_BACKUP_URL=$(url dryarc_backup "${word[dryarc_backup]}")
DRYARC_FILES=$state/files
DRYARC_KEYS=$state/keys
END
[ "$address" = --proxy ] || cat >"$etc/front.env" <<END
DRYARC_NAME=$name
DRYARC_LAN=$address
DRYARC_PORT=443
DRYARC_TRUST_PORT=80
DRYARC_APP_PORT=4640
DRYARC_TLS=$state/tls
DRYARC_FRONT_KEY=$front_key
END
echo "settings are in $etc. The first who opens $origin/first#$first becomes the owner; take DRYARC_FIRST_CODE out of app.env after that."
