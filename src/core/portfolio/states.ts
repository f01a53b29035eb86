/** The states of a title, the one that needs most work first. */
export const portfolioStates = ['wrong', 'open', 'empty', 'agrees'] as const;
export type PortfolioState = (typeof portfolioStates)[number];
