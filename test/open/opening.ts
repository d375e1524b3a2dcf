// Opens something as soon as it is loaded.
export const timer = setInterval(() => undefined, 4000);
