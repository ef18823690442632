import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import typescript from 'typescript-eslint'

export default typescript.config(
  { ignores: ['src/api/schema.d.ts'] },
  ...typescript.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: typescript.parser } } },
  // Views are named by what they are called in front of the user, which is one word.
  { rules: { 'vue/multi-word-component-names': 'off' } },
  prettier,
)
