/** A constraint put on things it cannot hold for; the message is for the user. */
export class ConstraintMisfit extends Error {}
