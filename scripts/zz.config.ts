import base from "../playwright.config";
export default { ...base, testDir: ".", testMatch: "zz.ts", use: { ...base.use, baseURL: "http://127.0.0.1:4310" }, reporter: "list" };
