import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { copyFileSync, mkdirSync } from 'node:fs';
import { build } from 'esbuild';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));

/** bin/wander.ts with one chunk a command: it starts nearly as fast as Node itself. */
export async function bundleCommandLine() {
  await build({
    entryPoints: [path.join(root, 'bin/wander.ts')],
    outdir: path.join(root, 'dist/cli'),
    bundle: true,
    splitting: true,
    outExtension: { '.js': '.mjs' },
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    alias: { '@': path.join(root, 'src') },
    logLevel: 'error',
  });
}

/**
 * The threads that takes are judged and files are read and written in, and what other devices meet: plain files
 * beside the server, which the framework's bundler leaves alone.
 */
export async function bundleThreads() {
  await build({
    entryPoints: [
      path.join(root, 'src/server/judging/judging.worker.ts'),
      path.join(root, 'src/server/files/files.worker.ts'),
      path.join(root, 'src/server/lan/lan.main.ts'),
    ],
    outdir: path.join(root, 'dist/server'),
    entryNames: '[name]',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    alias: { '@': path.join(root, 'src') },
    logLevel: 'error',
  });
}

/** A script of this folder that needs the core and the server, as one file under dist/scripts. */
export async function bundleScript(name) {
  await build({
    entryPoints: [path.join(root, `scripts/${name}.ts`)],
    outfile: path.join(root, `dist/scripts/${name}.mjs`),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    alias: { '@': path.join(root, 'src') },
    logLevel: 'error',
  });
}

/** The capture worklet: an AudioWorklet loads a plain file, not a bundle chunk. */
export async function bundleWorklet() {
  mkdirSync(path.join(root, 'public/worklets'), { recursive: true });
  await build({
    entryPoints: [path.join(root, 'src/audio/input/capture.worklet.ts')],
    outfile: path.join(root, 'public/worklets/capture.js'),
    bundle: true,
    format: 'esm',
    target: 'es2022',
    logLevel: 'error',
  });
}

/** The time stretcher brings its own worklet and finds it by its own address: it is served as it came. */
export function copyStretcher() {
  mkdirSync(path.join(root, 'public/stretch'), { recursive: true });
  copyFileSync(
    path.join(root, 'node_modules/signalsmith-stretch/SignalsmithStretch.mjs'),
    path.join(root, 'public/stretch/SignalsmithStretch.mjs'),
  );
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  await bundleCommandLine();
  await bundleThreads();
  await bundleWorklet();
  copyStretcher();
}
