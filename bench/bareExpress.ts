import express from "express";
import pg from "pg";

/** The baseline: an Express handler that parses a body and does one INSERT. */
const pool = new pg.Pool({ connectionString: process.env["DATABASE_URL"], max: 12 });
await pool.query(
  "create table if not exists bare (id bigint generated always as identity primary key, lane int not null, body jsonb not null)",
);
const app = express();
app.post("/insert", express.json(), async (req, res) => {
  const { lane } = req.body as { lane: number };
  const { rows } = await pool.query("insert into bare (lane, body) values ($1, $2) returning id", [
    lane,
    JSON.stringify(req.body),
  ]);
  res.json(rows[0]);
});
app.listen(Number(process.env["PORT"]), "127.0.0.1", () => process.stdout.write("is open at\n"));
