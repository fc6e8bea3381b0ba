/** The work was given up because it took too long or wanted too much memory; asked again it would do so again. */
export class GivenUp extends Error {}
