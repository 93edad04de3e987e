import js from "@eslint/js";
import { createTypeScriptImportResolver } from "eslint-import-resolver-typescript";
import { importX } from "eslint-plugin-import-x";
import a11y from "eslint-plugin-jsx-a11y";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.d.ts", "src/api/*.generated.ts"] },
  js.configs.recommended,
  tseslint.configs.recommendedTypeChecked,
  a11y.flatConfigs.recommended,
  hooks.configs.flat["recommended-latest"],
  {
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      // A switch over a union of ours names every member, so that a new one does not compile by luck.
      "@typescript-eslint/switch-exhaustiveness-check": "error",
    },
  },
  {
    plugins: { "import-x": importX },
    settings: {
      ...importX.flatConfigs.typescript.settings,
      "import-x/resolver-next": [createTypeScriptImportResolver()],
    },
    rules: { "import-x/no-cycle": ["error", { ignoreExternal: true }] },
  },
  { files: ["eslint.config.js", "compress.mjs"], extends: [tseslint.configs.disableTypeChecked] },
);
