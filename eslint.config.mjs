// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'

export default withNuxt(
  { ignores: ['.output/**', '.cache/**', 'tests/handbook/cases/**'] },
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/html-self-closing': 'off', // Prettier’s
    },
  },
  { files: ['tests/e2e/**/*.ts'], rules: { 'no-empty-pattern': 'off' } },
  {
    // the core stays pure: no interface, no I/O, nothing of ours but itself
    files: ['core/**/*.ts'],
    ignores: ['core/**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: [
                'node:*',
                'vue',
                'pinia',
                'element-plus',
                'chart.js',
                'zod',
                '#*',
                '~/*',
                '@/*',
                '**/app/**',
                '**/server/**',
                '**/shared/**',
                '**/demo/**',
              ],
              message: 'core imports nothing but core',
            },
          ],
        },
      ],
    },
  },
)
