/** From the parent, one case at a time. Expected values are never part of it. */
export interface CaseMessage {
  readonly program: string;
  readonly functionName: string;
  readonly index: number;
  /** JSON of the argument list. */
  readonly arguments: string;
  readonly milliseconds: number;
  readonly megabytes: number;
  readonly outputBytes: number;
}

/** From the child. The parent believes nothing of it: see `parseReply`. */
export interface CaseReply {
  readonly index: number;
  /** JSON of a `HarnessReply`, or a limit that was met. */
  readonly reply: string;
  readonly limit: 'none' | 'time' | 'memory' | 'output';
  readonly printed: string;
  readonly milliseconds: number;
}
