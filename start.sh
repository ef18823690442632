#!/usr/bin/env bash
# Sets up what is missing, builds what changed, and starts Polite Tally on 127.0.0.1.
#   ./start.sh [--empty] [--port N] [--data DIR]
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
. ./build.sh

program=src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll
build_front_end
build_program
exec dotnet "$program" "$@"
