/* A page that can animate, as a browser's can: Angular asks for that when it is loaded. */
Element.prototype.getAnimations ??= () => [];

export {};
