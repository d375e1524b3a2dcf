/** The weight of a hive, as a server knows it. */
export const weigh = (hive: string): Promise<string> =>
  Promise.reject(new Error(`${hive} was weighed for real`));
