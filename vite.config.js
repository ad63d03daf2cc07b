import tailwindcss from '@tailwindcss/vite';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';

export default defineConfig({
    plugins: [
        laravel({ input: ['resources/css/app.css', ...['app', 'present', 'pictures'].map((name) => `resources/js/${name}.js`)] }),
        tailwindcss(),
    ],
    build: { chunkSizeWarningLimit: 1200 },
});
