import path from 'node:path';

export const ROOT = path.resolve(import.meta.dirname, '..');
const CACHE = path.join(ROOT, '.cache/e2e');

/** Debian's Chromium without its window: a fifth less work for the same pages. */
export const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell';

/** A seeded data folder that every story starts from a copy of. */
export const TEMPLATE = path.join(CACHE, 'template');
/** What the fake camera shows: the drawn person, as frames of JPEG one after another. */
export const CAMERA_CLIP = path.join(CACHE, 'person.mjpeg');

/** The data with the main sitting of 60 scripts. */
export const COHORT = `${TEMPLATE}-cohort`;
