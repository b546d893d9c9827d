#!/usr/bin/env bash
# Values are imported one way (.dependency-cruiser.cjs). A circle is planted first, and must be found.
set -eu
cd "$(dirname "$0")/.."
planted=(core/zz-one.ts core/zz-other.ts)
trap 'rm -f "${planted[@]}"' EXIT
echo "import { other } from './zz-other'; export const one = () => other" >core/zz-one.ts
echo "import { one } from './zz-one'; export const other = () => one" >core/zz-other.ts
npx depcruise --config .dependency-cruiser.cjs "${planted[@]}" >/dev/null 2>&1 && { echo "a circle of values was not found"; exit 1; }
rm -f "${planted[@]}"
npx depcruise --config .dependency-cruiser.cjs core shared server app --output-type err
