import '@fontsource-variable/archivo/index.css';
import '@fontsource/spline-sans-mono/400.css';
import '@fontsource/spline-sans-mono/500.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { useEvaluation } from './evaluation/evaluation-store.ts';
import { router } from './router.ts';
import './style.css';

const app = createApp(App).use(createPinia()).use(router);
// On the way to a design, the kernel starts before the page's own code has arrived.
if (location.pathname.startsWith('/designs/')) useEvaluation().start();
app.mount('#app');
