import { quantityFaultText } from "~/messages/faults";
import { QuantityField as PlainQuantityField, type QuantityProps } from "~/ui/fields";

/** The quantity field of the places: it says in words what it did not understand. */
export const QuantityField = (props: Omit<QuantityProps, "faultText">) => (
  <PlainQuantityField {...props} faultText={quantityFaultText} />
);
