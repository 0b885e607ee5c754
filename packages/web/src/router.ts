import { createRouter, createWebHistory } from 'vue-router';
import ProjectPage from './projects/ProjectPage.vue';
import ProjectsPage from './projects/ProjectsPage.vue';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: ProjectsPage },
    { path: '/projects/:project', component: ProjectPage, props: true },
    // The stage brings the 3D library; the lists need not wait for it. Behind the design stands what is open in it.
    { path: '/designs/:design/:place(part)?/:open?', component: () => import('./design/DesignPage.vue'), props: true },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
