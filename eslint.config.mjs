import vue from 'eslint-plugin-vue'
import { defineConfig } from 'eslint/config'
import ts from 'typescript-eslint'

/** Words that no text has; the list is that of the language in docs/development.md. Paths and keys have no spaces and are left alone. */
const NOT_USED =
  '(anew|afresh|reckon(s|ed|ing)?|whence|heard|heed(s|ed)?|(takes?|taken|took) (up|away)|take it off|put by|put it under|(lay|laid) aside|leave it|lets? in|(gives?|given) out|keep it so|com(e|es|ing) out|came out|ways? up|knots?|knotted|to (settle|know)|feel(s|ing)?|stand-ins?|(has|have) taught|goe?s? by|as it came|lies|lays?|laid|lying)'
const notUsed = (node, value) => ({
  selector: `${node}[${value}=/(?=.* )(^|[^a-zA-Z$.{'/-])${NOT_USED}([^a-zA-Z('-]|$)/i]`,
  message: 'This text has a word that is not used: see “Words” in docs/development.md.',
})

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
      'no-restricted-syntax': [
        'error',
        notUsed('Literal', 'value'),
        notUsed('TemplateElement', 'value.raw'),
        {
          selector:
            "CallExpression[callee.property.name='slice'][callee.object.callee.property.name='toISOString'][arguments.1.value=10]",
          message: 'This is the day in UTC. Ask dayAt of core/math/wallClock for the day by the workshop’s clock.',
        },
        {
          selector: 'TemplateElement[value.raw=/^T23:59/]',
          message: 'What is due on a day is due at its end by the workshop’s clock: dueAt of core/math/wallClock.',
        },
        {
          selector: "BinaryExpression[operator='*'][left.type='Literal'][right.name='MIN']",
          message: 'How long work takes stands once, named, in core/defaults/bench.ts or with its material.',
        },
      ],
      'max-lines': ['error', { max: 420, skipBlankLines: true, skipComments: true }],
    },
  },
  // Names in the database stay as they are; the list itself is made of the words.
  { files: ['server/data/migrations/*.ts', 'eslint.config.mjs'], rules: { 'no-restricted-syntax': 'off' } },
  // Where days are counted and times are named, and tests, which make their own.
  {
    files: [
      'core/math/wallClock.ts',
      'core/defaults/*.ts',
      'core/plan/materials/materials.ts',
      '**/*.{test,spec}.ts',
      '**/testFacts.ts',
    ],
    rules: { 'no-restricted-syntax': ['error', notUsed('Literal', 'value'), notUsed('TemplateElement', 'value.raw')] },
  },
)
