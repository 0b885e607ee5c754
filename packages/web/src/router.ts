import { createRouter, createWebHistory } from 'vue-router';
import ProjectPage from './projects/ProjectPage.vue';
import ProjectsPage from './projects/ProjectsPage.vue';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: ProjectsPage },
    { path: '/projects/:project', component: ProjectPage, props: true },
    // The stage brings the 3D library; the lists need not wait for it.
    { path: '/designs/:design', component: () => import('./design/DesignPage.vue'), props: true },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});
