import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { giveUp, root, run } from './lib.mjs';

/*
 * Builds a release of before beside this one, so that both can be measured in one run:
 * `npm run earlier-release -- 0.1.0`, then `npm run benchmark -- today`. Its sources come out of the history of
 * this repository, and what it needs from the package registry as it was locked then.
 */
const [version = '0.1.0'] = process.argv.slice(2);
const named = join(root, 'releases', version, 'commit');
if (!existsSync(named)) giveUp(`There is no release ${version}, or nobody has noted which commit it was.`);
const commit = readFileSync(named, 'utf8').trim();
// Outside the project, where nobody takes its packages for this one's; the benchmark looks there.
const folder = join(tmpdir(), `entretien-earlier-${version}`);

if (!existsSync(join(folder, 'package.json'))) {
  mkdirSync(folder, { recursive: true });
  const archive = join(tmpdir(), `entretien-earlier-${version}.tar`);
  const isThere =
    run('git', ['-C', root, 'archive', '--output', archive, commit]) &&
    run('tar', ['-xf', archive, '-C', folder]);
  if (!isThere) giveUp(`Commit ${commit} is not in this repository: fetch its history first.`);
}
if (!existsSync(join(folder, 'node_modules'))) run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: folder });
run(process.execPath, [join(folder, 'node_modules/typescript/bin/tsc'), '-b', 'packages/benchmarks'], {
  cwd: folder,
});
console.log(`Release ${version} stands in ${folder}`);
