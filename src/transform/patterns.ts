/** What is no script of the project's own: packages that come as standard modules, styles, pictures. */
export const assets =
  'node_modules.+\\.m?js$|\\.(css|s[ac]ss|less|styl|svg|png|jpe?g|gif|webp|avif|ico|bmp|woff2?|ttf|otf|eot|mp[34]|webm|ogg|wav|pdf)$';

/** The project's own scripts. Another transformer for them goes by the same name. */
export const scripts = '\\.[jt]sx?$';

/**
 * What Jest transforms with. It hooks into Node while it loads a runner or an environment, and a tool that is
 * transformed in the middle of its own work is found half loaded.
 */
export const tools =
  '/node_modules/(@jest|@babel|@jridgewell|jest|jest-[^/]+|babel-[^/]+|jsdom|pirates|convert-source-map|fast-json-stable-stringify|graceful-fs|slash|write-file-atomic|signal-exit|imurmurhash)/';
