/** Does something about the item, by the last part of its address; the figures are drawn again. */
export type Act = (path: string, body?: object) => Promise<void>;

export const LINK = 'inline-block min-h-6 text-slate underline underline-offset-4';
export const FIELD = 'mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3';
