// @ts-check
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import vm from 'node:vm';

/*
 * What is built as one script, and started often: beside it lies what the engine made of it when it was built, so that a start doesn't read
 * megabytes of text anew. An engine of another version finds that it isn't its own, and reads the text.
 */
const made = (/** @type {string} */ path) => `${path}.cache`;

/** @param {string} path */
function scriptOf(path) {
  const cached = existsSync(made(path)) ? readFileSync(made(path)) : undefined;
  const text = `(function (exports, require, module) {${readFileSync(path, 'utf8')}\n})`;
  return new vm.Script(text, {
    filename: path,
    ...(cached ? { cachedData: cached } : {}),
    importModuleDynamically: vm.constants.USE_MAIN_CONTEXT_DEFAULT_LOADER,
  });
}

/** Runs a built script (CommonJS) and answers what it exports. @param {string} path absolute @returns {any} */
export function load(path) {
  return run(scriptOf(path), path);
}

/** @param {vm.Script} script @param {string} path */
function run(script, path) {
  const module = { exports: {} };
  script.runInThisContext()(module.exports, createRequire(path), module);
  return module.exports;
}

/** Keeps beside a built script what the engine makes of it as it runs. @param {string} path absolute */
export function keepMade(path) {
  const script = scriptOf(path);
  run(script, path);
  writeFileSync(made(path), script.createCachedData());
}
