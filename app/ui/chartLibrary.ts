// The parts of Chart.js that our charts use. It is as large as a view, and loaded when the first chart is drawn.
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from "chart.js";

/** Registers the components that our charts use, and returns the class of charts. */
export function withComponents(): typeof Chart {
  Chart.register(
    ...[BarController, BarElement, LineController, LineElement, PointElement],
    ...[CategoryScale, LinearScale, Legend, Tooltip],
  );
  return Chart;
}
