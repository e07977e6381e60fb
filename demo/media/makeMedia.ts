/* Makes the recordings, films, pictures and documents of the demo again: `node --import tsx demo/media/makeMedia.ts`.
   Needs espeak-ng and ffmpeg, which nobody else needs: what they made is kept in `demo/media/files`. */
import { execFileSync } from 'node:child_process';
import { createWriteStream, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import path from 'node:path';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { BRIEFING, FILM, FILM_DAYS, FILM_SECONDS } from './texts';

const FILES = path.join(import.meta.dirname, 'files');
const work = mkdtempSync(path.join(tmpdir(), 'demo-media-'));
const ffmpeg = (...args: string[]) =>
  execFileSync('ffmpeg', ['-y', '-loglevel', 'error', '-bitexact', ...args]);
const speak = (text: string, file: string, speed: number) =>
  execFileSync('espeak-ng', ['-v', 'en-gb', '-s', String(speed), '-w', file, text]);

function makeBriefing(): void {
  const parts = BRIEFING.map((text, i) => {
    const file = path.join(work, `briefing-${i}.wav`);
    speak(text, file, 145);
    return file;
  });
  const inputs = parts.flatMap((file) => ['-i', file]);
  // A second of silence between two paragraphs.
  const padded = parts.map((_, i) => `[${i}]apad=pad_dur=1[p${i}]`).join(';');
  const joined = `${padded};${parts.map((_, i) => `[p${i}]`).join('')}concat=n=${parts.length}:v=0:a=1`;
  const sound = ['-ac', '1', '-ar', '22050', '-b:a', '32k', '-map_metadata', '-1'];
  ffmpeg(...inputs, '-filter_complex', joined, ...sound, path.join(FILES, 'briefing.mp3'));
}

const [COLUMNS, ROWS, EMPTY] = [4, 3, [9, 11]];
/** In which order seeds get a root: not by their place. */
const ORDER = [5, 2, 8, 0, 7, 3, 10, 6, 1];

function drawFrame(seconds: number): string {
  const now = FILM_DAYS.findLast((one) => seconds >= one.at)!;
  const rooted = new Set(ORDER.slice(0, now.rooted));
  const seeds = Array.from({ length: COLUMNS * ROWS }, (_, i) => {
    const [x, y] = [150 + (i % COLUMNS) * 115, 95 + Math.floor(i / COLUMNS) * 90];
    const grey = EMPTY.includes(i) && now.day >= 14;
    const root = rooted.has(i)
      ? `<path d="M${x} ${y + 16} q6 14 -2 26 t4 18" stroke="#fff" stroke-width="5" fill="none" stroke-linecap="round"/>`
      : '';
    const fill = rooted.has(i) ? '#3f7a52' : grey ? '#a7a49b' : '#6d4f35';
    return `${root}<ellipse cx="${x}" cy="${y}" rx="21" ry="16" fill="${fill}" stroke="#2b221a"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="360"><rect width="640" height="360" fill="#f3f0e7"/><rect x="80" y="40" width="480" height="290" rx="14" fill="#d9c7a0" stroke="#8b7a55" stroke-width="4"/>${seeds.join('')}<rect x="14" y="12" width="112" height="38" rx="6" fill="#fff" stroke="#8b95a0"/><text x="70" y="38" font-family="sans-serif" font-size="22" text-anchor="middle" fill="#1b2733">Day ${now.day}</text></svg>`;
}

const stamp = (seconds: number) => `00:${seconds.toFixed(3).padStart(6, '0')}`;

async function makeFilm(): Promise<void> {
  const FRAMES_A_SECOND = 2;
  for (let i = 0; i < FILM_SECONDS * FRAMES_A_SECOND; i++)
    await sharp(Buffer.from(drawFrame(i / FRAMES_A_SECOND)))
      .png()
      .toFile(path.join(work, `frame-${String(i).padStart(3, '0')}.png`));
  const lines = FILM.map(({ says }, i) => {
    const file = path.join(work, `line-${i}.wav`);
    speak(says, file, 150);
    return file;
  });
  const delayed = FILM.map(({ at }, i) => `[${i + 1}]adelay=${Math.round(at * 1000)}[d${i}]`).join(';');
  const mixed = `${delayed};${lines.map((_, i) => `[d${i}]`).join('')}amix=inputs=${lines.length}:normalize=0,apad=whole_dur=${FILM_SECONDS}[sound]`;
  ffmpeg(
    ...['-framerate', String(FRAMES_A_SECOND), '-i', path.join(work, 'frame-%03d.png')],
    ...lines.flatMap((file) => ['-i', file]),
    ...['-filter_complex', mixed, '-map', '0:v', '-map', '[sound]', '-t', String(FILM_SECONDS)],
    ...['-c:v', 'libvpx-vp9', '-crf', '38', '-b:v', '0', '-pix_fmt', 'yuv420p', '-r', '10'],
    ...['-c:a', 'libopus', '-b:a', '24k', '-ac', '1', '-map_metadata', '-1'],
    path.join(FILES, 'tray.webm'),
  );
  const cues = FILM.map(({ at, says }, i) => {
    const until = (FILM[i + 1]?.at ?? FILM_SECONDS) - 0.3;
    return `${stamp(at)} --> ${stamp(until)}\n${says}`;
  });
  writeFileSync(path.join(FILES, 'tray.vtt'), `WEBVTT\n\n${cues.join('\n\n')}\n`);
}

const label = (x: number, y: number, text: string, size = 26) =>
  `<text x="${x}" y="${y}" font-family="sans-serif" font-size="${size}" fill="#1b2733">${text}</text>`;

async function makeMap(): Promise<void> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="800"><rect width="1200" height="800" fill="#d5e6ea"/>
<path d="M90 420 C120 230 330 120 560 140 C800 160 1050 210 1110 430 C1150 600 960 720 690 710 C420 700 60 640 90 420Z" fill="#ece6d2" stroke="#8b7a55" stroke-width="4"/>
<path d="M330 170 C520 110 720 140 860 190 L840 240 C700 190 520 170 350 225Z" fill="#f6e7a8" stroke="#b59a48" stroke-width="3"/>
<path d="M180 430 C250 350 380 360 420 440 C450 520 330 580 240 550 C180 530 160 470 180 430Z" fill="#dfd49b" stroke="#b59a48" stroke-width="3" stroke-dasharray="10 7"/>
<rect x="640" y="430" width="120" height="80" fill="#fff" stroke="#1b2733" stroke-width="5"/>
<path d="M640 470 C560 470 500 470 420 470 M700 430 C690 350 640 280 600 215 M760 470 C860 470 920 560 980 610" stroke="#a63d2f" stroke-width="5" stroke-dasharray="4 12" stroke-linecap="round" fill="none"/>
<circle cx="985" cy="615" r="34" fill="#9bbfd0" stroke="#2f5d8c" stroke-width="4"/>
<path d="M1080 90 l0 -50 l-16 26 m16 -26 l16 26" stroke="#1b2733" stroke-width="5" fill="none"/>
${label(1070, 125, 'N')}${label(510, 192, 'North beach')}${label(230, 470, 'Dunes')}${label(622, 545, 'Seed store')}${label(900, 690, 'Spring')}
<path d="M100 745 h200 m-200 -10 v20 m200 -20 v20" stroke="#1b2733" stroke-width="4"/>${label(120, 728, '0', 22)}${label(262, 728, '500 m', 22)}</svg>`;
  await sharp(Buffer.from(svg)).png({ palette: true }).toFile(path.join(FILES, 'map.png'));
}

const RULES: readonly (readonly [string, readonly string[]])[] = [
  [
    'Before you collect',
    [
      'Ask the warden which beaches are open. A red flag at the seed store closes all of them.',
      'Take paper bags, a pencil and a record card. Ink runs when it is wet.',
      'Look at the whole stand first. Count at least fifty plants, or all of them.',
    ],
  ],
  [
    'While you collect',
    [
      'Take seed from no more than one plant in five.',
      'Take no more than 20 % of the ripe seed of a plant.',
      'Leave every plant that has fewer than ten ripe pods.',
      'Close each bag with two folds. Never lick the paper.',
    ],
  ],
  [
    'Afterwards',
    [
      'Weigh each bag to the nearest tenth of a gram. An empty bag weighs 2.4 g.',
      'Dry the bags at 15 °C and 15 % relative humidity for at least four weeks.',
      'A bag that weighs less than 5 g is kept apart and not counted.',
    ],
  ],
];

async function makeRules(): Promise<void> {
  const info = { Title: 'Rules for collecting seed', CreationDate: new Date(Date.UTC(2026, 0, 1)) };
  const document = new PDFDocument({ size: 'A4', margin: 64, tagged: true, lang: 'en-GB', info });
  const out = createWriteStream(path.join(FILES, 'collecting-rules.pdf'));
  document.pipe(out);
  document.font('Helvetica-Bold').fontSize(22).text('Rules for collecting seed').moveDown();
  for (const [i, [title, rules]] of RULES.entries()) {
    if (i === 2) document.addPage();
    document.font('Helvetica-Bold').fontSize(15).text(title).moveDown(0.4);
    document.font('Helvetica').fontSize(12);
    for (const [k, rule] of rules.entries()) document.text(`${i + 1}.${k + 1}  ${rule}`).moveDown(0.5);
    document.moveDown();
  }
  document.end();
  await once(out, 'finish');
}

/** A bean, cut open: its outer layer, two halves, a folded leaf and the young root. */
const BEAN = `<svg xmlns="http://www.w3.org/2000/svg" width="800" height="560">
<rect width="800" height="560" fill="#fbfaf6"/>
<path d="M92 300 C70 120 250 40 420 60 C620 80 740 190 730 330 C720 460 560 520 400 500 C240 490 110 450 92 300 Z" fill="#e7d9b4" stroke="#6d4f35" stroke-width="16"/>
<path d="M300 300 C290 170 430 110 520 130 C640 160 690 250 670 340 C650 430 520 460 430 440 C340 425 305 380 300 300 Z" fill="#f3ead0" stroke="#a88f5f" stroke-width="3"/>
<path d="M200 205 q46 -40 92 -4 q-20 28 -46 30 q28 12 40 34 q-60 14 -86 -60" fill="#b9cf97" stroke="#6f8a4d" stroke-width="4"/>
<path d="M196 250 C150 270 112 290 104 330 C130 352 168 336 188 300 C196 282 206 268 214 258 Z" fill="#fff6dd" stroke="#a88f5f" stroke-width="4"/>
</svg>`;

const makeBean = () => sharp(Buffer.from(BEAN)).png({ palette: true }).toFile(path.join(FILES, 'bean.png'));

makeBriefing();
await makeFilm();
await makeMap();
await makeBean();
await makeRules();
rmSync(work, { recursive: true });
