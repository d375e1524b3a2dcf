const m = process.argv[2];
const mod = await import(`./bench/${m}.mjs`);
const rows = await Object.values(mod)[0]();
for (const r of rows) console.log(r.name, r.ours.toFixed(2), r.floor.toFixed(2), r.ratio.toFixed(2));
process.exit(0);
