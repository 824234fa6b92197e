import { execFile } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { promisify } from "node:util";
import { expect, test } from "@playwright/test";
import pg from "pg";
import { KeyboardStudent } from "./keyboardStudent";
import { onShared, ownDemo, OwnServer } from "./server";

const run = promisify(execFile);

/** The script's last words, whether it went well or not. */
async function script(name: string, file: string, databaseUrl: string): Promise<string> {
  const env = { ...process.env, PG_NAME: "test", DATABASE_URL: databaseUrl };
  try {
    const { stdout } = await run(`scripts/${name}.sh`, [file], { env });
    return stdout;
  } catch (error) {
    return (error as { stderr?: string }).stderr ?? "";
  }
}

async function ask<T extends object>(url: string, text: string): Promise<T[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<T>(text)).rows;
  } finally {
    await client.end();
  }
}

/** How much of everything there is, and what the lanes hold to the last byte. */
const contents = (url: string) =>
  ask(
    url,
    `select (select count(*)::int from users) as people, (select count(*)::int from attempts) as lanes,
      (select count(*)::int from rulings) as rulings, (select count(*)::int from floor_entries) as entries,
      (select md5(string_agg(attempt_id || ' ' || seq || ' ' || event::text, '|' order by attempt_id, seq))
       from lane_events) as events`,
  );

test("a backup of a server at work is put in elsewhere, whole, and goes on there", async ({ browser }, {
  outputDir,
}) => {
  test.setTimeout(150_000);
  const base = new URL(process.env["DATABASE_URL"] ?? "");
  const named = (name: string) => Object.assign(new URL(base.href), { pathname: `/${name}` }).href;
  const [here, there] = [await ownDemo("here"), named(`there_${process.pid}`)];
  await onShared(`create database ${new URL(there).pathname.slice(1)}`);
  const server = new OwnServer({ DATABASE_URL: here });
  await server.start();
  const page = await browser.newPage({ baseURL: server.url });
  const student = new KeyboardStudent(page);
  await student.signIn("sorrel");
  await student.startLane("Focuser plate, lower left corner");
  await student.do("h");
  await student.size(1);
  await student.do("ArrowLeft");
  const before = await student.figure("machine-x");

  const file = `${outputDir}/school.backup`;
  mkdirSync(outputDir, { recursive: true });
  writeFileSync(`${outputDir}/else`, "no backup");
  expect(await script("backup", file, here)).toContain("Written:");
  expect(statSync(file).mode & 0o077).toBe(0);
  expect(await script("backup", file, here)).toContain("is there already");
  expect(await script("restore", `${outputDir}/else`, there)).toContain("is no backup of Probe Lane");
  // nothing is put in under a server that works
  expect(await script("restore", file, here)).toContain("Probe Lane runs: stop it with Ctrl-C first");
  await student.do("ArrowLeft");
  await server.kill();
  const kept = await contents(here);

  expect(await script("restore", file, there)).toContain("Restored from");
  const again = new OwnServer({ DATABASE_URL: there });
  await again.start();
  const elsewhere = new KeyboardStudent(await browser.newPage({ baseURL: again.url }));
  await elsewhere.signIn("sorrel");
  await elsewhere.page.goto(new URL(page.url()).pathname);
  await expect.poll(() => elsewhere.figure("machine-x")).toBeCloseTo(before, 6);
  await again.kill();
  // put in where something is already: that is kept first, and what was done since the backup is gone
  const said = await script("restore", file, here);
  expect(said).toContain("Restored from");
  const [now] = await contents(here);
  expect(now).toEqual((await contents(there))[0]);
  expect(now).not.toEqual(kept[0]);
  expect(now).toMatchObject({ people: expect.any(Number), entries: expect.any(Number) as unknown });

  // of a version that is not written yet
  await ask(here, "insert into drizzle.__drizzle_migrations (hash, created_at) values ('to come', 9999999999999)");
  const newer = `${outputDir}/newer.backup`;
  expect(await script("backup", newer, here)).toContain("Written:");
  expect(await script("restore", newer, there)).toContain("made by a newer version");
  expect(await contents(there)).toEqual([now]);
  expect(existsSync(file) && readFileSync(file).length).toBeGreaterThan(10_000);
});
