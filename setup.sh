#!/usr/bin/env bash
# Sets up Glow Grid on Debian 12: installs what is missing, configures and builds.
#   ./setup.sh         set up, and say what to do next
#   ./setup.sh demo    builds the program only, then runs the demo
#   ./setup.sh test    the same, then run all tests
# Asks the network for nothing that is already there.
set -euo pipefail
cd "$(dirname "$0")"

packages=(
  g++ cmake ninja-build pkg-config
  libboost-program-options-dev libembree-dev libtbb-dev libeigen3-dev libxxhash-dev libfmt-dev libtomlplusplus-dev
  nlohmann-json3-dev libpugixml-dev libassimp-dev zlib1g-dev libxlsxwriter-dev libsqlite3-dev coinor-libclp-dev libgtest-dev libbenchmark-dev
  libopenmpi-dev openmpi-bin libcereal-dev librsvg2-dev libkainjow-mustache-dev libcmark-dev libopenexr-dev libgeos-dev libglib2.0-dev fonts-open-sans weasyprint python3-munkres
)

# Only for tests: take the plot scripts, drawings and workbooks that the program writes.
test_packages=(dpkg-dev gnuplot-nox python3-ezdxf python3-jsonschema python3-openpyxl libxml2-utils chromium poppler-utils)

install_packages() {
  local missing=()
  for package in "$@"; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'install ok installed' || missing+=("$package")
  done
  [ ${#missing[@]} -eq 0 ] && return
  local root=()
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null || { echo "setup.sh: run as root, or install sudo, to install: ${missing[*]}" >&2; exit 3; }
    root=(sudo)
  fi
  echo "Installing: ${missing[*]}"
  "${root[@]}" apt-get update -q
  "${root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=300 \
    install -y -q --no-install-recommends "${missing[@]}"
}

build() {
  if [ -n "${GLOWGRID_STRICT:-}" ]; then
    cmake --preset ci
  elif [ ! -f build/release/build.ninja ]; then
    cmake --preset release
  fi
  cmake --build build/release "$@"
}

case "${1:-}" in
  "" | demo | test) ;;
  *) echo "usage: ./setup.sh [demo|test]" >&2; exit 2 ;;
esac

install_packages "${packages[@]}"
[ "${1:-}" != test ] || install_packages "${test_packages[@]}"
if [ "${1:-}" = demo ]; then
  build --target glowgrid
else
  build
fi
case "${1:-}" in
  demo) build/release/src/glowgrid demo "${2:-millrace-demo}" ;;
  test) ctest --test-dir build/release --output-on-failure --parallel "$(nproc)" ;;
  *)
    echo
    echo "The program is build/release/src/glowgrid. Next: ./setup.sh demo, or ./setup.sh test"
    ;;
esac
