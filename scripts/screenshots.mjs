/** npm run screenshots: remakes docs/screenshots from the demo, on a throw-away database. */
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { ensureChromium, ensurePackages, root } from './install.mjs';

ensurePackages();
const executablePath = ensureChromium();
const { freePort, openCluster } = await import('./postgres.mjs');
const { buildServer, buildWeb, serverEntry, webFolder } = await import('./build.mjs');
const { chromium } = await import('@playwright/test');
const folder = join(root, 'docs/screenshots');
mkdirSync(folder, { recursive: true });
await buildServer();
await buildWeb();
const cluster = await openCluster('screenshot-database', { careless: true, fresh: true });
const port = await freePort();
const url = `http://127.0.0.1:${port}`;
const server = spawn(process.execPath, [serverEntry], {
  cwd: root,
  env: {
    ...process.env,
    NODE_ENV: 'production',
    DATABASE_URL: await cluster.ensureDatabase('visograph'),
    PORT: String(port),
    VISOGRAPH_WEB: webFolder,
    VISOGRAPH_DEMO: join(root, 'demo/marrow-sound-ferries.json'),
  },
  stdio: ['ignore', 'pipe', 'inherit'],
});
await new Promise((done) => server.stdout.on('data', (data) => String(data).includes('is ready') && done()));
const args = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
const browser = await chromium.launch({ executablePath, args });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
// A step that cannot be done ends the run rather than holding it.
page.setDefaultTimeout(30_000);

const settle = () => page.waitForTimeout(700);
const shot = async (name) => {
  await settle();
  await page.screenshot({ path: join(folder, `${name}.png`) });
  console.log(`wrote docs/screenshots/${name}.png`);
};
const line = async (text) => {
  await page.keyboard.press('/');
  await page.keyboard.type(text);
  await page.getByRole('listbox', { name: 'What the line would do' }).getByRole('option').first().waitFor();
  await page.keyboard.press('Enter');
  await settle();
};
const pick = async (text) => {
  await page.keyboard.type(text);
  await page.getByRole('listbox').getByRole('option').first().waitFor();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
};

await page.goto(url);
await page.getByLabel('E-mail').waitFor();
await page.getByLabel('E-mail').fill('anna@marrow.example');
await page.getByLabel('Password').fill('ferry-lamp-seven');
await page.keyboard.press('Enter');
await page.getByRole('button', { name: /^Saved/ }).waitFor();
await page.waitForTimeout(3000);
await shot('start');
await page.keyboard.press('Alt+7');
await page.waitForTimeout(3000);
await shot('sheets');
await page.getByRole('link', { name: 'Places' }).click();
await shot('sites');
await line('data room');
await line('rack KQ-A1');
await page.getByRole('button', { name: 'Add device', exact: true }).first().click();
await pick('norvane 48');
await page.keyboard.press('Enter');
await settle();
await page.keyboard.press('c');
await pick('kq-core-1');
await settle();
await shot('rack-connect');
await page.keyboard.press('Enter');
await page.keyboard.press('Escape');
await settle();
await page.getByRole('button', { name: 'All 3 racks' }).click();
await page.getByRole('button', { name: 'Gear', exact: true }).click();
await shot('racks');
await page.getByRole('button', { name: 'Gear', exact: true }).click();
await line('rack KQ-A3');
for (const name of ['KQ-A3-PP1', 'KQ-A3-CM1', 'kq-acc-3', 'KQ-A3-PDA']) {
  await page
    .getByRole('button', { name: new RegExp(`^${name}, `) })
    .first()
    .click({ modifiers: ['Control'], position: { x: 4, y: 4 } });
  await page.waitForTimeout(150);
}
await page.getByRole('button', { name: 'Take out' }).click();
await page.getByRole('button', { name: 'Fit for me' }).click();
await page.getByRole('button', { name: /^Propose places/ }).click();
await page.getByRole('button', { name: 'Close dock' }).click();
await page.getByRole('button', { name: 'Undo', exact: true }).click();
await page.getByRole('button', { name: 'Close', exact: true }).click();
await page.getByRole('link', { name: 'Catalogue' }).click();
await page.getByRole('searchbox', { name: 'Filter rows' }).fill('norvane');
await page.getByRole('option', { name: /AX-3448M/ }).click();
await shot('catalogue');
await line('Data room · cabling');
await page.getByRole('button', { name: /^kq-core-1,/ }).click();
await page.keyboard.press('=');
await shot('sheet');
await page.keyboard.press('=');
await line('Data room · cabling');
await page.getByRole('button', { name: /^kq-fw-1,/ }).click();
await page.getByRole('button', { name: 'Fit all' }).click();
await page.getByRole('button', { name: 'Add', exact: true }).click();
await page.getByRole('menuitem', { name: 'Callout for the chosen device' }).click();
await page
  .getByRole('textbox', { name: 'Text' })
  .fill('## Replace in May\n- order **two** units\n- free `KQ-00042` first');
await page.getByRole('heading', { name: 'Callout' }).click();
await page.waitForTimeout(800);
const note = await page.locator('.react-flow__node-mark').boundingBox();
await page.mouse.move(note.x + 30, note.y + 12);
await page.mouse.down();
await page.mouse.move(note.x, note.y + 20);
await page.mouse.move(124, 300, { steps: 8 });
await page.mouse.up();
await page.waitForTimeout(800);
await shot('sheet-notes');
await line('trace kq-acc-5 te1/25');
await shot('trace');
await page.keyboard.press('Escape');
await line('Kelder Quay · switching');
await page.getByRole('button', { name: /Light up a VLAN/ }).click();
await page.getByRole('option', { name: '40 Cameras' }).first().click();
await page.getByRole('button', { name: 'Fit all' }).click();
await shot('switching');
await line('All sites · routing');
await page.getByRole('button', { name: 'Fit all' }).click();
await shot('routing');
await line('VLAN 40');
await page.getByRole('button', { name: 'On links' }).click();
await shot('vlan-matrix');
await page.getByRole('link', { name: 'Addresses' }).click();
await page.getByRole('button', { name: /^10\.40\.0\.0\/16, pool/ }).dblclick();
await page.getByRole('button', { name: /^10\.40\.0\.0\/19, pool/ }).dblclick();
await page.getByRole('button', { name: /^10\.40\.3\.0\/24/ }).click();
await shot('addresses');
await page.getByRole('link', { name: 'Cloud', exact: true }).click();
await page.getByRole('button', { name: 'booking', exact: true }).click();
await page
  .getByRole('group', { name: 'service-n1a, outward only' })
  .getByRole('button', { name: /cl-web-1/ })
  .click();
await shot('cloud');
await page.keyboard.press('Alt+8');
await page.getByRole('listbox', { name: 'Findings' }).hover();
await page.mouse.wheel(0, 300);
await page.getByRole('option', { name: /VLAN 40 Cameras stops/ }).click();
await page.getByRole('img', { name: '2 devices, drawn' }).waitFor();
await page
  .getByText(/^Today|^\d+ \w+ \d{4}/)
  .first()
  .waitFor();
await shot('review');
await page.keyboard.press('Alt+9');
await page.getByRole('button', { name: 'Cable metres by type' }).click();
await page.getByText('Cat 6 RJ45 · 4 cables').waitFor();
await shot('schedule');
await page.getByRole('link', { name: 'Parts', exact: true }).click();
await page.getByRole('button', { name: 'Otterslip second link' }).click();
await page.getByRole('region', { name: 'Fit to order' }).waitFor();
await shot('parts');
await page.getByRole('link', { name: 'Cloud', exact: true }).click();
await page.getByRole('button', { name: 'booking', exact: true }).click();
await page.getByRole('button', { name: 'Draw', exact: true }).click();
await page.getByRole('button', { name: /^kq-fw-1,/ }).waitFor();
await page.waitForTimeout(1500);
await shot('cloud-sheet');
await page.goto(new URL('/projects', page.url()).href);
await page.getByLabel('New project').fill('Island loop');
await page.getByRole('button', { name: 'Begin project' }).click();
await page.getByRole('link', { name: 'Sheets' }).click();
await page.getByRole('button', { name: 'Begin with a blank sheet' }).click();
await page.getByRole('button', { name: 'As text' }).click();
await page.keyboard.type(
  'ring rt-1 rt-2 rt-3\nrt-1 -- sw-1\n2 access each to sw-1\n3 phones each on access-1',
);
await settle();
await shot('draw-first');
await browser.close();
server.kill('SIGTERM');
await new Promise((done) => server.once('exit', done));
await cluster.stop();
process.exit(0);
