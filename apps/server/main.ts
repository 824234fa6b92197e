import { pino } from "pino";
import { buildApp } from "./app";
import { httpServer } from "./http";
import { readConfig } from "./config";
import { loadDemo } from "./demoData";
import { migrateDatabase, openDatabase, openPool } from "./db/client";

const config = readConfig(process.env);
const logger = pino({ level: config.logLevel }, pino.destination(2));
const pool = openPool(config.databaseUrl);
await migrateDatabase(pool, config.migrations);
const demo = await loadDemo(openDatabase(pool), { reset: process.argv.includes("--reset-demo"), now: new Date() });
if (process.argv.includes("--load-only")) {
  await pool.end();
  process.exit(0);
}
const { app, start, close } = buildApp({ pool, sessionSecret: config.sessionSecret, webRoot: config.webRoot, logger });
await start();
const server = httpServer(app);
server.on("error", (error) => {
  process.stderr.write(
    `Port ${config.port} cannot be used (${error.message}): choose another one with PORT=4311 ./start\n`,
  );
  process.exit(1);
});
server.listen(config.port, "127.0.0.1", () => {
  const address = server.address();
  const port = typeof address === "object" && address ? address.port : config.port;
  process.stdout.write(`${demo}\nProbe Lane is open at http://127.0.0.1:${port}\nStop it with Ctrl-C.\n`);
});

let isStopping = false;
function stop(): void {
  if (isStopping) return;
  isStopping = true;
  const closed = close();
  // event streams stay open by nature: end them, let requests finish
  server.close(() => void closed.then(() => pool.end()).then(() => process.exit(0)));
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), 1500).unref();
}
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
