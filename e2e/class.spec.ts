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
