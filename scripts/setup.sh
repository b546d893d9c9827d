# Sourced by ./start and ./test: what the machine must have. Installs what is missing, says what it does.
export NUXT_TELEMETRY_DISABLED=1 PATH="$PATH:/usr/sbin:/usr/local/sbin"
say() { printf '%s\n' "$*" >&2; }
as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

need_node() {
  node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)' 2>/dev/null ||
    { say "Northtide needs Node 20.19 or later; this is $(node -v 2>/dev/null || echo 'no Node')."; exit 1; }
}

# need_debian PROGRAM=PACKAGE … : one apt-get for all that are missing
need_debian() {
  local pair missing=()
  for pair in "$@"; do command -v "${pair%%=*}" >/dev/null || missing+=("${pair#*=}"); done
  [ ${#missing[@]} -eq 0 ] && return 0
  say "Installing Debian packages: ${missing[*]}"
  as_root apt-get update -qq >/dev/null
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

need_modules() {
  local stamp; stamp=$(sha256sum package-lock.json | cut -c1-64)
  [ "$(cat node_modules/.stamp 2>/dev/null)" = "$stamp" ] && return 0
  say "Installing npm packages (the first time takes a few minutes)"
  # No package here needs an install script; without them nothing can try to download.
  npm ci --ignore-scripts --no-audit --no-fund --loglevel=error >/dev/null || { rm -f node_modules/.stamp; return 1; }
  echo "$stamp" >node_modules/.stamp
}

# Students' phone numbers are kept as hashes with a key, which is made once and is no part of the database.
need_phone_key() { # need_phone_key DIRECTORY
  [ -s "$1/phone-key" ] || (umask 077; head -c 32 /dev/urandom | base64 >"$1/phone-key")
  export NORTHTIDE_PHONE_KEY="${NORTHTIDE_PHONE_KEY-$(cat "$1/phone-key")}"
}

source_hash() { find app core server shared public nuxt.config.ts scripts/build-worker.ts docs/openapi.json package-lock.json -type f ! -name '*.test.ts' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-16; }

need_build() {
  local stamp; stamp=$(source_hash)
  [ "$(cat .output/.stamp 2>/dev/null)" = "$stamp" ] && return 0
  say "Building the application"
  mkdir -p .data
  { npx nuxt build --logLevel silent && npm run --silent build:worker; } >.data/build.log 2>&1 || { say "The build failed; the end of .data/build.log:"; tail -n 30 .data/build.log >&2; exit 1; }
  echo "$stamp" >.output/.stamp
}

DATABASE=(mariadbd=mariadb-server-core mariadb-install-db=mariadb-server-core mariadb=mariadb-client-core)
