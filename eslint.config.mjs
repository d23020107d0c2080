import vue from 'eslint-plugin-vue'
import { defineConfig } from 'eslint/config'
import ts from 'typescript-eslint'

export default defineConfig(
  { ignores: ['dist/', 'node_modules/', '.undercut/', '.tmp-*', 'docs/', '**/*.cjs'] },
  ...ts.configs.strict,
  ...vue.configs['flat/essential'],
  {
    files: ['**/*.{ts,vue,mjs}'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.vue'] } },
    rules: {
      // Typed-array kernels index where the bound is the loop's; the assertion says so under noUncheckedIndexedAccess.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-non-null-asserted-optional-chain': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/no-mutating-props': 'error',
      'no-console': 'off',
      eqeqeq: 'error',
      'prefer-const': ['error', { destructuring: 'all' }],
      'max-lines': ['error', { max: 420, skipBlankLines: true, skipComments: true }],
    },
  },
)
