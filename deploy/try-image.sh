#!/usr/bin/env bash
# Follows deploy/Containerfile without a container engine: a Debian from
# debootstrap, each RUN and COPY in it, and the CMD as its USER in a chroot.
#   try-image.sh DIR [COMMAND…]    (as root; DIR is made, and kept for the next time)
# A COMMAND is run beside it once it answers, and all of it ends with the command.
set -euo pipefail
dir=$(realpath -m "$1"); shift
cd "$(dirname "$0")/.."
mounted=()
end() {
  [ -z "${corte:-}" ] || { kill "$corte" 2>/dev/null && wait "$corte" || true; }
  for at in "${mounted[@]}"; do umount -lR "$at"; done
}
trap end EXIT
env=() user=root
while read -r what rest; do
  case $what in
  FROM)
    suite=${rest#debian:}
    [ -e "$dir/etc/debian_version" ] || debootstrap --variant=minbase "${suite%-slim}" "$dir"
    for at in proc dev; do mount --rbind "/$at" "$dir/$at" && mount --make-rslave "$dir/$at" && mounted=("$dir/$at" "${mounted[@]}"); done
    cp /etc/apt/sources.list "$dir/etc/apt/" 2>/dev/null || true
    cp /etc/apt/apt.conf.d/*prox* "$dir/etc/apt/apt.conf.d/" 2>/dev/null || true ;;
  RUN) chroot "$dir" /usr/bin/env -i PATH="$PATH" sh -c "$rest" ;;
  COPY) cp ${rest% *} "$dir${rest##* }" ;;
  ENV) env+=("$rest") ;;
  USER) user=$rest ;;
  CMD) cmd=$(sed 's/[][",]//g' <<<"$rest") ;;
  VOLUME | STOPSIGNAL | '' | '#'*) ;;
  *) echo "try-image: nobody taught it $what" >&2; exit 1 ;;
  esac
done <deploy/Containerfile
listen=${CORTE_LISTEN:-127.0.0.1:8399} # it is this machine's loopback here
setsid chroot --userspec="$user" "$dir" /usr/bin/env -i PATH="$PATH" "${env[@]}" CORTE_LISTEN="$listen" $cmd &
corte=$!
for _ in $(seq 90); do curl -sf "http://$listen/api/v1/health" >/dev/null && break; sleep 1; done
"${@:-true}"
