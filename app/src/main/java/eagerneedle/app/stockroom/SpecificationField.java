package eagerneedle.app.stockroom;

import java.util.List;

/** A field of the specification of an instrument: its key, its words, and an example of what stands in it. */
record SpecificationField(String key, String label, String example) {
    /** Every field of a specification but the kind, in order. */
    static final List<SpecificationField> ALL = List.of(
            new SpecificationField("id", "serial", "TH-CP-01"),
            new SpecificationField("name", "name", "caliper"),
            new SpecificationField("measures", "unit", "mm"),
            new SpecificationField("place", "kept at", "cupboard A"),
            new SpecificationField("low", "range from", "0 mm"),
            new SpecificationField("high", "range to", "150 mm"),
            new SpecificationField("resolution", "resolution", "0.02 mm"),
            new SpecificationField("edges", "edges lined up", "1; 2 for a rule laid freely"),
            new SpecificationField("accuracy", "accuracy", "0.02 mm + 0.1 mm/m, or 0.5 % of reading + 2 digits"),
            new SpecificationField("value", "reference value", "100.012(4) ohm"),
            new SpecificationField("warm", "warm-up, min", "20"),
            new SpecificationField("minutes", "one reading, min", "1"),
            new SpecificationField("limits", "limits", "no more than 400 °C"));
}
