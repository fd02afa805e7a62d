#!/usr/bin/env bash
# A PostgreSQL cluster of the project's own, on loopback, with a generated password.
#
#   cluster.sh start NAME    makes it if needed, starts it if needed, prints its address
#   cluster.sh stop NAME     stops it
#   cluster.sh remove NAME   stops it and deletes its folder (test clusters)
#   cluster.sh folder NAME   prints where it lies
#
# NAME is part of the folder's name: "main" for npm start, "test-PID" for a test run. As root everything runs as the
# user postgres, because postgres refuses to be root.
set -euo pipefail
umask 077
action=$1 name=$2
checkout=$(cd "$(dirname "$0")/.." && pwd)
uid=$(id -u)
say() { echo "$*" >&2; }

bin=""
for candidate in $(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V); do
  [ -x "$candidate/initdb" ] && [ -x "$candidate/postgres" ] && bin=$candidate
done
[ -n "$bin" ] || { say "No PostgreSQL server binaries were found."; exit 3; }

as_owner() { if [ "$uid" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else (cd / && "$@"); fi; }

# The checkout's own folder, unless the user postgres cannot reach it.
parent=$checkout
if [ "$uid" = 0 ] && ! as_owner test -x "$checkout" 2>/dev/null; then
  parent=/var/tmp/pale-cap-$uid-$(printf %s "$checkout" | sha256sum | cut -c1-12)
  mkdir -p "$parent" && chmod 711 "$parent"
fi
folder=$parent/.pg-$uid-$name
lock=$parent/.pg-$uid-$name.lock
password_file=$parent/.pg-$uid-$name.password

running_port() { # prints the port if a live postgres of ours serves this folder
  local pid_file=$folder/postmaster.pid pid
  [ -f "$pid_file" ] || return 1
  pid=$(sed -n 1p "$pid_file")
  # A live postmaster's working directory is its data directory: a recycled pid or a zombie fails here.
  if [ "$(readlink "/proc/$pid/cwd" 2>/dev/null)" != "$(readlink -f "$folder")" ]; then
    rm -f "$pid_file"
    return 1
  fi
  sed -n 4p "$pid_file"
}

make_cluster() {
  local fresh=$folder.new.$$
  rm -rf "$folder".new.*
  head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' >"$password_file.new"
  mkdir "$fresh"
  cp "$password_file.new" "$fresh.pw"
  [ "$uid" = 0 ] && chown postgres "$fresh" "$fresh.pw"
  as_owner "$bin/initdb" -D "$fresh" -U postgres -A scram-sha-256 --pwfile="$fresh.pw" -E UTF8 --locale=C.UTF-8 >/dev/null
  rm -f "$fresh.pw"
  mv "$password_file.new" "$password_file"
  # Renamed into place at the end: an interrupted initdb leaves nothing half-made.
  mv "$fresh" "$folder"
}

start_cluster() {
  [ -f "$folder/PG_VERSION" ] && [ -f "$password_file" ] || { rm -rf "$folder"; make_cluster; }
  local port=55432 options=""
  case $name in test-*) options="-c fsync=off -c synchronous_commit=off -c full_page_writes=off" ;; esac
  while [ "$port" -lt 55532 ]; do
    # Two clusters starting at once can want the same port: then the loser tries the next.
    if ! (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null &&
      as_owner "$bin/pg_ctl" start -w -s -D "$folder" -l "$folder/server.log" \
        -o "-c listen_addresses=127.0.0.1 -p $port -c unix_socket_directories='' $options" >/dev/null 2>&1 9>&-; then
      return 0
    fi
    port=$((port + 1))
  done
  say "PostgreSQL did not start; its log is $folder/server.log"
  exit 1
}

case $action in
  start)
    exec 9>"$lock"
    flock 9
    running_port >/dev/null || start_cluster
    echo "postgres://postgres:$(cat "$password_file")@127.0.0.1:$(running_port)/"
    ;;
  stop | remove)
    exec 9>"$lock"
    flock 9
    if running_port >/dev/null; then as_owner "$bin/pg_ctl" stop -w -s -m fast -D "$folder" >/dev/null 9>&-; fi
    if [ "$action" = remove ]; then rm -rf "$folder" "$password_file" "$lock"; fi
    ;;
  folder) echo "$folder" ;;
  *) say "usage: cluster.sh start|stop|remove|folder NAME" && exit 2 ;;
esac
