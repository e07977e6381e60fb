/** What a file beside a text is, and what is known of it. */
export type FileFacts = { readonly hash: string } & (
  | { readonly is: 'picture' | 'captions' }
  | { readonly is: 'audio' | 'video'; readonly seconds: number }
  | { readonly is: 'pdf'; readonly pages: number }
);

/** A file by the name that the author gave it; null where there is none. */
export type FileOf = (name: string) => FileFacts | null;
