// What the linter holds the front end to; how lines are broken is the formatter's business.
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import ts from 'typescript-eslint'

export default ts.config(
  { ignores: ['dist', 'src/api/schema.ts'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  {
    languageOptions: { globals: globals.browser },
    rules: {
      'max-len': ['error', { code: 120, ignoreUrls: true }],
      'no-console': 'error',
      'max-lines': ['error', { max: 200, skipComments: true }],
      '@typescript-eslint/no-non-null-assertion': 'off',
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
    rules: {
      // How lines are broken, and whether void elements close themselves, is the formatter's.
      ...Object.fromEntries(
        ['max-attributes-per-line', 'singleline-html-element-content-newline', 'html-self-closing', 'html-indent'].map(
          (rule) => [`vue/${rule}`, 'off'],
        ),
      ),
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/require-default-prop': 'off',
      'vue/attributes-order': 'off',
      'max-len': 'off',
      'vue/max-len': ['error', { code: 120, template: 120, ignoreUrls: true }],
    },
  },
)
