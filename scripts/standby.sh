#!/usr/bin/env bash
# A PostgreSQL and its standby, from Debian's packages: everything that the first
# has acknowledged is on the disk of the second as well.
#
#   standby.sh primary DIR PORT            sets one up in DIR and starts it; its password is in DIR/password
#   standby.sh follow DIR PORT PRIMARY_DIR PRIMARY_PORT
#                                          copies that one into DIR, follows it, and has it wait for this one
#   standby.sh promote DIR                 makes the follower the one that writes
#   standby.sh stop DIR                    stops either
#
# On two machines PGHOST says where the primary is, LISTEN on what each listens,
# and PRIMARY_DIR is a folder with a copy of its password file.
set -euo pipefail
die() { printf 'standby: %s\n' "$*" >&2; exit 1; }
bin=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1) || true
[ -n "$bin" ] || die "PostgreSQL is missing; apt-get install postgresql"
as() { if [ "$(id -u)" = 0 ]; then runuser -u postgres -- env PGPASSWORD="${PGPASSWORD:-}" "$@"; else "$@"; fi; }
host=${PGHOST:-127.0.0.1}
listen=${LISTEN:-127.0.0.1}
[ $# -ge 2 ] || die "say primary, follow, promote or stop, and the folder"
what=$1 dir=$2

folder() {
  [ ! -e "$dir/cluster" ] || die "$dir holds a PostgreSQL already"
  mkdir -p "$dir"
  [ "$(id -u)" != 0 ] || chown postgres "$dir"
}
start() {
  as "$bin/pg_ctl" -D "$dir/cluster" -l "$dir/postgres.log" -w -t 60 start \
    -o "-p $1 -c listen_addresses=$listen -c unix_socket_directories=" >/dev/null || { tail -n 5 "$dir/postgres.log" >&2; die "it does not start"; }
}

case $what in
primary)
  [ $# = 3 ] || die "primary DIR PORT"
  folder
  head -c 24 /dev/urandom | base64 | tr -d '+/=\n' >"$dir/password"
  chmod 600 "$dir/password"
  [ "$(id -u)" != 0 ] || chown postgres "$dir/password"
  as "$bin/initdb" -D "$dir/cluster" -U corte -E UTF8 --locale=C.UTF-8 --auth=scram-sha-256 --pwfile="$dir/password" >/dev/null
  start "$3"
  ;;
follow)
  [ $# = 5 ] || die "follow DIR PORT PRIMARY_DIR PRIMARY_PORT"
  folder
  PGPASSWORD=$(cat "$4/password")
  export PGPASSWORD
  # -R writes how to follow into the copy, with the name that the first waits for.
  as "$bin/pg_basebackup" -D "$dir/cluster" -R -X stream -c fast -C -S corte_standby \
    -d "host=$host port=$5 user=corte application_name=corte_standby"
  start "$3"
  as "$bin/psql" -q -h "$host" -p "$5" -U corte -d postgres -c "ALTER SYSTEM SET synchronous_standby_names = 'FIRST 1 (corte_standby)'" -c "SELECT pg_reload_conf()" >/dev/null
  for _ in $(seq 300); do
    state=$(as "$bin/psql" -At -h "$host" -p "$5" -U corte -d postgres -c "SELECT sync_state FROM pg_stat_replication WHERE application_name = 'corte_standby'")
    [ "$state" = sync ] && exit 0
    sleep 0.1
  done
  die "the primary does not wait for this one; see $dir/postgres.log"
  ;;
promote)
  # From here on it waits for nobody; a new standby is set up by follow.
  as "$bin/pg_ctl" -D "$dir/cluster" -w promote >/dev/null
  port=$(sed -n 4p "$dir/cluster/postmaster.pid")
  printf "synchronous_standby_names = ''\n" | as tee -a "$dir/cluster/postgresql.auto.conf" >/dev/null
  as "$bin/pg_ctl" -D "$dir/cluster" reload >/dev/null
  printf 'The one at port %s writes now. The earlier one must not come back as it was: take its folder away.\n' "$port"
  ;;
stop)
  as "$bin/pg_ctl" -D "$dir/cluster" -m immediate -w stop >/dev/null
  ;;
*) die "there is no $what; say primary, follow, promote or stop" ;;
esac
