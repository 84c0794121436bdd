package eagerneedle.benchmark;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.options.OptionsBuilder;

/**
 * Runs the benchmarks and prints each as a ratio to its baseline from the same run; times are those of the fastest
 * tenth of the calls.
 */
public final class Ratios {
    private Ratios() {}

    public static void main(String[] arguments) throws Exception {
        Collection<RunResult> results = new Runner(new OptionsBuilder()
                        .include(ReductionBenches.class.getName())
                        .include(NumberBenches.class.getName())
                        .include(StoreBenches.class.getName())
                        .include(SheetBenches.class.getName())
                        .build())
                .run();
        System.out.println();
        print(results, "oneEdit", "wholeReduction", "one edit of a window against reducing the whole session");
        print(
                results,
                "monteCarloOfAMillion",
                "plainDrawsOfAMillion",
                "a million draws of ten inputs against a straight loop on one core");
        print(results, "formulaFit", "libraryFit", "fit of a formula to 10 000 points against the library alone");
        print(results, "changePoints", "plainStretches", "change points of 300 samples against costing every stretch");
        print(
                results,
                "formulaEvaluation",
                "plainEvaluation",
                "a formula of ten uncertain inputs against its plain arithmetic");
        print(results, "delimitedText", "plainSplitting", "8 MB of delimited text against splitting it line by line");
        print(
                results,
                "aMillionSamplesKept",
                "aMillionSamplesWrittenPlain",
                "a million samples packed and kept against writing them plain");
        print(
                results,
                "windowStatisticsOfAMillion",
                "plainLoopOverAMillion",
                "window statistics of a million samples against a plain loop");
        print(
                results,
                "windowStatisticsOfACorrelatedMillion",
                "plainLoopOverAMillion",
                "the same, each sample 0.95 of the one before and noise");
        print(
                results,
                "wholeReduction",
                "plainLoopOverAMillion",
                "the whole demonstration reduced against a plain loop over a million");
        print(
                results,
                "proposalsInALongSheet",
                "longSheetComposed",
                "what may stand at a place of 1500 lines against reading their YAML");
        print(
                results,
                "entryPutIntoALongSheet",
                "longSheetComposed",
                "an entry put into 1500 lines against reading their YAML");
        print(
                results,
                "longSheetLookedThrough",
                "longSheetComposed",
                "1500 lines looked through against reading their YAML");
        List<String> rest = new ArrayList<>(List.of(arguments));
        if (rest.remove("--peers")) {
            System.out.println();
            Peers.run()
                    .forEach((name, ms) -> System.out.printf(
                            "%-30s ours %.4f ms, theirs %.4f ms: ours takes %.3g of their time%n",
                            name, score(results, name), ms, score(results, name) / ms));
        }
        System.out.println();
        CaptureBench.main(rest.toArray(new String[0]));
    }

    private static void print(Collection<RunResult> results, String of, String baseline, String says) {
        System.out.printf(
                "%-66s %.4f ms : %.4f ms = %.3g%n",
                says, score(results, of), score(results, baseline), score(results, of) / score(results, baseline));
    }

    /** What the fastest tenth of all calls stayed within, ms: of the others a machine with other work tells more. */
    private static double score(Collection<RunResult> results, String name) {
        return results.stream()
                .filter(r -> r.getPrimaryResult().getLabel().equals(name))
                .findFirst()
                .orElseThrow()
                .getPrimaryResult()
                .getStatistics()
                .getPercentile(10);
    }
}
