export const quote = (words: string): string =>
  `'${words.replace(/[\\']/g, '\\$&').replace(/\n/g, '\\n').replace(/\r/g, '\\r')}'`;
export const nameField = (key: string): string => (/^[A-Za-z_$][\w$]*$/.test(key) ? key : quote(key));

/** `hive` of `hives`. */
export const singular = (name: string): string =>
  name
    .replace(/ies$/, 'y')
    .replace(/(?<=[a-z]{2})(ch|sh|x|ss)es$/, '$1')
    .replace(/(?<=[^s])s$/, '');

/** `hive-id` of `hiveId`. */
export const dashed = (name: string): string => name.replace(/([a-z])([A-Z])/g, '$1-$2').toLowerCase();
