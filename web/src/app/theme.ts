import { createTheme, type MantineColorsTuple } from '@mantine/core';

const pine: MantineColorsTuple = [
  '#EEF6F1', '#DCEBE3', '#B9D5C8', '#93BEAC', '#6CA690', '#458B74', '#2B6B58', '#1E5244', '#184438', '#12352C',
]; // prettier-ignore
const brass: MantineColorsTuple = [
  '#FCF5E4', '#F6E7C4', '#EDD49A', '#E3BF6C', '#D9AB45', '#C8921F', '#AA7816', '#8A5E0C', '#6D4A09', '#523706',
]; // prettier-ignore
const clay: MantineColorsTuple = [
  '#FBEEEA', '#F6DED6', '#EBBBAD', '#DF9580', '#D2725A', '#C25A3F', '#B4472E', '#963823', '#782C1B', '#5A2014',
]; // prettier-ignore
const tide: MantineColorsTuple = [
  '#EDF4F8', '#DAEAF1', '#B4D3E1', '#8ABACF', '#62A0BC', '#4488A8', '#2F6F8F', '#265A75', '#1D465B', '#143241',
]; // prettier-ignore

export const theme = createTheme({
  colors: { pine, brass, clay, tide },
  primaryColor: 'pine',
  primaryShade: { light: 7, dark: 6 },
  autoContrast: true,
  fontFamily: "'Atkinson Hyperlegible Next Variable', sans-serif",
  headings: { fontFamily: 'var(--heading)', fontWeight: '650' },
  fontSizes: { xs: '12.5px', sm: '14px', md: '15px', lg: '17px', xl: '20px' },
  lineHeights: { md: '1.45' },
  defaultRadius: 6,
  cursorType: 'pointer',
  respectReducedMotion: true,
  components: {
    Button: { defaultProps: { size: 'sm' } },
    // What it says while one waits is said: a name needs a role.
    Loader: { defaultProps: { role: 'status' } },
    Paper: { defaultProps: { radius: 8 } },
    Modal: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } },
    Tooltip: { defaultProps: { openDelay: 300, withArrow: true } },
  },
});
