import { HandOverView } from "../views/HandOverView";

export default function HandOver() {
  return <HandOverView />;
}
