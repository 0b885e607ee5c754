import '@fontsource-variable/archivo/index.css';
import '@fontsource/spline-sans-mono/400.css';
import '@fontsource/spline-sans-mono/500.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import App from './App.vue';
import { router } from './router.ts';
import './style.css';

const app = createApp(App).use(createPinia()).use(router);
// On the way to a design, its page is fetched while the rest starts.
if (location.pathname.startsWith('/designs/')) void import('./design/DesignPage.vue');
app.mount('#app');
