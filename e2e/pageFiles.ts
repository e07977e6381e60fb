import sharp from 'sharp';

/** A page of working, as a phone would photograph it: lines of writing, and its number. */
export function pagePicture(number: number): Promise<Buffer> {
  const lines = ['500 : 60 = 8', '8 x 60 = 480', '500 - 480 = 20', `sheet ${number}`];
  const written = lines
    .map((line, i) => `<text x="150" y="${300 + i * 190}" font-size="110" font-style="italic">${line}</text>`)
    .join('');
  const ruled = Array.from(
    { length: 12 },
    (_, i) => `<path d="M0 ${320 + i * 95}H1200" stroke="#c9d6dd"/>`,
  ).join('');
  const sheet = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="1600"><rect width="1200" height="1600" fill="#f7f4ec"/>${ruled}<g font-family="serif" fill="#223a5e">${written}</g></svg>`;
  // Noise like a camera's, so that a page is as large as pages are and travels in several parts.
  const noise = { width: 1200, height: 1600, channels: 3, background: '#000' } as const;
  return sharp(Buffer.from(sheet))
    .composite([
      {
        input: { create: { ...noise, noise: { type: 'gaussian', mean: 128, sigma: 20 } } },
        blend: 'hard-light',
      },
    ])
    .jpeg({ quality: 90 })
    .toBuffer();
}

/** As a file input takes it. */
export const pageFile = async (number: number) => ({
  name: `IMG_${number}.jpg`,
  mimeType: 'image/jpeg',
  buffer: await pagePicture(number),
});
