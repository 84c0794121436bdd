package eagerneedle.core.physics;

import eagerneedle.core.quantity.LabUnit;

/** A compiled formula: a number in coherent units, or 1 and 0 for true and false. */
interface Code {
    double at(Moment m);

    /**
     * A compiled part of a formula.
     *
     * @param code gives its value
     * @param unit coherent unit of the value; 1 for a truth
     * @param isTruth true for what holds or does not
     * @param fixed true when it is the same at every moment
     */
    record Part(Code code, LabUnit unit, boolean isTruth, boolean fixed) {
        Part(Code code, LabUnit unit, boolean fixed) {
            this(code, unit, false, fixed);
        }

        static Part fixed(double value, LabUnit unit) {
            return new Part(new Arithmetic.Constant(value), unit, true);
        }

        static Part truth(Code code, boolean fixed) {
            return new Part(code, LabUnit.ONE, true, fixed);
        }

        /** What it is, for messages. */
        String said() {
            return isTruth ? "a comparison" : "a value in " + unit.named();
        }

        boolean fits(LabUnit wanted) {
            return !isTruth && unit.fits(wanted);
        }
    }
}
