import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { KeyboardStudent } from "./keyboardStudent";
import { ownDemo, OwnServer } from "./server";
import { atTheBench } from "./sheet";

test("during class: words on a bench, everybody held and let go on, and what is off for the instructor's eyes", async ({
  browser,
}) => {
  // a class of its own: holding everybody holds every other test as well
  const own = await ownDemo("together");
  const server = new OwnServer({ DATABASE_URL: own });
  await server.start();
  const at = async (login: string) => {
    const page = await (await browser.newContext({ baseURL: server.url, reducedMotion: "reduce" })).newPage();
    const hands = new KeyboardStudent(page);
    await hands.signIn(login);
    return { page, hands };
  };
  const { page: desk } = await at("marrow");
  const { page: bench, hands } = await at("sorrel");
  await hands.startLane("Focuser plate, lower left corner");
  await hands.do("h");
  const before = await hands.figure("machine-x");

  await desk.getByLabel("Words to everybody").fill("Eye protection on, please.");
  await desk.getByRole("button", { name: "Say it" }).click();
  await expect(desk.getByText("Said.")).toBeVisible();
  const said = bench.getByRole("list", { name: "Said to you" });
  await expect(said).toContainText("Eye protection on, please. Corin Marrowfield, to all");
  await accessible(bench);
  // it stands until it is read, and does not come back with the page
  await bench.reload();
  await said.getByRole("button", { name: /^Read/ }).click();
  await expect(said).toBeHidden();
  // held after the page asked how things stand, and before it hears of changes
  let hear = () => {};
  const isHearing = new Promise<void>((done) => (hear = done));
  await bench.route("**/together/stream", async (route) => {
    await isHearing;
    await route.continue();
  });
  const asked = bench.waitForResponse(/\/together$/);
  await bench.reload();
  await asked;
  await expect(bench.getByTestId("link")).toContainText("linked");
  await expect(said).toHaveCount(0);

  await desk.getByRole("button", { name: "Hold everybody" }).click();
  await expect(desk.getByText("every machine of the class stands still")).toBeVisible();
  hear();
  await expect(bench.getByTestId("link")).toContainText("held for everybody");
  await expect(bench.getByRole("alert")).toContainText("Held by Corin Marrowfield");
  await bench.keyboard.press("ArrowLeft");
  expect(await hands.figure("machine-x")).toBe(before);
  // who comes back to the page finds it held
  await bench.reload();
  await expect(bench.getByTestId("link")).toContainText("held for everybody");
  await desk.getByRole("button", { name: "Let everybody go on" }).click();
  await expect(bench.getByTestId("link")).toContainText("linked");
  await hands.size(0);
  await hands.do("ArrowLeft");
  expect(await hands.figure("machine-x")).toBe(before - 1);

  await hands.typeRegister("G54 X", "Set", "-300");
  await bench.keyboard.press("Enter");
  await desk.getByRole("link", { name: "Nessa Sorrelby" }).click();
  const live = desk.getByRole("region", { name: "As it stands now" });
  await expect(live).toContainText(/G54 X is .* mm (high|low)/);
  await expect(live).toContainText("2 not set yet");
  await live.getByLabel("Words to Nessa Sorrelby").fill("Where does that figure come from?");
  await live.getByRole("button", { name: "Say it" }).click();
  await expect(said).toContainText("Where does that figure come from?");
  await expect(said).toContainText("to you");
  // nothing of it reaches the student's page
  await expect(bench.getByText("As it stands now")).toHaveCount(0);
  await accessible(desk);

  // a lane of one's own is shown to the class: large, as it is worked, and ended again
  const back = await browser.newContext({ baseURL: server.url, reducedMotion: "reduce" });
  const room = await back.newPage();
  await new KeyboardStudent(room).signIn("tamblin");
  await room.goto("/demonstration");
  await expect(room.getByText("Nothing is shown to the class now.")).toBeVisible();
  await desk.goto("/plan");
  await desk.getByRole("button", { name: "Try Focuser plate, lower left corner" }).first().click();
  await desk.waitForURL(/\/lanes\//);
  await atTheBench(desk);
  await desk.getByRole("button", { name: "Show this to the class" }).click();
  await expect(room.getByText("shown by Corin Marrowfield")).toBeVisible();
  const shows = new KeyboardStudent(desk);
  await shows.do("h");
  await shows.size(0);
  await shows.do("ArrowLeft");
  const stands = room.getByRole("table", { name: "Where the machine stands" });
  await expect(stands).toContainText("−1.000");
  await accessible(room);
  await expect(bench.getByText("Your instructor shows an exercise to the class.")).toBeVisible();
  // somebody goes on from there, and finds it again
  await room.getByRole("button", { name: "Go on from here yourself" }).click();
  await room.waitForURL(/\/lanes\//);
  await atTheBench(room);
  await expect(room.getByText(/^counts nowhere/)).toBeVisible();
  const goesOn = new KeyboardStudent(room);
  expect(await goesOn.figure("machine-x")).toBe(-1);
  await room.goto("/");
  await room.getByRole("region", { name: "Gone on from what was shown" }).getByRole("link").click();
  await atTheBench(room);
  await room.goto("/demonstration");
  await desk.getByRole("button", { name: "Stop showing this" }).click();
  await expect(room.getByText("Nothing is shown to the class now.")).toBeVisible();
  await expect(bench.getByText("Your instructor shows an exercise to the class.")).toHaveCount(0);
  await server.kill();
});
