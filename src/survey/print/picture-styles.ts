/** How the picture looks, by light and in the dark. */
export const styles = `
svg{--ground:#fbfaf7;--ink:#22201b;--soft:#6d675c;--line:#b9b1a1;--box:#fff;--hard:#b3261e;--way:#a86a00;--cut:#1c7a43;--component:#2f6fb0;--code:#8a8170;--given:#7a4fb0;--package:#3b3833;font-family:system-ui,sans-serif}
@media (prefers-color-scheme:dark){svg{--ground:#1b1a18;--ink:#efece5;--soft:#a9a294;--line:#5a554b;--box:#26241f;--hard:#ff8a80;--way:#f0b35a;--cut:#63cf8f;--component:#7db5ee;--code:#a89f8e;--given:#c0a0ee;--package:#d8d2c6}}
.ground{fill:var(--ground)}
.title{font-size:17px;font-weight:600;fill:var(--ink)}
.way{fill:none;stroke:var(--line);stroke-width:1.3}
.box{fill:var(--box);stroke:var(--line)}
.name{font-size:13px;font-weight:600;fill:var(--ink)}
.kind{font-size:11px;fill:var(--soft)}
.edge{fill:var(--code)}
.component .edge{fill:var(--component)}
.given .edge{fill:var(--given)}
.package .edge{fill:var(--package)}
.hard .edge{fill:var(--hard)}
.hard .box{stroke:var(--hard)}
.hard .kind{fill:var(--hard)}
.way-to-hard .box{stroke:var(--way)}
.subject .box{stroke-width:2.5}
.cut .box{stroke:var(--cut);stroke-width:2;stroke-dasharray:6 3}
.cut-number{font-size:11px;font-weight:600;text-anchor:end;fill:var(--cut)}
.is-faint{opacity:.16}
.is-chosen .box{stroke-width:3}
.way.is-on{stroke:var(--ink);stroke-width:2}
`;
