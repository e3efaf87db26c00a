// Takes the pictures in docs/screenshots anew: builds, and goes the path that e2e/screenshots.pictures.ts tells.
import { needBrowser, needNode, needPackages, run } from './install.mjs';

needNode();
needPackages();
needBrowser();
run('npm', ['run', 'build', '--silent']);
run('npx', ['vitest', 'run', '--project', 'pictures']);
