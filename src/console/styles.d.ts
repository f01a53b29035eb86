/** Vite bundles a stylesheet that is imported; the import itself has no value. */
declare module '*.css';
