declare module '@tabler/icons-react/dist/esm/icons/*.mjs' {
  const icon: import('@tabler/icons-react').TablerIcon;
  export default icon;
}
