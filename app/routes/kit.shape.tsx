import { ShapeView } from "../shape/ShapeView";

export default function Shape() {
  return <ShapeView />;
}
