# Sourced by start and check: makes sure that what they need is there, and says
# what it installs. Works as root and as a user with sudo.

as_root() {
    if [ "$(id -u)" -eq 0 ]; then
        "$@"
    elif command -v sudo >/dev/null 2>&1; then
        sudo "$@"
    else
        echo "This needs root: $*" >&2
        echo "Run it as root once, or install sudo." >&2
        exit 1
    fi
}

# install_packages NAME... installs Debian packages, saying which.
install_packages() {
    if ! command -v apt-get >/dev/null 2>&1; then
        echo "Missing: $*. Install it with this system's package manager and run this again." >&2
        exit 1
    fi
    echo "Installing from Debian's packages: $*"
    as_root apt-get update -qq
    as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >/dev/null
}

need_go() {
    if ! command -v go >/dev/null 2>&1 && [ -x /usr/local/go/bin/go ]; then
        PATH="$PATH:/usr/local/go/bin"
    fi
    if ! command -v go >/dev/null 2>&1; then
        echo "Go is not installed. Install Go $(sed -n 's/^go //p' go.mod) or newer and run this again." >&2
        exit 1
    fi
}

need_postgres() {
    [ -n "${DATABASE_URL:-}" ] && return
    if ! ls /usr/lib/postgresql/*/bin/postgres >/dev/null 2>&1 && ! command -v postgres >/dev/null 2>&1; then
        install_packages postgresql
    fi
}

need_chromium() {
    # The shell of Chromium without its windows: smaller, and half the work.
    if ! command -v chromium-headless-shell >/dev/null 2>&1 && ! command -v chromium >/dev/null 2>&1 &&
        ! command -v chromium-browser >/dev/null 2>&1 &&
        ! command -v google-chrome >/dev/null 2>&1; then
        install_packages chromium-headless-shell || install_packages chromium
    fi
}

# The race detector is linked by a C compiler.
need_gcc() {
    if ! command -v gcc >/dev/null 2>&1; then
        install_packages gcc libc6-dev
    fi
}
