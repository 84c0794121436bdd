package eagerneedle.rig.driver;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/**
 * Driver for an instrument that understands SCPI (the Standard Commands for Programmable Instruments, on IEEE 488.2)
 * over TCP. Its channels are the queries that a sheet gives; a polling thread asks them in turn. Answers are plain
 * numbers in the channel's unit; one that carries a unit of its own is converted, or counted as not understood when it
 * does not fit.
 *
 * <p>Each query is sent with {@code ;*OPC?}, so that a whole answer ends in {@code ;1}: half an answer is a number too,
 * and its other half would pass for the answer to the next query.
 *
 * <p>Answers carry no number, and one that comes late would be taken for the answer to the next question. So after a
 * question that was not answered in time, or not wholly, the driver first asks {@code *IDN?} and passes over whatever
 * comes until that answer comes, which nothing else looks like: instruments answer in order, and what comes after it
 * belongs to what is asked after it.
 */
public final class ScpiDriver extends WireSampler {
    private static final int ANSWER_MS = 1000;
    private static final int SETTLE_MS = 60;

    private final Map<String, String> queries;
    private final Map<String, String> units;
    private final Map<String, String> commands;
    private final BlockingQueue<String> answers = new LinkedBlockingQueue<>();
    private final Map<String, Double> safe;
    private volatile double rate = 2;
    private volatile boolean on;
    private String identity = "";
    private boolean unsure;
    private volatile int late;

    /**
     * An instrument over a wire.
     *
     * @param queries the query of each channel, in order, for instance MEAS:VOLT?
     * @param units the unit of each channel's answers
     * @param commands the command of each output, with %s for the value
     * @param safe the value at which each output is off
     */
    public ScpiDriver(
            Wire wire,
            Map<String, String> queries,
            Map<String, String> units,
            Map<String, String> commands,
            Map<String, Double> safe) {
        super(wire);
        this.queries = queries;
        this.units = units;
        this.commands = commands;
        this.safe = safe;
    }

    @Override
    public Description open() throws IOException {
        connect("scpi driver");
        String id;
        try {
            id = ask("*IDN?");
        } catch (IOException e) {
            close();
            throw new IOException(
                    "Something answers at " + wire.name() + " but not to *IDN?; check that it is a SCPI instrument.",
                    e);
        }
        identity = id.strip();
        String[] parts = id.split(",");
        state = State.READY;
        List<String> names = List.copyOf(queries.keySet());
        return new Description(
                parts.length > 2 ? parts[2].strip() : id,
                parts.length > 1 ? parts[1].strip() : id,
                names,
                names.stream().map(n -> units.getOrDefault(n, "")).toList(),
                parts.length > 3 && parts[3].contains("simulated"));
    }

    private synchronized String ask(String query) throws IOException {
        try {
            if (unsure) {
                findPlace();
            }
            answers.clear();
            send(query);
            unsure = true;
            String answer = answers.poll(ANSWER_MS, TimeUnit.MILLISECONDS);
            if (answer == null) {
                throw new IOException("The instrument does not answer to " + query + ".");
            }
            unsure = false;
            return answer;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("Waiting for the instrument was interrupted.", e);
        }
    }

    /** Passes over answers to earlier questions, until the one to who it is comes. */
    private void findPlace() throws IOException, InterruptedException {
        send("*IDN?");
        long until = System.nanoTime() + ANSWER_MS * 1_000_000L;
        while (true) {
            String answer = answers.poll(Math.max(0, until - System.nanoTime()), TimeUnit.NANOSECONDS);
            if (answer == null) {
                throw new IOException("The instrument does not answer.");
            }
            if (answer.strip().equals(identity)) {
                unsure = false;
                return;
            }
            late++;
        }
    }

    /** An answer that cannot be what was asked for: the next question is asked from a known place. */
    private synchronized void doubt() {
        unsure = true;
    }

    /** Answers that came after their time and were passed over. */
    public int late() {
        return late;
    }

    @Override
    public void configure(double newRate) {
        rate = newRate;
    }

    @Override
    public void start(Sink newSink) {
        stop();
        unreadable = 0;
        sink = newSink;
        state = state == State.LOST ? State.LOST : State.RUNNING;
        work("scpi poller " + wire.name(), () -> poll(newSink));
    }

    private void poll(Sink to) {
        long start = System.nanoTime();
        long next = start;
        long heard = start;
        while (sink == to && !Thread.currentThread().isInterrupted()) {
            double[] row = new double[queries.size() + 1];
            row[0] = (System.nanoTime() - start) / 1e9;
            try {
                int i = 1;
                for (Map.Entry<String, String> q : queries.entrySet()) {
                    row[i++] = number(whole(ask(q.getValue() + ";*OPC?")), units.getOrDefault(q.getKey(), ""));
                }
                heard = System.nanoTime();
                if (sink == to && state != State.LOST) {
                    if (state == State.SILENT) {
                        state = State.RUNNING;
                        to.state(state, "The instrument answers again.");
                    }
                    double[][] values = new double[row.length - 1][1];
                    for (int c = 0; c < values.length; c++) {
                        values[c][0] = row[c + 1];
                    }
                    to.block(new Block(new double[] {row[0]}, values));
                }
            } catch (NumberFormatException e) {
                heard = System.nanoTime();
                unreadable++;
                doubt();
                LockSupport.parkNanos(SETTLE_MS * 1_000_000L);
            } catch (IOException e) {
                if (sink == to && state == State.RUNNING && System.nanoTime() - heard > ANSWER_MS * 1_000_000L) {
                    state = State.SILENT;
                    to.state(
                            state,
                            "The instrument does not answer; what came is kept. Check that it is not held by its "
                                    + "own panel.");
                }
            }
            next = Math.max(next + (long) (1e9 / rate), System.nanoTime());
            LockSupport.parkNanos(next - System.nanoTime());
        }
    }

    private static String whole(String answer) {
        String text = answer.strip();
        if (!text.endsWith(";1")) {
            throw new NumberFormatException(text);
        }
        return text.substring(0, text.length() - 2);
    }

    /** The number an answer gives in a unit. */
    private static double number(String answer, String unit) {
        String text = answer.strip();
        try {
            double v = Double.parseDouble(text);
            if (Math.abs(v) > 9e36 || !Double.isFinite(v)) {
                throw new NumberFormatException("overload");
            }
            return v;
        } catch (NumberFormatException plain) {
            try {
                Reading r = Reading.parse(text.replaceFirst("^\\+", ""));
                if (!r.unit().isDimensionless()) {
                    return r.unit().convert(r.value(), LabUnit.parse(unit));
                }
            } catch (IllegalArgumentException e) {
                plain.addSuppressed(e);
            }
            throw plain;
        }
    }

    @Override
    public void stop() {
        endWork();
        state = state == State.RUNNING || state == State.SILENT ? State.READY : state;
    }

    @Override
    public void setOutput(String output, double value) throws IOException {
        String command = commands.get(output);
        if (command == null) {
            throw new IOException("This instrument has no output called " + output + ".");
        }
        if (state == State.LOST) {
            throw new IOException("The connection to the instrument is lost.");
        }
        synchronized (this) {
            send("*CLS");
            send(command.replace("%s", Double.toString(value)));
            String error = ask("SYST:ERR?");
            if (!error.startsWith("0") && !error.startsWith("+0")) {
                throw new IOException("The instrument refused " + output + " = " + value + ": "
                        + error.replaceFirst("^[-+0-9]+,\\s*", "").replace("\"", "") + ".");
            }
        }
        on = value != safe.getOrDefault(output, 0.0);
    }

    @Override
    public String selfTest() throws IOException {
        String answer = ask("*TST?");
        return answer.strip().equals("0") || answer.strip().equals("+0") ? "" : "Its self-test says " + answer + ".";
    }

    @Override
    public void line(String line) {
        answers.add(Conversation.text(line));
    }

    @Override
    public void lost() {
        boolean had = on;
        on = false;
        tell(
                State.LOST,
                "The connection to the instrument is lost; what came is kept. It is being tried again."
                        + (had ? " Its output may still be on: go and switch it off." : ""));
    }

    @Override
    public void back() throws IOException {
        doubt();
        makeSafe();
        tell(
                sink == null ? State.READY : State.RUNNING,
                "The instrument is back; its outputs were switched off first.");
    }

    private void makeSafe() throws IOException {
        for (Map.Entry<String, String> c : commands.entrySet()) {
            send(c.getValue().replace("%s", Double.toString(safe.getOrDefault(c.getKey(), 0.0))));
        }
    }

    @Override
    public void close() {
        stop();
        hangUp(() -> {
            if (on) {
                makeSafe();
            }
        });
    }
}
