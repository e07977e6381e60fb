/** Does something about the sitting, by the last part of its address; the review is drawn again. */
export type Act = (path: string, body: object) => Promise<void>;
