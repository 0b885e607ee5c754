/**
 * Property tests try other cases each time they are run by hand, so that they go on finding faults. In CI they try the
 * same ones each time: a change is judged by itself, not by what chance brings up in code it never touched.
 */
import fc from 'fast-check';

if (process.env.CI) fc.configureGlobal({ seed: 20261128 });
