// How wide the screen is, where a view is laid out otherwise and not only narrower; the same widths as in the style sheets.
import { useMediaQuery } from '@mui/material';

/** One pane per screen, what the rail and the strip hold in a sheet from the bottom. */
export const usePhone = () => useMediaQuery('(max-width: 767px)');

/** Two columns: what does not fit beside the main thing is a sheet from the right. */
export const useTablet = () => useMediaQuery('(min-width: 768px) and (max-width: 1199px)');
