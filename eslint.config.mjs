import tseslint from 'typescript-eslint'

// Biome does the rest; these two need types.
export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '**/*.mjs', '.out/**', '.data/**', '*.ts'] },
  {
    files: ['{core,contract,server,web}/src/**/*.{ts,tsx}', 'e2e/**/*.ts', 'drills/**/*.ts'],
    languageOptions: {
      parser: tseslint.parser,
      parserOptions: { projectService: { defaultProject: 'scripts/tsconfig.json' }, tsconfigRootDir: import.meta.dirname },
    },
    plugins: { '@typescript-eslint': tseslint.plugin },
    linterOptions: { reportUnusedDisableDirectives: false },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
    },
  },
)
