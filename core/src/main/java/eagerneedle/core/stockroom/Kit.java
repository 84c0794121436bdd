package eagerneedle.core.stockroom;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * The instruments that stand at one bench. A sheet names instruments of the bench it was written at; a kit says which
 * of this bench stand in for them, so that one sheet runs at twelve benches as it is.
 *
 * @param bench what the bench is called
 * @param serials what it has
 */
public record Kit(String bench, List<String> serials) {
    public Kit {
        serials = List.copyOf(serials);
    }

    /**
     * What stands in for what a sheet names.
     *
     * @param serials by serial of the sheet, that of this bench; what stays as it is, is not in it
     * @param lacking what this bench does not have, one sentence each
     */
    public record Standing(Map<String, String> serials, List<String> lacking) {
        public Standing {
            serials = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(serials));
            lacking = List.copyOf(lacking);
        }
    }

    /**
     * Finds for each instrument that a sheet names one of this bench that is like it: of the same name in the
     * stockroom, or else of the same unit whose serial begins alike. Two of a kind are taken in their order.
     *
     * @param named serials in the order in which the sheet names them
     * @param stock the instruments of the laboratory
     */
    public Standing inPlaceOf(Set<String> named, List<Instrument> stock) {
        Map<String, Instrument> known = new LinkedHashMap<>();
        stock.forEach(i -> known.put(i.id(), i));
        List<String> free = new ArrayList<>(serials);
        Map<String, String> out = new LinkedHashMap<>();
        List<String> lacking = new ArrayList<>();
        // What stands there itself is taken by nothing else.
        named.forEach(free::remove);
        for (String serial : named) {
            Instrument wanted = known.get(serial);
            if (serials.contains(serial) || wanted == null || isShared(wanted)) {
                continue;
            }
            free.stream()
                    .filter(f -> known.containsKey(f) && isLike(known.get(f), wanted))
                    .findFirst()
                    .ifPresentOrElse(
                            f -> {
                                free.remove(f);
                                out.put(serial, f);
                            },
                            () -> lacking.add(bench + " has no " + wanted.name() + " of its own; " + serial
                                    + " is used, as the sheet says."));
        }
        return new Standing(out, lacking);
    }

    /** References and specimens belong to no bench. */
    private static boolean isShared(Instrument i) {
        return "reference".equals(i.kind()) || "specimen".equals(i.kind());
    }

    private static boolean isLike(Instrument a, Instrument b) {
        return a.name().equalsIgnoreCase(b.name())
                || a.kind().equals(b.kind())
                        && java.util.Objects.equals(a.measures(), b.measures())
                        && stem(a.id()).equals(stem(b.id()));
    }

    private static String stem(String id) {
        return id.replaceFirst("[0-9]+$", "").toLowerCase(Locale.ROOT);
    }
}
