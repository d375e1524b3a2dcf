/** Where people switch the states. */
export const controlPath = '/__simulacra/';
