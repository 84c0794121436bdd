package eagerneedle.core.function;

import eagerneedle.core.arithmetic.Program;
import eagerneedle.core.fit.NumberedCurve;
import org.jspecify.annotations.Nullable;

/**
 * A model as a compiled formula.
 *
 * @param program over p parameters as scalars and the columns of data, the abscissa first
 * @param parameters how many parameters there are
 * @param data n numbers each
 */
record CompiledCurve(Program program, int parameters, double[][] data) implements NumberedCurve {
    @Override
    public double at(int point, double x, double[] values, double[] gradient) {
        double[][] row = new double[data.length][1];
        for (int c = 0; c < data.length; c++) {
            row[c][0] = c == 0 ? x : data[c][point];
        }
        double[][] out = new double[1 + parameters + Math.min(1, data.length)][1];
        program.run(values, row, 0, 1, out);
        for (int k = 0; k < parameters; k++) {
            gradient[k] = out[1 + k][0];
        }
        gradient[parameters] = data.length == 0 ? 0 : out[1 + parameters][0];
        return out[0][0];
    }

    @Override
    public void all(
            double[] x, double[] values, double[] value, double @Nullable [][] byParameter, double @Nullable [] byX) {
        double[][] columns = data.clone();
        if (columns.length > 0) {
            columns[0] = x;
        } else if (byX != null) {
            java.util.Arrays.fill(byX, 0);
        }
        double[][] out = new double[1 + parameters + Math.min(1, data.length)][];
        out[0] = value;
        if (byParameter != null) {
            System.arraycopy(byParameter, 0, out, 1, parameters);
        }
        if (data.length > 0) {
            out[1 + parameters] = byX;
        }
        program.run(values, columns, 0, x.length, out);
    }

    @Override
    public NumberedCurve over(int[] points) {
        double[][] some = new double[data.length][points.length];
        for (int c = 0; c < data.length; c++) {
            for (int i = 0; i < points.length; i++) {
                some[c][i] = data[c][points[i]];
            }
        }
        return new CompiledCurve(program, parameters, some);
    }
}
