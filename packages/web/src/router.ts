import { createRouter, createWebHistory } from 'vue-router';
import { signInTo, useAccount } from './people/account-store.ts';
import ProjectPage from './projects/ProjectPage.vue';
import ProjectsPage from './projects/ProjectsPage.vue';

declare module 'vue-router' {
  interface RouteMeta {
    /** Only who is signed in has something to see there, where people sign in. */
    signedIn?: boolean;
  }
}

const signedIn = { signedIn: true };

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: ProjectsPage, meta: signedIn },
    { path: '/projects/:project', component: ProjectPage, props: true, meta: signedIn },
    // The stage brings the 3D library; the lists need not wait for it. Behind the design stands what is open in it.
    {
      path: '/designs/:design/:place(part|assembly|sheet|outlines)?/:open?',
      component: () => import('./design/DesignPage.vue'),
      props: true,
    },
    { path: '/sign-in', component: () => import('./people/SignInPage.vue') },
    { path: '/forgot', component: () => import('./people/ForgotPage.vue') },
    { path: '/welcome', component: () => import('./people/WelcomePage.vue') },
    { path: '/new-password', component: () => import('./people/NewPasswordPage.vue') },
    { path: '/shared', component: () => import('./people/SharedPage.vue') },
    { path: '/account', component: () => import('./people/AccountPage.vue'), meta: signedIn },
    { path: '/people', component: () => import('./people/EveryonePage.vue'), meta: signedIn },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
});

router.beforeEach(async (to) => {
  const account = useAccount();
  if (account.accounts === null) await account.load();
  return to.meta.signedIn && account.accounts && !account.person ? signInTo(to.fullPath) : true;
});
