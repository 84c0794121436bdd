package eagerneedle.archive;

import java.util.Locale;
import java.util.Optional;

/**
 * Questions that are asked of an archive again and again. Their SQL keeps to what DuckDB and Apache Spark both
 * understand, so that a department that outgrows one machine asks the same.
 */
public enum Question {
    DRIFT("drift of instruments over the years, by the values found at their calibrations", """
            select serial, instrument, unit, count(*) as times, min(years) as first, max(years) as last,
              avg(value) as mean, regr_slope(value, years) as per_year,
              max(value) - min(value) as spread
            from history where value is not null
            group by serial, instrument, unit having count(*) > 1
            order by serial, unit
            """, "serial", "per_year"),
    RESULTS("results of methods by term: mean, scatter, and the uncertainty that was stated", """
            select q.method as method, q.name as name, q.label as label, s.term as term, q.unit as unit, count(*) as sessions,
              avg(q.value) as mean, stddev_samp(q.value) as scatter, avg(q.u) as u
            from quantities q join sessions s on q.session = s.session
            where q.run is null and q.label is not null
            group by q.method, q.name, q.label, s.term, q.unit
            order by method, name, term, unit
            """, "label", "mean"),
    OVERDUE("calibrations that ran out, of channels and of instruments, as of today", """
            select what, instrument, max(due) as due from (
              select concat(method, ': ', channel) as what, serials as instrument, due from calibrations
              union all
              select instrument as what, serial as instrument, due from history where due is not null
            ) as every_one
            group by what, instrument having max(due) < cast('$today' as timestamp)
            order by due, what, instrument
            """, "what", ""),
    FINDINGS("what the watches found most often, and what marking found wrong", """
            select kind, what, count(*) as times, count(distinct session) as sessions from (
              select 'watch' as kind, rule as what, session from findings
              union all
              select 'mistake' as kind, coalesce(mistake, verdict) as what, session from marks
                where verdict not in ('right', 'another-way', 'followed')
            ) as every_one
            group by kind, what order by times desc, kind, what
            """, "what", "times"),
    BENCHES(
            "benches that stand out: how far their mean lies from that of all, by the scatter of sessions",
            """
            select b.method as method, b.name as name, b.bench as bench, b.n as sessions, b.mean as mean, a.mean as all_mean,
              (b.mean - a.mean) / (a.scatter / sqrt(b.n)) as apart
            from (
              select q.method as method, q.name as name, q.unit as unit, s.bench as bench, count(*) as n, avg(q.value) as mean
              from quantities q join sessions s on q.session = s.session
              where q.run is null and q.label is not null and s.bench <> ''
              group by q.method, q.name, q.unit, s.bench
            ) b join (
              select q.method as method, q.name as name, q.unit as unit, count(*) as n, avg(q.value) as mean,
                stddev_samp(q.value) as scatter
              from quantities q join sessions s on q.session = s.session
              where q.run is null and q.label is not null and s.bench <> ''
              group by q.method, q.name, q.unit having count(*) > 2
            ) a on a.method = b.method and a.name = b.name and a.unit = b.unit
            where a.scatter > 0 and abs(b.mean - a.mean) > 2 * a.scatter / sqrt(b.n)
            order by round(abs((b.mean - a.mean) / (a.scatter / sqrt(b.n))), 6) desc, method, name, bench
            """,
            "bench",
            "apart");

    private final String words;
    private final String sql;
    private final String of;
    private final String drawn;

    Question(String words, String sql, String of, String drawn) {
        this.words = words;
        this.sql = sql;
        this.of = of;
        this.drawn = drawn;
    }

    /** What is asked, in words. */
    public String words() {
        return words;
    }

    /** The SQL. @param today as 2026-11-30 */
    public String sql(String today) {
        return sql.replace("$today", today);
    }

    /** The column that names what is drawn. */
    String of() {
        return of;
    }

    /** The column that is drawn; empty for what is a list. */
    String drawn() {
        return drawn;
    }

    /** What it is called at the command line. */
    public String title() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** The question of a name. */
    public static Optional<Question> named(String title) {
        for (Question q : values()) {
            if (q.title().equals(title)) {
                return Optional.of(q);
            }
        }
        return Optional.empty();
    }
}
