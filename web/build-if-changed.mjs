// Installs and builds the interface if its sources have changed since the last time, then copies it
// to the folder given. Uses nothing but Node itself, since it runs before anything is installed.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';

const target = process.argv[2];
const stamps = 'node_modules/.cache/porter';

function files(path) {
  if (!existsSync(path)) return [];
  return readdirSync(path, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath ?? entry.path, entry.name))
    .sort();
}

function digest(paths) {
  const hash = createHash('sha256').update(process.version);
  for (const path of paths) {
    hash.update(path).update(readFileSync(path));
  }
  return hash.digest('hex');
}

function unlessDone(name, stamp, action) {
  const file = join(stamps, name);
  if (existsSync(file) && readFileSync(file, 'utf8') === stamp) return;
  action();
  mkdirSync(stamps, { recursive: true });
  writeFileSync(file, stamp);
}

function npm(...args) {
  execFileSync('npm', args, {
    stdio: ['ignore', 'inherit', 'inherit'],
    shell: process.platform === 'win32',
  });
}

unlessDone('installed', digest(['package.json', 'package-lock.json']), () =>
  npm('ci', '--loglevel=error'),
);

const sources = files('src').filter((path) => !path.endsWith('.test.ts'));
const configs = [
  'index.html',
  'vite.config.ts',
  'svelte.config.js',
  'tsconfig.json',
  'package-lock.json',
];
const built = digest([...sources, ...files('public'), ...configs]);
unlessDone('built', built, () => npm('run', '--silent', 'build', '--', '--logLevel=warn'));
if (!existsSync('dist/index.html')) npm('run', '--silent', 'build', '--', '--logLevel=warn');

if (target) {
  rmSync(target, { recursive: true, force: true });
  cpSync('dist', target, { recursive: true });
}
