/** Something that was started or put in place, and has to be ended. */
export interface Made {
  /** `setInterval 4000 ms`, `a listener for "resize"`. */
  readonly what: string;
  /** The component that made it, where that is known. */
  readonly from: string | undefined;
  /** Where the call was made; read only for a message. */
  readonly calledAt: Error | undefined;
  /** True where it has come to an end by itself, as an observer of what is off the page. */
  readonly isOver?: () => boolean;
}
