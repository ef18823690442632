#!/usr/bin/env bash
# The one test command: formatting, lint, build, types, xUnit, vitest, Playwright. Ends with "N passed, N failed".
set -uo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
. ./build.sh
program=src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll
export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1
passed=0 failed=0
logs=$(mktemp -d)

step() { printf '\n== %s\n' "$1"; }
check() { # name, command…: one check that passes or fails as a whole
  local name=$1; shift
  step "$name"
  if "$@"; then passed=$((passed + 1)); else echo "FAILED: $name" | tee -a "$logs/failures"; failed=$((failed + 1)); fi
}
count() { # log, pattern: adds up the numbers that stand before a word in a test runner's closing lines
  grep -oE "$2" "$1" | grep -oE '[0-9]+' | awk '{ sum += $1 } END { print sum + 0 }'
}

if [ -z "${CHROMIUM_PATH:-}" ]; then
  if ! command -v chromium >/dev/null; then
    step "Installing chromium"
    apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium >/dev/null || exit 1
  fi
  CHROMIUM_PATH=$(command -v chromium)
fi
export CHROMIUM_PATH

types_are_current() {
  dotnet "$program" openapi > "$logs/openapi.json" && diff -q "$logs/openapi.json" web/src/api/openapi.json \
    && (cd web && npx openapi-typescript src/api/openapi.json -o "$logs/schema.d.ts" >/dev/null) && diff -q "$logs/schema.d.ts" web/src/api/schema.d.ts \
    || { echo "The API changed and its types did not. Run ./types.sh and commit."; return 1; }
}
first_page_is_light() { node tests/first-page-weight.mjs src/PoliteTally.Web/wwwroot 200; }

# Two at a time where neither needs the other: what is begun here is waited for, and shown, by "ended".
begin() { # name, command…
  local name=$1; shift
  "$@" > "$logs/$name" 2>&1 &
  eval "$name=$!"
}
ended() { wait "${!1}"; local status=$?; cat "$logs/$1"; return "$status"; }
front_end_and_packages() { build_front_end && packages_for tests/e2e; }

# The program is built with the faces of its documents beside it.
check "Faces of documents" packages_for src/PoliteTally.Formats/Faces
begin front_end front_end_and_packages
check "Program: build, warnings are errors" dotnet build PoliteTally.slnx -c Release -v quiet --nologo
check "Front end: packages, types, build; packages of the browser tests" ended front_end
begin lint npm --prefix web run --silent lint
check "Formatting of the program" dotnet format PoliteTally.slnx whitespace --verify-no-changes --no-restore
check "Lint and formatting of the front end" ended lint
check "Types of the API are current" types_are_current
check "First page under 200 kB gzipped" first_page_is_light

step "Rules, formats, application (xUnit)"
for project in Core Formats Web; do
  dotnet test --project "tests/$project.Tests" -c Release --no-build 2>&1 | tee "$logs/$project.log" | grep -vE '^\s*$'
  status=${PIPESTATUS[0]}
  passed=$((passed + $(count "$logs/$project.log" '^ +succeeded: [0-9]+')))
  bad=$(count "$logs/$project.log" '^ +failed: [0-9]+')
  [ "$status" -ne 0 ] && [ "$bad" -eq 0 ] && bad=1
  failed=$((failed + bad))
done

step "Front end (vitest)"
(cd web && NO_COLOR=1 npx vitest run 2>&1) | tee "$logs/vitest.log"
[ "${PIPESTATUS[0]}" -eq 0 ] || failed=$((failed + 1))
passed=$((passed + $(grep -E '^ *Tests ' "$logs/vitest.log" | grep -oE '[0-9]+ passed' | grep -oE '[0-9]+' | tail -n 1 || echo 0)))

step "In the browser (Playwright)"
(cd tests/e2e && npx playwright test 2>&1) | tee "$logs/playwright.log"
[ "${PIPESTATUS[0]}" -eq 0 ] || failed=$((failed + $(count "$logs/playwright.log" '^ +[0-9]+ failed' | sed 's/^0$/1/')))
passed=$((passed + $(count "$logs/playwright.log" '^ +[0-9]+ passed')))

# Said again at the end, where they are looked for: what failed, and the first lines of why.
grep -hE -A 12 '^failed [A-Za-z]+\.' "$logs"/{Core,Formats,Web}.log
grep -hE '^ *(FAIL|×) ' "$logs/vitest.log"
grep -hE '^ *✘ ' "$logs/playwright.log"
cat "$logs/failures" 2>/dev/null
rm -rf "$logs"
printf '\n%d passed, %d failed\n' "$passed" "$failed"
[ "$failed" -eq 0 ]
