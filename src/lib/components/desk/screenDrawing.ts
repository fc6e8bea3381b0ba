/** How marks are drawn on the screen: the colours of the theme and the weights of the variable font. */
import type { Drawing } from '$core/engraving/markSvg';

const WEIGHTS = { pencil: 420, ink: 860, printed: 560 } as const;

export const SCREEN: Pick<Drawing, 'colours' | 'lettering' | 'clearing'> = {
  colours: {
    pencil: 'var(--pencil)',
    ink: 'var(--paper-ink)',
    conflict: 'var(--color-error)',
    paper: 'var(--paper)',
  },
  lettering: (state, slanted) =>
    `font-family="'Source Serif 4 Variable', serif" font-weight="${WEIGHTS[state]}" font-style="${slanted ? 'italic' : 'normal'}"`,
  clearing: 'outline',
};
