/** The styles of the panel, which those of the page do not reach. */
export const styles = `
:host { all: initial; position: fixed; inset: auto 0 0 0; z-index: 2147483000; }
section { box-sizing: border-box; display: grid; gap: 8px; max-height: 45vh; overflow: auto; padding: 10px 16px 12px;
  font: 14px/1.4 system-ui, 'Segoe UI', 'DejaVu Sans', sans-serif; color: #26221a; background: #fffdf7; color-scheme: light;
  border-top: 2px solid #8a5a00; box-shadow: 0 -4px 18px rgb(38 34 26 / 18%); }
.row { display: flex; flex-wrap: wrap; gap: 6px 10px; align-items: center; }
.props, .waiting { display: grid; gap: 8px; }
.props:empty, .waiting:empty, .trouble:empty { display: none; }
label { display: flex; flex: 1 1 auto; gap: 8px; align-items: flex-start; }
label code { min-width: 90px; padding-top: 4px; }
code, pre, textarea { font: 12.5px/1.45 ui-monospace, 'DejaVu Sans Mono', monospace; }
input, textarea, button { color: inherit; }
input, button { font: inherit; }
input[type='text'], input[type='number'], textarea { padding: 4px 8px; border: 1px solid #cfc4a4; border-radius: 6px; background: #fff; }
textarea { flex: 1 1 260px; max-width: 720px; }
button { padding: 4px 11px; border: 1px solid #b9ab82; border-radius: 7px; background: #fff; cursor: pointer; }
button:hover { background: #f6efdc; }
:focus-visible { outline: 2px solid #8a5a00; outline-offset: 1px; }
pre { margin: 0; white-space: pre-wrap; overflow-wrap: anywhere; }
.trouble { color: #a3281c; border-left: 3px solid #a3281c; padding-left: 10px; }
.fixed { color: #6a6251; padding-top: 3px; }
summary { cursor: pointer; color: #6a6251; }
`;
