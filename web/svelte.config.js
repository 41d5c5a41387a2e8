import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

export default {
  preprocess: vitePreprocess(),
  compilerOptions: {
    runes: ({ filename }) => (filename.includes('node_modules') ? undefined : true),
  },
};
