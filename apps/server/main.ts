import { readFileSync } from "node:fs";
import { pino } from "pino";
import { toString as scanned } from "qrcode";
import { buildApp } from "./app";
import { fingerprintOf } from "./certificate";
import { httpServer, secureServer } from "./http";
import { readConfig } from "./config";
import { demoToDrop, hasDemo, loadDemo } from "./demoData";
import { firstStore } from "./areas/first/store";
import { newJoinCode } from "./areas/roster/service";
import { isLoopback, urlsOf } from "./reach";
import { migrateDatabase, openDatabase, openPool } from "./db/client";

const config = readConfig(process.env);
const logger = pino({ level: config.logLevel }, pino.destination(2));
const pool = openPool(config.databaseUrl);
await migrateDatabase(pool, config.migrations);
const db = openDatabase(pool);
const first = firstStore(db);
const isSchool = await first.hasInstructor();
const reset = process.argv.includes("--reset-demo");
const isEmpty = process.argv.includes("--empty");
// a school has the demo beside it only where it asked for it
const wantsDemo = reset || (!isEmpty && (!isSchool || (await hasDemo(db))));
const dropped = reset ? await demoToDrop(db) : null;
if (dropped) process.stdout.write(`${dropped}\n`);
const demo = wantsDemo ? await loadDemo(db, { reset, now: new Date() }) : null;
const isDemoHere = await hasDemo(db);
const firstCode = isEmpty && !isSchool ? newJoinCode() : null;
if (process.argv.includes("--load-only")) {
  await pool.end();
  process.exit(0);
}
const { host, tls } = config;
const secrets = tls ? { cert: readFileSync(tls.certPath), key: readFileSync(tls.keyPath) } : null;
const fingerprint = secrets && fingerprintOf(secrets.cert);
let urls: readonly string[] = [];
const { app, start, close } = buildApp({
  pool,
  sessionSecret: config.sessionSecret,
  webRoot: config.webRoot,
  logger,
  firstCode,
  reach: () => ({ isShared: !isLoopback(host), urls, fingerprint }),
});
await start();
const secure = secrets ? secureServer(app, secrets) : null;
const plain = secure ? null : httpServer(app);
const server = secure?.door ?? plain;
if (!server) throw new Error("no server was built");
const connections = secure ?? plain;
server.on("error", (error) => {
  process.stderr.write(
    `${host}:${config.port} cannot be used (${error.message}): choose another port with PORT=4311 ./start\n`,
  );
  process.exit(1);
});
server.listen(config.port, host, () => {
  const address = server.address();
  const port = typeof address === "object" && address ? address.port : config.port;
  urls = urlsOf({ host, port, isSecure: secure !== null });
  const say = (line: string) => process.stdout.write(`${line}\n`);
  if (demo) say(demo);
  if (isDemoHere && !isLoopback(host))
    say(
      "The demo is here, everybody knows its password, and this is open to the network: a school starts with --empty.",
    );
  say(`Probe Lane is open at ${urls.join(" and ")}`);
  if (firstCode) say(`Nobody teaches here yet: open it, and begin with the code ${firstCode}`);
  if (fingerprint) say(`Fingerprint of its certificate (SHA-256): ${fingerprint}`);
  const [url] = urls;
  const told = () => say("Stop it with Ctrl-C.");
  if (isLoopback(host) || url === undefined) told();
  else
    void scanned(`${url}/join`, { type: "terminal", small: true }).then((code) => {
      say(code);
      told();
    });
});

let isStopping = false;
function stop(): void {
  if (isStopping) return;
  isStopping = true;
  const closed = close();
  // event streams stay open by nature: end them, let requests finish
  server?.close(() => void closed.then(() => pool.end()).then(() => process.exit(0)));
  connections?.closeIdleConnections();
  setTimeout(() => connections?.closeAllConnections(), 1500).unref();
}
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
