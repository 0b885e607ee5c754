/** That a test fails is enough to know: what fails it is not made smaller. */
import fc from 'fast-check';

fc.configureGlobal({ endOnFailure: true });
