/** What stands in the link by which this page was opened: behind #, where no server's log sees it. */
export const tokenHere = (): string => location.hash.slice(1);
