import { ShapeView } from "../views/ShapeView";

export default function Shape() {
  return <ShapeView />;
}
