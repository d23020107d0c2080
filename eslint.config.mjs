import vue from 'eslint-plugin-vue'
import { defineConfig } from 'eslint/config'
import ts from 'typescript-eslint'
import { UNUSED_WORDS } from './core/words/unusedWords.mjs'

/** Words that no text has. Paths and keys have no spaces and are left alone. */
const notUsed = (node, value) => ({
  selector: `${node}[${value}=/(?=.* )(^|[^a-zA-Z$.{'/-])${UNUSED_WORDS}([^a-zA-Z('-]|$)/i]`,
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
      'vue/no-restricted-static-attribute': [
        'error',
        { element: 'BFormInput', key: 'plaintext', message: 'Such a field cannot be typed in; use a text.' },
        { element: 'BFormInput', key: 'lazy', message: 'It does nothing here: :model-modifiers="{ lazy: true }".' },
      ],
      'max-lines': ['error', { max: 420, skipBlankLines: true, skipComments: true }],
    },
  },
  // Names in the database stay as they are; the list itself is made of the words.
  { files: ['server/data/migrations/*.ts', 'core/words/unusedWords.mjs'], rules: { 'no-restricted-syntax': 'off' } },
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
