#!/usr/bin/env bash
# Makes the demo's store with older versions of the program and keeps it as test data: what a
# shop that has not updated for long brings along.
#
#   scripts/old-stores.sh COMMIT...
#
# Each becomes internal/store/testdata/old/COMMIT.sql.gz.
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."
. ./scripts/setup.sh
need_go
need_postgres
unset DATABASE_URL
dump=$(ls /usr/lib/postgresql/*/bin/pg_dump | sort -V | tail -1)
work=$(mktemp -d)
chmod 755 "$work" # the database's own account enters it
trap 'git worktree remove --force "$work/tree" 2>/dev/null || true; rm -rf "$work"' EXIT
for commit in "$@"; do
    commit=$(git rev-parse --short=7 "$commit")
    git worktree add --force --detach "$work/tree" "$commit" >/dev/null 2>&1
    (cd "$work/tree" && go build -o "$work/corvek" ./cmd/corvek)
    git worktree remove --force "$work/tree"
    CORVEK_DATA=$work/$commit CORVEK_ADDR=127.0.0.1:0 "$work/corvek" demo >"$work/said" 2>&1 &
    program=$!
    until grep -q "serves on" "$work/said"; do
        kill -0 "$program" 2>/dev/null || { cat "$work/said" >&2; exit 1; }
        sleep 0.2
    done
    port=$(sed -n 4p "$work/$commit/data/postmaster.pid")
    PGPASSWORD=$(cat "$work/$commit/secret") "$dump" -h 127.0.0.1 -p "$port" -U corvek --no-owner --inserts \
        --rows-per-insert=200 corvek | grep -v '^\\' | gzip -9n >"internal/store/testdata/old/$commit.sql.gz"
    kill -INT "$program"
    wait "$program"
    ls -l "internal/store/testdata/old/$commit.sql.gz"
done
