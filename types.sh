#!/usr/bin/env bash
# Writes the description of the API, the front end's types and the schemas of plan and report files anew.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
dotnet build src/PoliteTally.Web -c Release -v quiet --nologo
dotnet src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll openapi > web/src/api/openapi.json
dotnet src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll plan-schema > docs/plan.schema.json
dotnet src/PoliteTally.Web/bin/Release/net10.0/PoliteTally.Web.dll report-schema > docs/report.schema.json
npm --prefix web run --silent types
