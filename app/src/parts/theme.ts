import { createTheme, Modal, Notification, type MantineColorsTuple } from '@mantine/core';

const kelp: MantineColorsTuple = [
  '#e3f1ef',
  '#d5e6e3',
  '#a9d2cd',
  '#7cbeb7',
  '#55b8ae',
  '#2f948c',
  '#1f7a74',
  '#1a6863',
  '#155551',
  '#0f423f',
];
const buoy: MantineColorsTuple = [
  '#fdf1e9',
  '#f6e1d3',
  '#f2c3a2',
  '#f0a878',
  '#f0935b',
  '#e07a3d',
  '#d2622a',
  '#b04d17',
  '#8c3c10',
  '#6b2d0b',
];

/** Names of Mantine's own parts in our look; colours of surfaces and ink are CSS variables in `look.css`. */
export const theme = createTheme({
  primaryColor: 'kelp',
  primaryShade: 6,
  colors: { kelp, buoy },
  defaultRadius: 10,
  fontFamily: '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif',
  fontFamilyMonospace: '"Atkinson Hyperlegible Mono Variable", ui-monospace, monospace',
  headings: { fontFamily: '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif' },
  components: {
    Modal: Modal.extend({
      defaultProps: {
        closeButtonProps: { 'aria-label': 'Close' },
        // a page has one header, and it is not that of a dialog
        attributes: { header: { role: 'presentation' } },
      },
    }),
    Notification: Notification.extend({
      defaultProps: { closeButtonProps: { 'aria-label': 'Close the message' } },
    }),
  },
});
