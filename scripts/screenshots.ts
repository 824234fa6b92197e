import { test, type Page } from "@playwright/test";
import { BenchHands } from "../e2e/benchHands";
import { KeyboardStudent } from "../e2e/keyboardStudent";
import type { LaneView } from "@probe-lane/contract";
import { pageLanes } from "../e2e/lanes";
import { workThrough } from "../e2e/workThrough";
import { atTheBench } from "../e2e/sheet";

const shot = async (page: Page, name: string): Promise<void> => {
  await page.waitForTimeout(500);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
};
const dark = (page: Page) => page.addInitScript(() => localStorage.setItem("probe-lane.theme", "dark"));

test("bench: closing in on an edge", async ({ page }) => {
  await workThrough(page, "quillfeather", pageLanes.closingIn);
  await page.keyboard.press("]");
  await shot(page, "bench");
});

test("bench: a first part, measured", async ({ page }) => {
  await workThrough(page, "merriwick", {
    ...pageLanes.clampSecondPart,
    until: ({ command }) => command.type === "judgePart",
  });
  await page.keyboard.press("3");
  await page.getByRole("img", { name: /machine in space/ }).waitFor();
  await page.waitForTimeout(1000);
  await shot(page, "first-part");
});

test("student: my lanes, ruling", async ({ page }) => {
  await new KeyboardStudent(page).signIn("brandvold");
  await page.getByText("Practice that now").waitFor();
  await shot(page, "my-lanes");
  await page
    .getByRole("link", { name: /Read the ruling/ })
    .first()
    .click();
  await shot(page, "ruling");
});

test("student: a program, run with the registers of a lane", async ({ page }) => {
  await new KeyboardStudent(page).signIn("brandvold");
  await page
    .getByRole("link", { name: /Read the ruling/ })
    .first()
    .click();
  await page.getByRole("link", { name: "Run a program with them" }).click();
  await page.getByRole("button", { name: "Show focuser plate" }).click();
  await page.getByRole("button", { name: "Run the program" }).click();
  await page.getByTestId("proof").waitFor();
  await shot(page, "program");
});

test("bench: a program held at its first approach", async ({ page }) => {
  await workThrough(page, "sorrel", { ...pageLanes.programProved, until: ({ command }) => command.type === "sayGap" });
  await page.getByLabel("Gap seen").fill("50");
  await shot(page, "proving");
});

test("bench: the lathe, a skim along the diameter", async ({ page }) => {
  const hands = new BenchHands(page, "turret");
  await hands.signIn("sorrel");
  await page.getByRole("button", { name: "Start Drawtube knob, the first tool", exact: true }).click();
  await page.waitForURL(/\/lanes\//);
  await atTheBench(page);
  await hands.perform({ command: { type: "home" }, clicks: 0 });
  await hands.perform({ command: { type: "startSpindle", direction: "forward", rpm: 900 }, clicks: 0 });
  // where to go, by eye: as the drawing shows it
  const { observation } = (await (await page.request.get(`/api${new URL(page.url()).pathname}`)).json()) as LaneView;
  if (observation.kind === "mill") throw new Error("not a lathe");
  const { machine, lathe } = observation;
  const x = (radiusMm: number) => `X${(machine.x / 1000 + 2 * (radiusMm - lathe.tip.radiusMm)).toFixed(3)}`;
  const z = (overFaceMm: number) => `Z${(machine.z / 1000 + lathe.tip.faceMm + overFaceMm - lathe.tip.zMm).toFixed(3)}`;
  for (const block of [
    `G0 ${z(5)}`,
    `G0 ${x(25)}`,
    `G0 ${z(-1)}`,
    `G1 ${x(-1)} F120`,
    `G0 ${x(25)}`,
    `G0 ${z(3)}`,
    `G0 ${x(20.2)}`,
    `G1 ${z(-14)}`,
  ])
    await hands.block(`G53 ${block}`);
  await shot(page, "bench-lathe");
});

test("instructor: what goes wrong in a class", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.goto("/patterns");
  await page.getByLabel("Exercise").selectOption({ label: "Five tools touched on the part (8)" });
  await page.getByRole("heading", { name: "Time at work for each gate" }).waitFor();
  await shot(page, "patterns");
});

test("the same setup in another school", async ({ page }) => {
  await new KeyboardStudent(page).signIn("quillfeather");
  await page
    .getByRole("region", { name: "Five tools from the gauge line" })
    .getByRole("link", { name: /Read the ruling/ })
    .click();
  await page.getByRole("link", { name: "The same setup in another school" }).click();
  await page.getByLabel("School", { exact: true }).selectOption("master");
  await shot(page, "schools");
});

test("bench in the dark look, after a crash", async ({ page }) => {
  await dark(page);
  await new KeyboardStudent(page).signIn("ashgrove");
  await page.getByRole("button", { name: /Go on with attempt/ }).click();
  await page.waitForURL(/\/lanes\//);
  await shot(page, "bench-dark");
});

test("instructor: wall, marks", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("table", { name: /^Each student’s newest lane/ }).waitFor();
  await shot(page, "wall");
  await page.getByRole("link", { name: "Marks" }).click();
  await shot(page, "marks");
});

test("instructor: a lane replayed, with a note", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Marks" }).click();
  await page
    .getByRole("row", { name: /Tamblin/ })
    .getByRole("link")
    .nth(2)
    .click();
  await page
    .getByRole("link", { name: /^Replay entry/ })
    .first()
    .click();
  await page
    .getByLabel(/A note pinned to this moment/)
    .fill("Both hands: the small one stood a turn away from zero here.");
  await page.getByRole("button", { name: "Pin it here" }).click();
  await page.getByText("Both hands: the small one").waitFor();
  await shot(page, "replay");
});

test("instructor: who can do what", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  // two worksheets of the shop, typed in, found good, signed and handed in
  await page.evaluate(async () => {
    const call = async (method: string, path: string, body?: unknown) => {
      const reply = await fetch(`/api${path}`, {
        method,
        headers: { "content-type": "application/json" },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      });
      return reply.status === 204 ? null : ((await reply.json()) as never);
    };
    const { exercises }: { exercises: { id: string; exercise: { machine: string; registers: { id: string }[] } }[] } =
      (await call("GET", "/floor")) as never;
    const { students }: { students: { id: string; name: string }[] } = (await call("GET", "/class")) as never;
    const mill = exercises.find(({ exercise }) => exercise.machine === "mill");
    if (!mill) return;
    for (const name of ["Calla Merriwick", "Theodric Okonjo-Vale"]) {
      const studentId = students.find((one) => one.name === name)?.id;
      const { id }: { id: string } = (await call("POST", `/floor/exercises/${mill.id}/lanes`, { studentId })) as never;
      const write = async (entries: object[], isFromPaper: boolean) => {
        const sent = entries.map((entry, place) => ({
          id: crypto.randomUUID(),
          atMs: Date.now() + place,
          entry,
          ...(isFromPaper ? { isFromPaper } : {}),
        }));
        await call("POST", `/floor/lanes/${id}/entries`, { entries: sent });
        return sent.map((one) => one.id);
      };
      const registers = mill.exercise.registers.map((one) => one.id);
      const set = registers.flatMap((register) => [
        { type: "reading", register, mm: -200 },
        { type: "sum", register, mm: -200 },
        { type: "register", register, mm: -200 },
      ]);
      const [, ...typed] = await write([{ type: "cautionsRead" }, ...set], true);
      const judged = await write(
        registers.map((register) => ({ type: "judgedWithin", register, mm: -200 })),
        false,
      );
      await write([{ type: "signedOff", saw: [...typed, ...judged] }], false);
      await write([{ type: "handedIn" }], true);
    }
  });
  await page.goto("/standings");
  await page.getByRole("table", { name: "How each skill of each student stands" }).waitFor();
  await page.setViewportSize({ width: 1280, height: 1000 });
  await shot(page, "standings");
});

test("instructor: class and plan", async ({ page }) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Class" }).click();
  await shot(page, "class");
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  for (const [title, week] of [
    ["Dovetail clamp, middle by probe", "1"],
    ["Dovetail clamp, middle by four touches", "2"],
    ["Five tools from the gauge line", "3"],
  ] as const) {
    await page.getByLabel(`Week of ${title}`).selectOption(week);
    await page.getByRole("heading", { name: `Week ${week}` }).waitFor();
  }
  await page.getByLabel("Week 1 begins on").fill(new Date(Date.now() - 8 * 86_400_000).toISOString().slice(0, 10));
  await page.getByRole("button", { name: "Count from this day" }).click();
  await page.getByText("this week").waitFor();
  await shot(page, "plan");
});

test("student: a floor lane on a phone", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await new KeyboardStudent(page).signIn("hollinsworth");
  await page.getByRole("link", { name: "Floor" }).click();
  await page.getByRole("region", { name: "Dovetail clamp, first side" }).getByRole("button").click();
  await page.getByRole("navigation", { name: "Registers" }).getByRole("button", { name: /^H2/ }).click();
  const keys = page.getByRole("group", { name: "Figures" });
  const press = async (figures: string) => {
    for (const key of figures) await keys.getByRole("button", { name: key, exact: true }).click();
  };
  await press("±231.620");
  await page.getByRole("button", { name: /^paper.* −0\.080/ }).click();
  await press("±231.7");
  await shot(page, "floor-lane");
});

test("what did I do wrong", async ({ page }) => {
  await new KeyboardStudent(page).signIn("brandvold");
  await page.getByRole("link", { name: "What did I do wrong?" }).click();
  await page.getByLabel("The register holds").fill("-334.672");
  await page.getByLabel("or the machine stood at, in contact").fill("-334.666");
  await page.getByLabel("Tip moved").selectOption("plus");
  await page.getByLabel("tip radius").fill("5");
  await shot(page, "what-went-wrong");
  await page.goto("/turning-desk");
  await shot(page, "turning-desk");
});
