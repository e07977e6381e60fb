/** What a page of an answer can be: pictures as the device re-encodes them, or a PDF document. */
export const pageTypes = ['image/jpeg', 'image/png', 'image/webp', 'application/pdf'] as const;
export type PageType = (typeof pageTypes)[number];

/**
 * A page by the SHA-256 of its file, as the device sends it. Names of files are never kept: they may tell assessors who
 * somebody is.
 */
export interface Page {
  /** SHA-256, hex in lower case. */
  readonly hash: string;
  readonly bytes: number;
  readonly type: PageType;
  /** How far it is turned clockwise to be read, in degrees. */
  readonly turn: 0 | 90 | 180 | 270;
}

/** Phones send no more for one part, those that are taken away again included. */
export const MOST_PHONE_PAGES = 60;

/** A phone stays joined for this long, in ms. */
export const PHONE_MS = 10 * 60_000;

/** The largest file of a page, in bytes; devices shrink pictures to far less. */
export const MOST_PAGE_BYTES = 12 * 1024 * 1024;

/** Pages travel in parts of this many bytes, so that a line that is cut costs little. */
export const PAGE_PART_BYTES = 256 * 1024;

/**
 * How far the bytes of a page are on the server: a part of them, all of them, or all of them with a content that cannot be
 * read as a page.
 */
export type PageState = 'partly' | 'here' | 'unreadable';

/** The reply to a part: how many bytes from the beginning are durable. */
export interface PagePartReply {
  readonly held: number;
  readonly state: PageState;
}
