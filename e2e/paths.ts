import path from 'node:path';

export const ROOT = path.resolve(import.meta.dirname, '..');
const CACHE = path.join(ROOT, '.cache/e2e');

/** A seeded data folder that every story starts from a copy of. */
export const TEMPLATE = path.join(CACHE, 'template');
/** What the fake camera shows: the drawn person, as frames of JPEG one after another. */
export const CAMERA_CLIP = path.join(CACHE, 'person.mjpeg');

/** The data with the main sitting of 60 scripts. */
export const COHORT = `${TEMPLATE}-cohort`;
