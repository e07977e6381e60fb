import { expect, type Page } from '@playwright/test';
import { pageFile } from '../pageFiles';

/** Opens the code at the desk; gives the address that it holds, as a phone's camera would read it. */
export async function codeOf(desk: Page): Promise<string> {
  const [reply] = await Promise.all([
    desk.waitForResponse((response) => response.url().endsWith('/sitting/phone')),
    desk.getByRole('button', { name: 'Use a phone' }).click(),
  ]);
  const { secret } = (await reply.json()) as { secret: string };
  await expect(desk.getByRole('img', { name: /QR code/ })).toBeVisible();
  return new URL(`/p#${secret}`, desk.url()).href;
}

/** Photographs a page with a joined phone, and sends it off. */
export async function photographs(phone: Page, number: number): Promise<void> {
  await phone.getByLabel(`Photograph page ${number}`).setInputFiles(await pageFile(number));
  await phone.getByRole('button', { name: `Send page ${number}` }).click();
}
