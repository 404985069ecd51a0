/** By what the owner's page with a trial is known: in its fragment, and in what a visit keeps. */
export const trialKey = 'hello-porch-trial';
