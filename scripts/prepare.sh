# Node.js is the only thing that must be there; npm's packages are installed once and after a change.
command -v node >/dev/null || { echo "Oculon needs Node.js 20 or newer (Debian: apt-get install nodejs npm)." >&2; exit 1; }
node -e 'process.exit(Number(process.versions.node.split(".")[0]) >= 20 ? 0 : 1)' || { echo "Oculon needs Node.js 20 or newer." >&2; exit 1; }
if [ ! -f node_modules/.oculon-installed ] || ! cmp -s package-lock.json node_modules/.oculon-installed; then
  echo "Installing npm packages …" >&2
  npm ci --no-audit --no-fund --loglevel=error >&2
  cp package-lock.json node_modules/.oculon-installed
fi
[ -f .svelte-kit/tsconfig.json ] || node_modules/.bin/svelte-kit sync >&2
