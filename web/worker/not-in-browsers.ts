// not-in-browsers.ts — stands in for modules of Node.js that packages name but no browser needs: they ask for them only where
// they find themselves in Node.js.
export const createRequire = undefined;
export default {};
