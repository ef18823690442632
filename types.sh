#!/usr/bin/env bash
# Writes the description of the API and the front end's types anew.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
dotnet build src/PoliteTally.Web -c Release -v quiet --nologo
dotnet src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll openapi > web/src/api/openapi.json
npm --prefix web run --silent types
