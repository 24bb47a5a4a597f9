// What styles may say: six steps of type, three widths, and no colour that has no name.
/** @type {import('stylelint').Config} */
export default {
  overrides: [
    { files: ['**/*.vue'], customSyntax: 'postcss-html' },
    { files: ['**/*.scss'], customSyntax: 'postcss-scss' },
    // Letters of a drawing are in its own measure.
    {
      files: ['src/drawing/*.vue'],
      rules: {
        'declaration-property-value-allowed-list': { 'font-size': [/^var\(--(type|drawn)/, /^\d+px$/] },
      },
    },
    { files: ['src/styles/_tokens.scss'], rules: { 'color-no-hex': null, 'function-disallowed-list': null } },
    { files: ['src/styles/_at.scss'], rules: { 'media-feature-name-disallowed-list': null } },
  ],
  rules: {
    'color-no-hex': true,
    'color-named': 'never',
    'function-disallowed-list': ['rgb', 'rgba', 'hsl', 'hsla', 'oklch'],
    'declaration-property-value-allowed-list': {
      'font-size': [
        /^var\(--(type-(small|text|strong|lead|title|huge)|drawn)\)$/,
        /^calc\(var\(--type-huge\)/,
        /^\d+%$/,
        'inherit',
      ],
    },
    'media-feature-name-disallowed-list': ['width', 'min-width', 'max-width'],
  },
};
