import { HandOverView } from "../handOver/HandOverView";

export default function HandOver() {
  return <HandOverView />;
}
