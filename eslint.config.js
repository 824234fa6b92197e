import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist/**", "**/node_modules/**", "test-results/**", "playwright-report/**", ".pg/**", ".run/**"] },
  js.configs.recommended,
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      "@typescript-eslint/consistent-type-imports": [
        "error",
        { fixStyle: "inline-type-imports", prefer: "type-imports" },
      ],
      "@typescript-eslint/no-unused-vars": [
        "error",
        { varsIgnorePattern: "^_", argsIgnorePattern: "^_", ignoreRestSiblings: true },
      ],
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true, allowBoolean: true }],
      "@typescript-eslint/switch-exhaustiveness-check": "error",
      "@typescript-eslint/require-await": "off",
      "@typescript-eslint/unbound-method": "off",
      "no-console": "error",
      // those that are left are counted by the lint script, and may only become fewer
      "no-nested-ternary": "warn",
      "max-len": [
        "error",
        { code: 120, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true, ignoreUrls: true },
      ],
    },
  },
  {
    // the core is pure: no clock, no chance, no browser, no Node
    files: ["packages/core/**/*.ts"],
    ignores: ["**/*.test.ts", "**/test/**"],
    rules: {
      "no-restricted-globals": [
        "error",
        "window",
        "document",
        "process",
        "fetch",
        "setTimeout",
        "setInterval",
        "performance",
        "localStorage",
      ],
      "no-restricted-properties": [
        "error",
        { object: "Math", property: "random" },
        { object: "Date", property: "now" },
      ],
      "no-restricted-syntax": [
        "error",
        { selector: "NewExpression[callee.name='Date']", message: "The core reads no clock." },
      ],
    },
  },
  { files: ["apps/web/**/*.{ts,tsx}"], ...hooks.configs.flat["recommended-latest"] },
  {
    files: ["**/*.{js,mjs,cjs}"],
    ...tseslint.configs.disableTypeChecked,
    rules: { ...tseslint.configs.disableTypeChecked.rules, "no-console": "off" },
    languageOptions: {
      globals: { module: "writable", process: "readonly", console: "readonly", URL: "readonly" },
      parserOptions: { projectService: false },
    },
  },
  { files: ["**/*.test.ts", "e2e/**", "scripts/**"], rules: { "@typescript-eslint/no-non-null-assertion": "off" } },
);
