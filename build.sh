# Shared by start.sh and test.sh: builds what changed since the last time, and only that.

need() { command -v "$1" >/dev/null || { echo "$2 is missing. Polite Tally needs the .NET 10 SDK and Node 20 or newer." >&2; exit 1; }; }

# True if the stamp is older than any of the files below the given places.
changed() {
  local stamp=$1; shift
  [ ! -e "$stamp" ] || [ -n "$(find "$@" -newer "$stamp" -type f -not -path '*/node_modules/*' -not -path '*/bin/*' -not -path '*/obj/*' -not -path '*/wwwroot/*' -print -quit)" ]
}

packages_for() { # a folder with a package.json
  need node "Node"
  mkdir -p .stamps
  if changed ".stamps/npm-${1//\//-}" "$1/package.json" "$1/package-lock.json"; then
    echo "Fetching packages of $1…"
    (cd "$1" && npm ci --no-audit --no-fund --loglevel=error)
    touch ".stamps/npm-${1//\//-}"
  fi
}

build_front_end() {
  packages_for web
  if changed .stamps/front-end web || [ ! -e src/PoliteTally.Web/wwwroot/index.html ]; then
    echo "Building the front end…"
    (cd web && npm run --silent build -- --logLevel warn)
    touch .stamps/front-end
  fi
}

build_program() {
  need dotnet "The .NET SDK"
  # Folding names needs the tables of Unicode, which .NET takes from the system.
  if ! ldconfig -p | grep -q libicuuc && command -v apt-get >/dev/null; then
    echo "Installing libicu…"
    apt-get update -qq && apt-get install -y -qq --no-install-recommends libicu-dev >/dev/null
  fi
  mkdir -p .stamps
  packages_for src/PoliteTally.Formats/Faces
  if changed .stamps/program src demo Directory.Build.props Directory.Packages.props global.json || [ ! -e "${program:-}" ]; then
    echo "Building the program…"
    dotnet build src/PoliteTally.Web -c Release -v quiet --nologo
    dotnet build src/PoliteTally.StandIns -c Release -v quiet --nologo
    touch .stamps/program
  fi
}
