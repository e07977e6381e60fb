/** A file beside a text, by the SHA-256 of its bytes: what it is and what is known of it. */
export type FileFacts =
  | { readonly is: 'picture'; readonly hash: string }
  | { readonly is: 'captions'; readonly hash: string }
  | { readonly is: 'audio'; readonly hash: string; readonly seconds: number }
  | { readonly is: 'video'; readonly hash: string; readonly seconds: number }
  | { readonly is: 'pdf'; readonly hash: string; readonly pages: number };

/** A file by the name that the author gave it; null where there is none. */
export type FileOf = (name: string) => FileFacts | null;
