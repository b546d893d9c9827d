#!/usr/bin/env bash
# The checks must be able to fail: a type error, and an import against the rule, planted and taken out again.
set -u
cd "$(dirname "$0")/.."
plants=(core/zz-planted.ts server/zz-planted.ts app/zz-planted.ts)
trap 'rm -f "${plants[@]}"' EXIT
echo "export const wrong: number = 'text'" >core/zz-planted.ts
npx tsc -p tsconfig.core.json >/dev/null 2>&1 && { echo "tsc let a type error in core pass"; exit 1; }
echo "import '../server/clock'" >core/zz-planted.ts
echo "import '../app/app.vue'" >server/zz-planted.ts
echo "import '../server/clock'" >app/zz-planted.ts
told=$(npx eslint --format json "${plants[@]}" 2>/dev/null)
for file in "${plants[@]}"; do
  node -e 'const [told, file] = process.argv.slice(1); process.exit(JSON.parse(told).some(one => one.filePath.endsWith(file) && one.messages.some(each => each.ruleId === "no-restricted-imports")) ? 0 : 1)' "$told" "$file" ||
    { echo "ESLint let $file import against the rule"; exit 1; }
done
exit 0
