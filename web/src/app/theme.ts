import { createTheme, type MantineColorsTuple } from '@mantine/core';

const teal: MantineColorsTuple = [
  '#eef5f4',
  '#dcebe6',
  '#b7d3d2',
  '#8fb7b6',
  '#659a9b',
  '#458385',
  '#2f6f73',
  '#286165',
  '#1f5256',
  '#153d40',
];
const cedar: MantineColorsTuple = [
  '#f8efe8',
  '#f1e2d8',
  '#e3c5b2',
  '#d3a488',
  '#c38562',
  '#b56b46',
  '#9a4f2b',
  '#864424',
  '#6f381d',
  '#572b15',
];
const lamp: MantineColorsTuple = [
  '#fef7e3',
  '#fbedc6',
  '#f8e09c',
  '#f5d275',
  '#f2c14e',
  '#dcab35',
  '#b98b20',
  '#8a6a14',
  '#6c520e',
  '#4d3a08',
];
const linen: MantineColorsTuple = [
  '#fffdf8',
  '#fbf7ef',
  '#f5efe2',
  '#ece5d7',
  '#e4dccd',
  '#d8cfbd',
  '#b9b3a6',
  '#918b7f',
  '#6d777d',
  '#22303a',
];
const night: MantineColorsTuple = [
  '#e8e3d8',
  '#cfcabf',
  '#a9aca9',
  '#7f888b',
  '#55626b',
  '#3a4a52',
  '#2a3940',
  '#1f2c33',
  '#182329',
  '#11191e',
];

/** Linen, ceiling, cedar and lamplight; the colours of everything else are variables in look.css. */
export const theme = createTheme({
  colors: { teal, cedar, lamp, linen, dark: night },
  primaryColor: 'teal',
  primaryShade: { light: 6, dark: 4 },
  fontFamily: '"Atkinson Hyperlegible Next", sans-serif',
  headings: { fontFamily: '"Source Serif 4 Variable", serif', fontWeight: '600' },
  defaultRadius: 6,
  cursorType: 'pointer',
  fontSizes: { xs: '13px', sm: '14.5px', md: '16px', lg: '18px', xl: '22px' },
  components: {
    TextInput: { defaultProps: { withAsterisk: false } },
    Textarea: { defaultProps: { autosize: true, minRows: 3 } },
    Modal: {
      defaultProps: {
        centered: true,
        closeButtonProps: { 'aria-label': 'Close' },
        overlayProps: { backgroundOpacity: 0.35 },
        transitionProps: { duration: 120 },
      },
    },
    Menu: { defaultProps: { transitionProps: { duration: 80 }, shadow: 'xs' } },
  },
});
