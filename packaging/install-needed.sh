# Installs the Debian packages Datrin needs where they are missing. Sourced by ./run and ./test.
# As root, or as a user with sudo. A second call with nothing missing takes a fraction of a second.

needed_build="g++ ccache cmake ninja-build pkg-config qt6-base-dev qt6-serialport-dev libgl-dev coinor-libclp-dev libpolyclipping-dev libeigen3-dev nlohmann-json3-dev
  libfmt-dev libcli11-dev libboost-dev libocct-modeling-algorithms-dev libocct-data-exchange-dev libassimp-dev libdxflib-dev qt6-svg-dev libsqlitecpp-dev libsqlite3-dev zlib1g-dev libgtest-dev libbenchmark-dev libglpk-dev"
needed_run="fontconfig libqt6gui6 qt6-qpa-plugins"
needed_fuzz="clang libclang-rt-14-dev"
needed_lint="clang clang-tidy"
needed_headless="xvfb xauth"
needed_test="clang-format python3 python3-jsonschema poppler-utils locales"

install_needed() {
  local set name list="" missing=""
  for set in "$@"; do
    name="needed_$set"
    list="$list ${!name}"
  done
  for name in $list; do
    dpkg-query -W -f '${Status}' "$name" 2>/dev/null | grep -q 'install ok installed' || missing="$missing $name"
  done
  [ -z "$missing" ] && return 0
  local as_root=""
  if [ "$(id -u)" -ne 0 ]; then
    if ! command -v sudo > /dev/null; then
      echo "These packages are missing and neither root nor sudo is at hand:$missing" >&2
      echo "Ask an administrator for: apt-get install$missing" >&2
      return 1
    fi
    as_root="sudo"
  fi
  echo "Installing:$missing"
  $as_root apt-get update -qq
  $as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing > /dev/null
}
