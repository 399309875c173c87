/** What turns `t`, `plural` and `Trans` into looking their words up, when the application is built. Only files that use them are read. */
export const words = {
  preset: () => ({
    plugins: ['@lingui/babel-plugin-lingui-macro'],
    parserOpts: { plugins: ['typescript', 'jsx'] },
  }),
  rolldown: { filter: { code: /@lingui\/(core|react)\/macro/ } },
};
