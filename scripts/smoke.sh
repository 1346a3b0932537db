#!/usr/bin/env bash
# Starts the demo on its own data folder and a free port, asks it a few things,
# kills it hard, and starts it again on the same data.
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."
unset DATABASE_URL
data=$(mktemp -d)
chmod 755 "$data"
log="$data/out"
pid=
finish() {
    if [ -n "$pid" ]; then kill "$pid" 2>/dev/null || true; wait "$pid" 2>/dev/null || true; fi
    rm -rf "$data"
}
trap finish EXIT

begin() {
    : >"$log" # there and empty before it is read; the program opens it in its own time
    CORVEK_DATA="$data/pg" ./bin/corvek demo --addr 127.0.0.1:0 >"$log" 2>&1 &
    pid=$!
    for _ in $(seq 200); do
        url=$(sed -n 's/^Corvek serves on //p' "$log")
        [ -n "$url" ] && return
        kill -0 "$pid" 2>/dev/null || { cat "$log" >&2; exit 1; }
        sleep 0.1
    done
    echo "the demo did not start in time" >&2
    cat "$log" >&2
    exit 1
}
ask() { # URL WORD: the answer holds the word
    # Read by bash itself: a fresh Debian machine has no curl.
    local host=${1#http://} path
    path=/${host#*/}
    host=${host%%/*}
    exec 3<>"/dev/tcp/${host%%:*}/${host##*:}"
    printf 'GET %s HTTP/1.0\r\nHost: %s\r\n\r\n' "$path" "$host" >&3
    if ! grep -q "$2" <&3; then
        echo "$1 does not say $2" >&2
        exit 1
    fi
    exec 3<&-
}

begin
ask "$url/healthz" '"ok"'
ask "$url/sign-in" 'Tarnholm'
kill -9 "$pid" 2>/dev/null
{ wait "$pid"; } 2>/dev/null || true
begin
if grep -q 'was empty' "$log"; then
    echo "the data was lost when the server was killed" >&2
    exit 1
fi
ask "$url/healthz" '"ok"'
answer=$(echo '{"bore":"63 mm","pressure":"210 bar"}' | ./bin/corvek calc cylinder)
case $answer in *'"push_force":{"value":65462'*) ;; *) echo "calc answered $answer" >&2; exit 1 ;; esac
if echo '{"bore":"63"}' | ./bin/corvek calc cylinder >/dev/null; then
    echo "calc took a length without a unit" >&2
    exit 1
fi
taken=${url##*:}
if CORVEK_DATA="$data/pg2" ./bin/corvek demo --addr "127.0.0.1:${taken%%/*}" 2>"$log.2"; then exit 1; fi
grep -q 'in use by another program' "$log.2"
echo "smoke test passed"
