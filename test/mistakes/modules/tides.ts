export const phase: string = 'flood';
export const height: number = 2;
