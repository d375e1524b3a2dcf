export interface Hive {
  id: string;
  name: string;
  kilograms: number;
  mood?: 'calm' | 'restless';
}

export async function getJson<T>(path: string): Promise<T> {
  const response = await fetch(path);
  if (!response.ok) throw new Error(`The yard answered ${response.status}`);
  return (await response.json()) as T;
}
