/* A module that opens a connection as soon as its file is loaded: nobody wants it in a test. */
export const connections = ((globalThis as { connections?: string[] }).connections ??= []);
connections.push('scale');

export const readScale = (hiveId: string): { kilograms: number } => ({ kilograms: hiveId.length });
export const fetchWeight = async (hiveId: string): Promise<number> => hiveId.length;
export const unit: string = 'kg';
