# Sourced by scripts/demo and scripts/test: installs what is missing and builds the screens if they changed.
# On Debian; Rust and Node are there already.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."

say() { printf '\033[1m%s\033[0m\n' "$*"; }

for tool in cargo node npm; do
  command -v "$tool" >/dev/null || { echo "bofta: $tool is not installed; Rust and Node 20 are needed" >&2; exit 2; }
done

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

# debian COMMAND PACKAGE ...: installs the packages when the command is not there.
debian() {
  local command=$1
  shift
  command -v "$command" >/dev/null && return
  say "installing $*"
  as_root apt-get update -q
  DEBIAN_FRONTEND=noninteractive as_root apt-get install -y -q --no-install-recommends "$@"
}

# node_packages FOLDER: by lock file, only when it changed.
node_packages() {
  local mark="$1/node_modules/.bofta-installed"
  if [ ! -f "$mark" ] || ! cmp -s "$1/package-lock.json" "$mark"; then
    say "installing the packages of $1"
    (cd "$1" && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund)
    cp "$1/package-lock.json" "$mark"
  fi
}

# The program holds the screens, so they are built before it.
screens() {
  node_packages web
  local built=web/dist/index.html
  if [ ! -f "$built" ] || [ -n "$(find web/src web/index.html web/package-lock.json web/vite.config.ts web/tsconfig.json -newer "$built" -print -quit)" ]; then
    say "building the screens"
    (cd web && npm run --silent build)
    touch "$built"
  fi
}

debian cc build-essential
