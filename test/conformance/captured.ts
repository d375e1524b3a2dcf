/* What tells the time, captured when the file is loaded, as many packages do. */
export const { setTimeout: startTimer, Date: Clock } = globalThis;
export const { now } = Date;
