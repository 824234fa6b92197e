import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { accessible } from "./accessible";
import { KeyboardStudent } from "./keyboardStudent";

test("a class: a roster with a bad line, mended and added; a student joins with the code and starts a lane", async ({
  page,
  browser,
}) => {
  await new KeyboardStudent(page).signIn("marrow");
  await page.getByRole("link", { name: "Class" }).click();
  const code = (await page.getByTestId("join-code").innerText()).replace(/\s/g, "");
  const csv = page.getByLabel("or typed");
  await csv.fill("login,name\npipistrel,Odile Pipistrelle\n,Nameless\n");
  await page.getByRole("button", { name: "Preview the roster" }).click();
  await expect(page.getByRole("alert")).toContainText("1 line cannot be read");
  await expect(page.getByText("The sign-in name is missing.")).toBeVisible();
  await expect(page.getByRole("button", { name: /^Add / })).toHaveCount(0);
  await csv.fill("login,name\npipistrel,Odile Pipistrelle\nsorrel,Nessa Sorrelby\n");
  await page.getByRole("button", { name: "Preview the roster" }).click();
  await page.getByRole("button", { name: "Add 1 student" }).click();
  await expect(page.getByText("1 student was added.")).toBeVisible();
  await expect(page.getByRole("row").filter({ hasText: "Odile Pipistrelle" })).toContainText("not yet");

  // a spreadsheet with headings of its own: what was said of one column is kept while another is looked at
  await page.getByLabel("From a file").setInputFiles("apps/server/test/rosters/spreadsheet.xlsx");
  await expect(page.getByRole("alert")).toContainText("Say which column holds the name.");
  const holds = page.getByRole("group", { name: "What the columns hold" });
  await holds.getByLabel("Whole name").selectOption("1");
  await expect(page.getByRole("row").filter({ hasText: "maud.larkinfield" })).toContainText("will be added");
  await holds.getByLabel("Student number").selectOption("0");
  await expect(page.getByRole("row").filter({ hasText: "Matriculation" })).toContainText("Matriculation");
  await holds.getByLabel("the first line names the columns").check();
  await expect(page.getByRole("row").filter({ hasText: "maud.larkinfield" })).toContainText("4711");
  await expect(holds.getByLabel("Whole name")).toHaveValue("1");
  await accessible(page);
  await page.getByRole("button", { name: "Add 2 students" }).click();
  await expect(page.getByText("2 students were added.")).toBeVisible();
  const larkinfield = page.getByRole("row").filter({ hasText: "Maud Larkinfield" });
  await expect(larkinfield).toContainText("4711");
  await larkinfield.getByRole("button", { name: "Rename or take off Maud Larkinfield" }).click();
  await page.getByRole("dialog").getByLabel("Student number").fill("4713");
  await page.getByRole("dialog").getByRole("button", { name: "Save" }).click();
  await expect(larkinfield).toContainText("4713");
  await page.getByRole("link", { name: "Marks", exact: true }).click();
  await page.getByRole("button", { name: "Save as a file …" }).click();
  await page.getByLabel("sign-in name").uncheck();
  const [saved] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "A table (CSV)" }).click(),
  ]);
  const text = readFileSync(await saved.path(), "utf8");
  expect(text.split("\r\n")[0]).toMatch(/^\uFEFFstudent number,name,"?Focuser plate/);
  expect(text).toContain("4713,Maud Larkinfield,");
  await page.getByRole("button", { name: /^Close/ }).click();
  await page.getByRole("link", { name: "Class", exact: true }).click();

  const student = await (await browser.newContext()).newPage();
  await student.goto("/sign-in");
  await student.getByRole("link", { name: "Join with your code" }).click();
  await student.getByLabel("Code, from your instructor").fill("AAAAAAAA");
  await student.getByLabel("Sign-in name").fill("pipistrel");
  await student.getByLabel("Your name, as the class knows it").fill("Odile Pipistrelle");
  await student.getByLabel("A password of your own, at least 10 characters").fill("vise and parallels");
  await student.getByRole("button", { name: "Join the class" }).click();
  await expect(student.getByRole("alert")).toContainText("That code is not in use");
  // the code of the class is everybody’s: it takes nobody’s place of the roster
  await student.getByLabel("Code, from your instructor").fill(code);
  await student.getByRole("button", { name: "Join the class" }).click();
  await expect(student.getByRole("alert")).toContainText("its place has a code of its own");
  const place = page.getByRole("row").filter({ hasText: "Odile Pipistrelle" });
  const own = /code ([A-Z0-9]{4} [A-Z0-9]{4})/.exec((await place.textContent()) ?? "")?.[1] ?? "";
  await student.getByLabel("Code, from your instructor").fill(own);
  await student.getByRole("button", { name: "Join the class" }).click();
  await expect(student.getByText(/^You have taken the place that your instructor kept for you: Odile/)).toBeVisible();
  await expect(student.getByRole("heading", { name: "Roller bracket, back right corner" })).toBeVisible();
  await page.reload();
  await expect(page.getByRole("row").filter({ hasText: "Odile Pipistrelle" })).toContainText("yes");

  // another password, by somebody who mistypes it first
  await student.getByRole("link", { name: "Your account, Odile Pipistrelle" }).click();
  await expect(student.getByText("pipistrel", { exact: true })).toBeVisible();
  const now = student.getByLabel("The one you have now");
  const next = student.getByLabel("A new one, at least 10 characters");
  const again = student.getByLabel("The new one again");
  const change = student.getByRole("button", { name: "Change it" });
  await now.fill("vise and parallel");
  await next.fill("edge finder and paper");
  await again.fill("edge finder and papier");
  await expect(student.getByRole("alert")).toContainText("are not alike");
  await expect(change).toBeDisabled();
  await again.fill("edge finder and paper");
  await change.click();
  await expect(student.getByRole("alert")).toContainText("not the password that you have now");
  await expect(next).toHaveValue("edge finder and paper");
  await accessible(student);
  await now.fill("vise and parallels");
  await change.click();
  await expect(student.getByRole("status")).toHaveText("Changed. Use the new one from now on.");
  await student.getByRole("button", { name: "Sign out" }).click();
  await student.getByLabel("Name").fill("pipistrel");
  await student.getByLabel("Password").fill("edge finder and paper");
  await student.getByRole("button", { name: "Sign in" }).click();
  await expect(student.getByRole("heading", { name: "Roller bracket, back right corner" })).toBeVisible();
});

test("a class of one's own beside another: closed to it, an assistant who helps in it, a student taken off, archived", async ({
  page: first,
  browser,
}) => {
  const joined = async (typed: string, login: string, name: string) => {
    const someone = await (await browser.newContext()).newPage();
    await someone.goto("/join");
    await someone.getByLabel("Code, from your instructor").fill(typed);
    await someone.getByLabel("Sign-in name").fill(login);
    await someone.getByLabel("Your name, as the class knows it").fill(name);
    await someone.getByLabel("A password of your own, at least 10 characters").fill("edge finder and dial");
    await someone.getByRole("button", { name: "Join the class" }).click();
    return someone;
  };
  // an instructor of one's own: which class is open is a matter of the account, and others use the demo's
  await new KeyboardStudent(first).signIn("marrow");
  await first.getByRole("link", { name: "Class" }).click();
  await first.getByRole("button", { name: "Invite an instructor" }).click();
  const codes = first.getByRole("list", { name: "Invitations" });
  await expect(codes).toContainText("for one instructor");
  const page = await joined(
    /[A-Z0-9]{4} [A-Z0-9]{4}/.exec(await codes.innerText())?.[0] ?? "",
    "tessaly",
    "Oona Tessaly",
  );
  await page.getByRole("link", { name: "Class" }).click();
  await page.getByRole("button", { name: "A new class" }).click();
  const made = page.getByRole("dialog", { name: "A new class" });
  await made.getByLabel("Name of the class").fill("Friday Morning Setup");
  await made.getByLabel("Term, if it has one").fill("Spring 2027");
  await made.getByRole("button", { name: "Make it, and open it" }).click();
  await expect(page.getByRole("heading", { name: "Friday Morning Setup" })).toBeVisible();
  await expect(page.getByText("Nobody yet.")).toBeVisible();
  await expect(page.getByRole("link", { name: "Your account, Oona Tessaly" })).toContainText("Friday Morning Setup");
  const code = (await page.getByTestId("join-code").innerText()).replace(/\s/g, "");
  await page.getByRole("button", { name: "Invite an assistant" }).click();
  const invited = page.getByRole("list", { name: "Invitations" });
  await expect(invited).toContainText("for one assistant");
  const own = /[A-Z0-9]{4} [A-Z0-9]{4}/.exec(await invited.innerText())?.[0] ?? "";
  await accessible(page);

  // its own rule for what passes, by somebody who slips
  const rules = page.getByRole("region", { name: "What passes" });
  await rules.getByLabel(/^A lane passes from/).fill("sixty");
  await expect(rules.getByRole("button", { name: "Keep this" })).toBeDisabled();
  await expect(rules).toContainText("marks from 0 to 100");
  await rules.getByLabel(/^A lane passes from/).fill("60");
  await rules.getByLabel(/^What was signed or shown/).fill("61");
  await expect(rules.getByRole("button", { name: "Keep this" })).toBeDisabled();
  await rules.getByLabel(/^What was signed or shown/).fill("12");
  await rules.getByLabel(/^Handed in late/).fill("80");
  await rules.getByRole("button", { name: "Keep this" }).click();
  await expect(rules.getByRole("button", { name: "Keep this" })).toBeDisabled();

  const student = await joined(code, "fennwright", "Nell Fennwright");
  await expect(student.getByText("A lane passes from 60 of 100 marks. Handed in late, 80 %")).toBeVisible();
  await student.getByRole("button", { name: "Start Focuser plate, lower left corner" }).click();
  await student.waitForURL(/\/lanes\//);
  const lane = new URL(student.url()).pathname;
  const helps = await joined(own, "helpwell", "Iven Helpwell");
  await expect(helps.getByRole("link", { name: "Wall" })).toBeVisible();
  await expect(helps.getByRole("link", { name: "Marks" })).toHaveCount(0);
  await expect(helps.getByRole("link", { name: "Class" })).toHaveCount(0);
  await helps.getByRole("link", { name: "Nell Fennwright" }).click();
  await expect(helps.getByText("Focuser plate, lower left corner").first()).toBeVisible();
  // an address that is not theirs leads back
  await helps.goto("/marks");
  await expect(helps).toHaveURL(/\/wall$/);

  // the other class of the same instructor is another room
  await page.getByRole("link", { name: "Your account, Oona Tessaly" }).click();
  await page.getByRole("button", { name: "Open Tuesday Evening Setup" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "Tuesday Evening Setup" })).toContainText("open now");
  await accessible(page);
  await page.goto(lane);
  await expect(page.getByRole("alert")).toContainText("nothing at this address");
  await page.goto("/account");
  await page.getByLabel("Another class, by its code").fill("ZZZZ ZZZZ");
  await page.getByRole("button", { name: "Add it" }).click();
  await expect(page.getByRole("alert")).toContainText("That code is not in use");
  await page.getByRole("button", { name: "Open Friday Morning Setup" }).click();

  // renamed, taken off with the lanes kept
  await page.getByRole("link", { name: "Class" }).click();
  await page.getByRole("button", { name: "Rename or take off Nell Fennwright" }).click();
  const change = page.getByRole("dialog", { name: "Nell Fennwright" });
  await change.getByLabel("Name, as the class knows it").fill("Nell Fenwright");
  await change.getByRole("button", { name: "Save" }).click();
  // on the roster she stands as well: two accounts of one person, made one by somebody who first picks the wrong one
  await page
    .getByLabel("or typed")
    .fill("login,name,number\nfenwright,Nell Fenwright-Hale,4720\nogilvane,Tamsin Ogilvane,4721\n");
  await page.getByRole("button", { name: "Preview the roster" }).click();
  await page.getByRole("button", { name: "Add 2 students" }).click();
  await page.getByRole("button", { name: "Rename or take off Nell Fenwright", exact: true }).click();
  const one = page.getByRole("dialog", { name: "Nell Fenwright" });
  await one.getByLabel("The same person as").selectOption("Tamsin Ogilvane (ogilvane)");
  await expect(one).toContainText("Everything of Tamsin Ogilvane (0 lanes in this class");
  await one.getByRole("button", { name: "Leave it" }).click();
  await one.getByLabel("The same person as").selectOption("Nell Fenwright-Hale (fenwright)");
  await expect(one).toContainText("They sign in as fennwright, with its password.");
  await accessible(page);
  await one.getByRole("button", { name: "Yes, make them one" }).click();
  await expect(one).toBeHidden();
  await expect(page.getByRole("row").filter({ hasText: "Fenwright-Hale" })).toHaveCount(0);
  await expect(page.getByRole("row").filter({ hasText: "Nell Fenwright" })).toContainText("4720");
  await page.getByRole("button", { name: "Rename or take off Tamsin Ogilvane" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Take off, delete the lanes" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Yes, delete it all" }).click();
  await expect(page.getByRole("row").filter({ hasText: "Ogilvane" })).toHaveCount(0);
  await page.getByRole("button", { name: "Rename or take off Nell Fenwright" }).click();
  const off = page.getByRole("dialog", { name: "Nell Fenwright" });
  await off.getByRole("button", { name: "Take off, delete the lanes" }).click();
  await expect(off).toContainText("1 lane, their marks and their floor lanes. This cannot be undone.");
  await off.getByRole("button", { name: "Leave it" }).click();
  await off.getByRole("button", { name: "Take off, keep the lanes" }).click();
  await accessible(page);
  await off.getByRole("button", { name: "Yes, take off" }).click();
  await expect(page.getByText("Nobody yet.")).toBeVisible();
  await student.reload();
  await expect(student).toHaveURL(/\/sign-in$/);
  await page.getByRole("link", { name: "Marks" }).click();
  await expect(page.getByText("(removed)")).toBeVisible();

  // archived: nothing begins, and everything is read
  await page.getByRole("link", { name: "Class" }).click();
  await page.getByRole("button", { name: "Archive it" }).click();
  await page.getByRole("dialog").getByRole("button", { name: "Archive it" }).click();
  await expect(page.getByText("This class is archived")).toBeVisible();
  const late = await joined(code, "latecomer", "Lou Latecomer");
  await expect(late.getByRole("alert")).toContainText("That code is not in use");
  await page.getByRole("button", { name: "Take it out of the archive" }).click();
  await expect(page.getByText("This class is archived")).toBeHidden();
  // the other class has not changed, but for who teaches there, and that goes too
  await first.reload();
  await first.getByRole("button", { name: "Take Oona Tessaly off this class" }).click();
  await expect(first.getByText("tessaly", { exact: true })).toBeHidden();
  await page.goto("/account");
  await expect(page.getByRole("heading", { name: "Your class", exact: true })).toBeVisible();
});
