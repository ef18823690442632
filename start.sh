#!/usr/bin/env bash
# Sets up what is missing, builds what changed, and starts Polite Tally on 127.0.0.1.
#   ./start.sh [--empty] [--port N] [--data DIR]
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
. ./build.sh

program=src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll
build_front_end
build_program

# The demo school has a register desk: a stand-in, unless a real one is named.
case " $* " in *" --empty "*) exec dotnet "$program" "$@" ;; esac
[ -n "${POLITE_TALLY_REGISTER_DESK:-}" ] && exec dotnet "$program" "$@"
export POLITE_TALLY_REGISTER_DESK=http://127.0.0.1:${POLITE_TALLY_STAND_IN_PORT:-5099}
POLITE_TALLY_REGISTER_TOKEN=$(head -c 24 /dev/urandom | base64)
export POLITE_TALLY_REGISTER_TOKEN
dotnet src/PoliteTally.StandIns/bin/Release/net10.0/PoliteTally.StandIns.dll desk --port "${POLITE_TALLY_REGISTER_DESK##*:}" &
desk=$!
dotnet "$program" "$@" &
tally=$!
# Whoever ends this ends both.
trap 'kill "$tally" "$desk" 2>/dev/null' EXIT
trap 'exit 143' INT TERM
wait "$tally"
