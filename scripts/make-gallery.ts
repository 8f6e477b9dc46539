/** Draws the gallery and the sheets of the demo to docs/gallery, and writes how well each reads. */
import { builtInModels } from '@visograph/core/catalogue';
import { readExchange } from '@visograph/core/exchange';
import { Network, newProject } from '@visograph/core/model';
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import {
  drawPicture,
  galleryPage,
  gallerySheets,
  svgOf,
} from '../packages/server/src/sheets/testing/gallery.ts';

const file: unknown = JSON.parse(readFileSync('demo/marrow-sound-ferries.json', 'utf8'));
const begun = Network.of({ project: [newProject('Marrow Sound Ferries')], model: [...builtInModels()] });
const read = readExchange(begun, file);
if (!read.ok) throw new Error(read.problems[0]?.message);

const folder = 'docs/gallery';
mkdirSync(folder, { recursive: true });
for (const name of readdirSync(folder)) rmSync(`${folder}/${name}`);
const pictures = gallerySheets(read.network).map(drawPicture);
for (const picture of pictures) writeFileSync(`${folder}/${picture.name}.svg`, svgOf(picture));
writeFileSync(`${folder}/README.md`, galleryPage(pictures));
