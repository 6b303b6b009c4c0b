'use client';
import { useTheme } from 'next-themes';

export type ThemeChoice = 'system' | 'dusk' | 'noon';
export type ThemeShown = 'dusk' | 'noon';

/** What the theme package may store or resolve to, and the theme that is shown for it; `light` and `dark` are the system's. */
export const SHOWN: Readonly<Record<string, ThemeShown>> = {
  dusk: 'dusk',
  noon: 'noon',
  dark: 'dusk',
  light: 'noon',
};

/** The theme as chosen (the system's until then), as shown, and what chooses another. */
export function useAppTheme() {
  const { theme, resolvedTheme, setTheme } = useTheme();
  const chosen: ThemeChoice = theme === 'dusk' || theme === 'noon' ? theme : 'system';
  const shown: ThemeShown = SHOWN[resolvedTheme ?? 'dusk'] ?? 'dusk';
  const other: ThemeShown = shown === 'noon' ? 'dusk' : 'noon';
  return { chosen, shown, other, choose: (one: ThemeChoice) => setTheme(one) };
}
