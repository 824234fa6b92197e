import { expect, test } from "@playwright/test";
import { Client } from "pg";
import { accessible } from "./accessible";
import { onShared, ownDemo, OwnServer } from "./server";

const LANES = 200;

async function query<T extends object>(url: string, text: string, values: unknown[] = []): Promise<T[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<T>(text, values)).rows;
  } finally {
    await client.end();
  }
}

/** The demo class with many more lanes of its first exercise, copied within the database. */
async function fill(url: string): Promise<void> {
  await query(
    url,
    `
    with source as (select a.id, a.assignment_id, a.student_id, a.opened_at, a.handed_in_at from attempts a join assignments s on s.id = a.assignment_id where s.place = 0 and a.handed_in_at is not null),
         copies as (insert into attempts (id, assignment_id, student_id, number, opened_at, handed_in_at)
           select gen_random_uuid(), assignment_id, student_id, 1000 + n, opened_at, handed_in_at from source, generate_series(1, ${LANES / 4}) n returning id, student_id)
    insert into lane_events (attempt_id, seq, at, actor_id, writer, client_seq, event)
      select copies.id, e.seq, e.at, e.actor_id, e.writer, e.client_seq, e.event from copies join source on source.student_id = copies.student_id join lane_events e on e.attempt_id = source.id`,
  );
}

test("marking again goes on after kill -9 of the server: every lane once, the old rulings beside the new", async ({
  browser,
}) => {
  const url = await ownDemo("regrade");
  const server = new OwnServer({ DATABASE_URL: url });
  try {
    await server.start();
    await fill(url);
    const page = await (await browser.newContext({ baseURL: server.url })).newPage();
    await page.goto("/sign-in");
    await page.getByLabel("Name").fill("marrow");
    await page.getByLabel("Password").fill("fernhollow");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.getByRole("link", { name: "Marks" }).click();
    await page.getByRole("link", { name: /^Tolerances and weights of Focuser plate, lower left/ }).click();
    await page.getByLabel("X", { exact: true }).fill("0.001");
    await page.getByLabel("zero at so many tolerances").fill("0,5");
    await expect(page.getByText(/Marks reach zero at more than one tolerance/)).toBeVisible();
    await page.getByLabel("zero at so many tolerances").fill("3");
    await page.getByRole("button", { name: "Preview who changes" }).click();
    await expect(page.getByText(/lanes change: 0 up/)).toBeVisible({ timeout: 60_000 });
    await accessible(page);
    await page.getByRole("button", { name: /^Mark all/ }).click();
    const done = async () => Number((await query<{ done: number }>(url, "select done from regrades"))[0]?.done ?? 0);
    await expect.poll(done, { intervals: [20], timeout: 30_000 }).toBeGreaterThan(20);
    await server.kill();
    const at = await done();
    const [{ lanes } = { lanes: 0 }] = await query<{ lanes: number }>(url, "select lanes from regrades");
    expect(at).toBeLessThan(lanes);
    // what is counted is there, and nothing else
    const marked = async () =>
      Number(
        (
          await query<{ n: string }>(
            url,
            "select count(*) n from rulings r join regrades g on g.revision = r.marking_revision and g.exercise_id = r.body->>'exerciseId'",
          )
        )[0]?.n,
      );
    expect(await marked()).toBe(at);
    await server.start();
    await page.reload();
    await expect(page.getByRole("status")).toHaveText(new RegExp(`^${lanes} of ${lanes} lanes, finished`), {
      timeout: 60_000,
    });
    expect(await marked()).toBe(lanes);
    const twice = await query(
      url,
      "select attempt_id from rulings group by attempt_id, marking_revision having count(*) > 1",
    );
    expect(twice).toHaveLength(0);
    const [{ id } = { id: "" }] = await query<{ id: string }>(
      url,
      "select a.id from attempts a join rulings r on r.attempt_id = a.id join regrades g on g.revision = r.marking_revision and g.exercise_id = r.body->>'exerciseId' where a.number = 1 limit 1",
    );
    await page.goto(`/lanes/${id}/ruling`);
    await expect(page.getByText(/Marked again by revision 3\. Before: [\d.]+ by revision 2/)).toBeVisible();
    await server.kill();
  } finally {
    await server.kill();
    await onShared(`drop database if exists ${new URL(url).pathname.slice(1)} with (force)`);
  }
});
