import { createTheme, type MantineColorsTuple } from '@mantine/core';

/** Prussian blue, for everything that can be acted on. */
const prussian: MantineColorsTuple = [
  '#eaf2fb',
  '#cfe0f2',
  '#a3c4e6',
  '#74a6d9',
  '#4c8acb',
  '#2f73b8',
  '#1a5c9e',
  '#0b3c6f',
  '#08305a',
  '#052344',
];

/** The pencil that marks what is wrong. */
const redPencil: MantineColorsTuple = [
  '#fdeceb',
  '#f8d1ce',
  '#f0a7a2',
  '#e87b74',
  '#dd554c',
  '#c93a30',
  '#b3261e',
  '#921d17',
  '#741712',
  '#55100c',
];

const still = { duration: 0 };

export const theme = createTheme({
  primaryColor: 'prussian',
  primaryShade: { light: 7, dark: 5 },
  colors: { prussian, redPencil },
  fontFamily: "'Source Sans 3', sans-serif",
  headings: { fontFamily: "'Barlow Condensed', sans-serif", fontWeight: '600' },
  defaultRadius: 2,
  fontSizes: { xs: '12px', sm: '14px', md: '15px', lg: '17px', xl: '20px' },
  autoContrast: true,
  components: {
    Button: { defaultProps: { size: 'xs' } },
    // What is chosen stays so when it is chosen again; a cross empties it where that may be.
    Select: { defaultProps: { size: 'xs', allowDeselect: false } },
    TextInput: { defaultProps: { size: 'xs' } },
    // Drawings do not move: what is pressed is there, and no frame is spent on the way.
    Modal: { defaultProps: { radius: 0, transitionProps: still } },
    Popover: { defaultProps: { transitionProps: still } },
    // Within the page's landmark, beside its columns, with nothing in it but what can be chosen.
    Menu: {
      defaultProps: {
        transitionProps: still,
        withInitialFocusPlaceholder: false,
        portalProps: { target: 'main' },
      },
    },
    // The track has an edge of its own: it is seen in both themes, on whatever it stands.
    Switch: { styles: { track: { transition: 'none', borderColor: 'var(--ink-soft)' }, thumb: { transition: 'none' } } },
  },
});
