import { FULL_BAND, zoomed } from '../../../charts/chartMath';
import { ZoomButtons } from '../../../charts/ChartTools';
import type { ReactNode } from 'react';
import type { SavedPlot } from '../../../charts/plotSvg';
import { SavePlotMenu } from '../../../charts/SavePlotMenu';
import { TableMenu } from '../../../parts/TableMenu';
import type { TableData } from '../../../services/tableText';

interface Band {
  fromHz: number;
  toHz: number;
}
interface Props {
  band: Band;
  onBand: (band: Band) => void;
  plot: () => SavedPlot;
  title: string;
  table: () => TableData;
  children?: ReactNode;
}

/** How near the plots are looked at, and what can be taken along of them. */
export const LibraryTools = ({ band, onBand, plot, title, table, children }: Props) => (
  <>
    {children}
    <ZoomButtons
      onZoom={(factor) => onBand(zoomed(band, Math.sqrt(band.fromHz * band.toHz), factor))}
      onWhole={() => onBand(FULL_BAND)}
    />
    <TableMenu title={title} table={table} />
    <SavePlotMenu plot={plot} />
  </>
);
