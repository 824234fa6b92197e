import { benchTables } from "../demo";
const n = Number(process.argv[2] ?? 140);
const t = benchTables(n);
console.log(JSON.stringify({single:t.single,pair:t.pair,clean:t.clean,full:t.full,proven:t.proven,inferred:t.inferred}));
for (const m of t.misses) console.log(JSON.stringify(m));
