export interface Hive {
  id: string;
  name: string;
  kilograms: number;
  mood?: 'calm' | 'restless';
}
