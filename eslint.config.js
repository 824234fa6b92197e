import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

const CHOICE = "ConditionalExpression";
/** A ? B : C is a choice of two; a row of cases may have three outcomes and goes on in its last place only. */
const nestedChoices = [
  { selector: `${CHOICE} > ${CHOICE}.test`, message: "A choice that decides a choice: name it first." },
  { selector: `${CHOICE} > ${CHOICE}.consequent`, message: "A choice inside a choice: turn it round or name it." },
  {
    selector: `${CHOICE} > ${CHOICE}.alternate > ${CHOICE}.alternate`,
    message: "More than three outcomes: write a table or a function with returns.",
  },
];

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
      // a choice of three reads as a row of cases; what is nested any other way, or longer, is written out
      "no-restricted-syntax": ["error", ...nestedChoices],
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
        ...nestedChoices,
        { selector: "NewExpression[callee.name='Date']", message: "The core reads no clock." },
      ],
    },
  },
  { files: ["apps/web/**/*.{ts,tsx}"], ...hooks.configs.flat["recommended-latest"] },
  {
    // panels of the bench are given what stays while an axis moves: where the machine stands is read by these alone
    files: ["apps/web/features/bench/**/*.{ts,tsx}"],
    ignores: [
      "**/{loupe,scene,review,together}/**",
      "**/lane/{laneLink,sound}.ts",
      "**/machines/*/view.ts",
      "**/RunPanel.tsx",
      "**/*.test.ts",
    ],
    rules: {
      "no-restricted-syntax": [
        "error",
        ...nestedChoices,
        {
          selector: "MemberExpression[object.name='seen'][property.name=/^(machine|work|counter)$/]",
          message: "A panel of the bench may be given what stays while an axis moves: take the place from the view.",
        },
      ],
    },
  },
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
