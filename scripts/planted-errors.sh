#!/usr/bin/env bash
# The checks must be able to fail: a type error, imports against the rule and promises nobody waits for, planted and taken out again.
set -u
cd "$(dirname "$0")/.."
plants=(core/zz-planted.ts server/zz-planted.ts app/zz-planted.ts app/ZzPlanted.vue app/ZzPlantedGeneric.vue)
trap 'rm -f "${plants[@]}" tsconfig.planted.json' EXIT

# That the project holds the file, and that its strictness finds the error in it, seen without checking all the rest.
echo "export const wrong: number = 'text'" >core/zz-planted.ts
npx tsc -p tsconfig.core.json --listFilesOnly | grep -q zz-planted || { echo "tsc -p tsconfig.core.json does not look at core"; exit 1; }
echo '{ "extends": "./tsconfig.core.json", "include": [], "files": ["core/zz-planted.ts"] }' >tsconfig.planted.json
npx tsc -p tsconfig.planted.json >/dev/null 2>&1 && { echo "tsc let a type error in core pass"; exit 1; }

echo "import '../server/clock'" >core/zz-planted.ts
echo "import '../app/app.vue'" >server/zz-planted.ts
echo "import '../server/clock'" >app/zz-planted.ts
unawaited='const later = async () => {}
later()
</script>
<template><p /></template>'
printf '<script setup lang="ts">\n%s\n' "$unawaited" >app/ZzPlanted.vue
printf '<script setup lang="ts" generic="Value extends string">\ndefineProps<{ value: Value }>()\n%s\n' "$unawaited" >app/ZzPlantedGeneric.vue
told=$(LINT_ONCE=1 npx eslint --format json "${plants[@]}" 2>/dev/null)
for file in "${plants[@]}"; do
  rule=no-restricted-imports; [ "${file%.vue}" != "$file" ] && rule=@typescript-eslint/no-floating-promises
  node -e 'const [told, file, rule] = process.argv.slice(1); process.exit(JSON.parse(told).some(one => one.filePath.endsWith(file) && one.messages.some(each => each.ruleId === rule)) ? 0 : 1)' "$told" "$file" "$rule" ||
    { echo "ESLint found nothing of $rule in $file"; exit 1; }
done
exit 0
