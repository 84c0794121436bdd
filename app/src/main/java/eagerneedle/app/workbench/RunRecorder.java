package eagerneedle.app.workbench;

import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.driver.Driver;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * Keeps a run while it is captured. The driver only queues its blocks here; a thread of our own writes what is queued
 * every {@value #COMMIT_MS} ms, so that a slow disk holds nobody up. When the disk refuses, blocks wait and are tried
 * again; when too many wait, the newest are let go, counted, and said.
 */
final class RunRecorder implements AutoCloseable {
    private static final int COMMIT_MS = 200;
    private static final int LAST_TRIES = 3;

    /** Where samples are written: all channels of a run together, or nothing. */
    interface Store {
        void append(int run, Map<String, RawSamples> samples);
    }

    private final int run;
    private final Store store;
    private final Map<String, Integer> columns;
    private final double offset;
    private final long mostWaiting;
    private final Deque<Driver.Block> waiting = new ArrayDeque<>();
    private final ScheduledExecutorService thread = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread t = new Thread(r, "recorder");
        t.setDaemon(true);
        return t;
    });
    private final Object writing = new Object();
    private long queued;
    private volatile long kept;
    private volatile long lost;
    private volatile String trouble = "";

    /**
     * Begins to keep.
     *
     * @param columns which column of a block each channel of the sheet is
     * @param offset s added to all times, for a run that is continued
     * @param mostWaiting values that may wait for the disk
     */
    RunRecorder(int run, Store store, Map<String, Integer> columns, double offset, long mostWaiting) {
        this.run = run;
        this.store = store;
        this.columns = new LinkedHashMap<>(columns);
        this.offset = offset;
        this.mostWaiting = mostWaiting;
        thread.scheduleWithFixedDelay(this::commit, COMMIT_MS, COMMIT_MS, TimeUnit.MILLISECONDS);
    }

    /** Takes a block; returns at once. */
    void take(Driver.Block block) {
        synchronized (waiting) {
            if (queued + size(block) > mostWaiting) {
                lost += block.size();
                return;
            }
            waiting.add(block);
            queued += size(block);
        }
    }

    private long size(Driver.Block b) {
        return (long) b.size() * (columns.size() + 1);
    }

    private void commit() {
        synchronized (writing) {
            List<Driver.Block> now;
            synchronized (waiting) {
                now = new ArrayList<>(waiting);
            }
            if (now.isEmpty()) {
                return;
            }
            try {
                Map<String, RawSamples> samples = joined(now);
                store.append(run, samples);
                trouble = "";
            } catch (RuntimeException e) {
                trouble = e.getMessage() == null
                        ? "The samples could not be written; make room on the disk."
                        : e.getMessage();
                return;
            }
            synchronized (waiting) {
                for (Driver.Block b : now) {
                    waiting.removeFirst();
                    queued -= size(b);
                    kept += b.size();
                }
            }
        }
    }

    private Map<String, RawSamples> joined(List<Driver.Block> blocks) {
        int n = blocks.stream().mapToInt(Driver.Block::size).sum();
        double[] time = new double[n];
        int at = 0;
        for (Driver.Block b : blocks) {
            System.arraycopy(b.time(), 0, time, at, b.size());
            at += b.size();
        }
        if (offset != 0) {
            for (int i = 0; i < n; i++) {
                time[i] += offset;
            }
        }
        Map<String, RawSamples> samples = new LinkedHashMap<>();
        columns.forEach((channel, column) -> {
            double[] values = new double[n];
            int to = 0;
            for (Driver.Block b : blocks) {
                System.arraycopy(b.counts()[column], 0, values, to, b.size());
                to += b.size();
            }
            samples.put(channel, new RawSamples(time, values));
        });
        return samples;
    }

    /** Samples of each channel that are on the disk. */
    long kept() {
        return kept;
    }

    /** Samples of each channel that could not be kept. */
    long lost() {
        return lost;
    }

    /** What stands in the way of writing: one sentence, empty when nothing does. */
    String trouble() {
        long gone = lost;
        return gone == 0
                ? trouble
                : gone + " samples of each channel could not be kept: "
                        + (trouble.isEmpty() ? "the disk was too slow." : trouble);
    }

    /** Writes what still waits; what the disk does not take now is lost, counted and said. */
    @Override
    public void close() {
        thread.shutdown();
        for (int i = 0; i < LAST_TRIES; i++) {
            commit();
        }
        synchronized (waiting) {
            waiting.forEach(b -> lost += b.size());
            waiting.clear();
            queued = 0;
        }
    }
}
