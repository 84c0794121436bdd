package eagerneedle.archive;

import java.util.Locale;

/**
 * The tables of an archive. Every row says which session it is of and in which batch it was written; the files lie in
 * folders by method and year, whose names are columns too. Tables of which runs are many keep nothing that can be said
 * once for their session.
 */
enum ArchiveTable {
    /** A session each. */
    SESSIONS("title VARCHAR, bench VARCHAR, term VARCHAR, years DOUBLE, created TIMESTAMP, runs INTEGER, bytes BIGINT"),
    /** Who took part, by pseudonym. */
    PEOPLE("person VARCHAR"),
    RUNS("run INTEGER, capture VARCHAR, level VARCHAR, started TIMESTAMP, samples BIGINT, counts BOOLEAN"),
    /** Results, with no run, and quantities of runs; {@code u} in {@code unit}. */
    QUANTITIES("run INTEGER, name VARCHAR, label VARCHAR, value DOUBLE, u DOUBLE, dof DOUBLE, unit VARCHAR"),
    /** What each influence adds to the standard uncertainty of a result, in the unit of that. */
    CONTRIBUTIONS("name VARCHAR, influence VARCHAR, source VARCHAR, contribution DOUBLE, unit VARCHAR"),
    COMPARISONS(
            "id VARCHAR, label VARCHAR, value DOUBLE, u DOUBLE, reference DOUBLE, u_reference DOUBLE, unit VARCHAR, agrees BOOLEAN"),
    CALIBRATIONS("channel VARCHAR, kind VARCHAR, reference VARCHAR, serials VARCHAR, taken TIMESTAMP, due TIMESTAMP, "
            + "years DOUBLE, slope DOUBLE, u_slope DOUBLE, intercept DOUBLE, u_intercept DOUBLE, unit VARCHAR"),
    /** Which serials a session names. */
    INSTRUMENTS("serial VARCHAR, place VARCHAR"),
    /** What was decided and could be decided otherwise. */
    CHOICES("what VARCHAR, chosen VARCHAR"),
    /** What the watches found. */
    FINDINGS("run INTEGER, rule VARCHAR, severity VARCHAR, channel VARCHAR"),
    /** What marking found in a class. */
    MARKS("person VARCHAR, quantity VARCHAR, verdict VARCHAR, mistake VARCHAR"),
    /** What happened to instruments of a stockroom. */
    HISTORY(
            "serial VARCHAR, instrument VARCHAR, happened TIMESTAMP, years DOUBLE, value DOUBLE, u DOUBLE, unit VARCHAR, "
                    + "due TIMESTAMP, outcome VARCHAR"),
    /** Raw samples, on the clock of the run. */
    SAMPLES("run INTEGER, channel VARCHAR, t DOUBLE, v DOUBLE");

    /** Columns of every table, besides those of the folders. */
    private static final String OWN = "session VARCHAR, batch BIGINT, ";

    private static final String FOLDERS = ", method VARCHAR, year INTEGER";

    private final String columns;

    ArchiveTable(String columns) {
        this.columns = columns;
    }

    String title() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** All columns, as SQL declares them. */
    String declared() {
        return OWN + columns + FOLDERS;
    }
}
