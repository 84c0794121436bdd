package eagerneedle.app.widget;

import javafx.geometry.Orientation;
import javafx.scene.layout.Region;

/**
 * Two parts of a page, beside each other where both have room and one below the other where not: the second takes what
 * the first leaves. What counts as room grows with the size of the text.
 */
public final class BesideOrBelow extends Region {
    private static final double GAP = 26;
    private static final double BELOW = 16;
    private static final double LEAST = 250;
    private final Region first;
    private final Region second;

    public BesideOrBelow(Region first, Region second) {
        this.first = first;
        this.second = second;
        getChildren().addAll(first, second);
    }

    @Override
    public Orientation getContentBias() {
        return Orientation.HORIZONTAL;
    }

    private static boolean isBeside(double width) {
        return width < 0 || width >= 2 * Theme.px(LEAST) + Theme.px(GAP);
    }

    /** The first has the width it prefers, and more than half only where there is plenty. */
    private double firstWidth(double width) {
        double least = Theme.px(LEAST);
        return Math.rint(Math.max(least, Math.min(first.prefWidth(-1), width - Theme.px(GAP) - least)));
    }

    @Override
    protected double computeMinWidth(double height) {
        return Theme.px(LEAST);
    }

    @Override
    protected double computePrefWidth(double height) {
        return first.prefWidth(-1) + Theme.px(GAP) + second.prefWidth(-1);
    }

    @Override
    protected double computePrefHeight(double width) {
        double w = width < 0 ? computePrefWidth(-1) : width;
        if (isBeside(w)) {
            double a = firstWidth(w);
            return Math.max(first.prefHeight(a), second.prefHeight(w - a - Theme.px(GAP)));
        }
        return first.prefHeight(w) + Theme.px(BELOW) + second.prefHeight(w);
    }

    @Override
    protected double computeMinHeight(double width) {
        return computePrefHeight(width);
    }

    @Override
    protected void layoutChildren() {
        double w = getWidth();
        if (isBeside(w)) {
            double a = firstWidth(w);
            double from = a + Theme.px(GAP);
            first.resizeRelocate(0, 0, a, getHeight());
            second.resizeRelocate(from, 0, w - from, getHeight());
        } else {
            double h = first.prefHeight(w);
            first.resizeRelocate(0, 0, w, h);
            second.resizeRelocate(0, h + Theme.px(BELOW), w, second.prefHeight(w));
        }
    }
}
