import { HandOverView } from "../views/handOver/HandOverView";

export default function HandOver() {
  return <HandOverView />;
}
