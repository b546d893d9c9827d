#!/usr/bin/env bash
# Lints everything, with faults planted among it: the checks must be able to fail. A type error, imports against the rule and promises
# nobody waits for are planted and taken out again; they must be found, and nothing else.
set -u
cd "$(dirname "$0")/.."
plants=(core/zz-planted.ts server/zz-planted.ts app/zz-planted.ts app/ZzPlanted.vue app/ZzPlantedGeneric.vue)
told=$(mktemp)
trap 'rm -f "${plants[@]}" tsconfig.planted.json "$told"' EXIT

# That the project holds the file, and that its strictness finds the error in it, seen without checking all the rest.
echo "export const wrong: number = 'text'" >core/zz-planted.ts
npm run --silent tsc -- -p tsconfig.core.json --listFilesOnly | grep -q zz-planted || { echo "tsc -p tsconfig.core.json does not look at core"; exit 1; }
echo '{ "extends": "./tsconfig.core.json", "include": [], "files": ["core/zz-planted.ts"] }' >tsconfig.planted.json
npm run --silent tsc -- -p tsconfig.planted.json >/dev/null 2>&1 && { echo "tsc let a type error in core pass"; exit 1; }

echo "import '../server/clock'" >core/zz-planted.ts
echo "import '../app/app.vue'" >server/zz-planted.ts
echo "import '../server/clock'" >app/zz-planted.ts
unawaited='const later = async () => {}
later()
</script>
<template><p /></template>'
printf '<script setup lang="ts">\n%s\n' "$unawaited" >app/ZzPlanted.vue
printf '<script setup lang="ts" generic="Value extends string">\ndefineProps<{ value: Value }>()\n%s\n' "$unawaited" >app/ZzPlantedGeneric.vue
LINT_ONCE=1 npx eslint . --format json --output-file "$told" >/dev/null 2>&1
node scripts/planted-found.mjs "$told" "${plants[@]}"
