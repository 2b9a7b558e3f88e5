#!/usr/bin/env bash
# The linter (.clang-tidy), and with it clang's own warnings; every finding is an error.
#   packaging/lint.sh          the files that are changed and not committed yet; of a clean tree none
#   packaging/lint.sh since    what differs from the commit at which it last passed (packaging/linted), committed or not;
#                              passing on a clean tree, it writes the commit down, to be committed with the rest
#   packaging/lint.sh all      the whole tree: most of an hour on two cores
#   packaging/lint.sh FILE …   those
set -euo pipefail
cd "$(dirname "$0")/.."
. packaging/install-needed.sh

case "${1:-}" in
  "") files=$(git status --porcelain --no-renames -- '*.cpp' '*.h' | grep -v '^.\?D' | cut -c4- || true) ;;
  since)
    # A copy without its history (a shallow clone, an archive) has nothing to compare with: then what is not committed.
    last=$(cat packaging/linted)
    git cat-file -e "$last^{commit}" 2> /dev/null || last=HEAD
    files=$(git diff --name-only --no-renames --diff-filter=d "$last" -- '*.cpp' '*.h'
            git ls-files -o --exclude-standard -- '*.cpp' '*.h') ;;
  all) files=$(git ls-files '*.cpp') ;;
  *) files="$*" ;;
esac
# A header is read through the file it belongs to.
sources=$(for f in $files; do f="${f%.h}"; f="${f%.cpp}.cpp"; [ -f "$f" ] && echo "$f"; done | grep -v '^tests/fuzz/' | sort -u || true)
[ -n "$sources" ] || { echo "Nothing differs from where the linter last passed."; exit 0; }
install_needed lint
[ -f build/lint/compile_commands.json ] && [ build/lint/compile_commands.json -nt CMakePresets.json ] ||
  cmake --preset lint > /dev/null
ninja -C build/lint $(ninja -C build/lint -t targets all | grep -o '^core/data/[a-z0-9_]*_csv\.h') > /dev/null
echo "Linting $(wc -w <<< "$sources") files"
xargs -P "$(nproc)" -n 1 clang-tidy -p build/lint --quiet <<< "$sources" 2> >(grep -v 'warnings generated\|^Suppressed\|^Use -header-filter' >&2)
if [ "${1:-}" = since ] && [ -z "$(git status --porcelain -- '*.cpp' '*.h')" ]; then
  git rev-parse HEAD > packaging/linted
fi
